import { and, eq, isNull } from 'drizzle-orm';
import type { ContentType } from '@/core/design/spec.ts';
import { withComputed } from '@/core/design/computed.ts';
import { parseValues } from '@/core/design/field-values.ts';
import { checkMentions, type ValueWorld } from '@/core/design/check-values.ts';
import { notLetInAnew } from '@/core/design/let-in.ts';
import { ORDER, orderSpec } from '@/core/design/other-order.ts';
import { PRESETS, presetsSpec } from '@/core/design/presets.ts';
import type { Given, LimitWorld } from '@/core/design/kinds/definition.ts';
import type { Role } from '@/core/design/roles.ts';
import type { Values } from '@/core/design/values.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { Issue } from '@/core/issue.ts';
import { paragraphsOf } from '@/core/rich-text/index.ts';
import type { Connection } from '../db/connection.ts';
import { entry, media } from '../db/schema.ts';
import { statement } from './statement.ts';
import { valuesOfType } from './stored-values.ts';
import { SubjectStore, subjectAt, wasThere } from './subject-store.ts';

/** Whose form it is, and of what. */
interface FormOf {
  now: Instant;
  /** Null for a new entry. */
  entry: string | null;
  role: Role;
  /** What stands in its place so far, where that is no entry: a starter. */
  before?: Values | undefined;
}

/** Values of a form, by field id, as they are stored, and what keeps them from being saved. */
export function valuesOfForm(
  connection: Connection,
  site: CompiledSite,
  type: ContentType,
  given: Record<string, unknown>,
  { now, entry: id, role, before = {} }: FormOf,
): { values: Values; issues: Issue[] } {
  const { zone } = site.design.site;
  const { [PRESETS]: otherwise, [ORDER]: order, ...fields } = given;
  const isKept = keptOf(connection, id);
  const read = parseValues(type.fields, fields, { now, zone, richText: paragraphsOf, isKept });
  const { issues } = read;
  const values = withComputed(type.fields, read.values, site.design.site);
  for (const [id, spec, besides] of [
    [PRESETS, presetsSpec, otherwise],
    [ORDER, orderSpec, order],
  ] as const) {
    if (besides === undefined) continue;
    const own = spec.safeParse(besides ?? {});
    if (own.success) values[id] = Object.keys(own.data).length > 0 ? own.data : null;
    else issues.push(unreadable());
  }
  const wrong = checkMentions(type.fields, values, storedWorld(connection, site, now));
  const stood = (): Values => (id === null ? before : storedBefore(connection, site, type, id));
  const besides = notLetInAnew(type.fields, values, stood, role);
  return { values, issues: [...issues, ...wrong, ...besides] };
}

/** The values of an entry's newest revision; none where there is none. */
function storedBefore(
  connection: Connection,
  { design }: CompiledSite,
  type: ContentType,
  entry: string,
): Values {
  const sql = `SELECT r."values" FROM entry AS e JOIN revision AS r
    ON r.entry = e.id AND r.number = e.newest WHERE e.id = ?`;
  const json = statement<string>(connection, sql).pluck().get(entry) ?? '{}';
  return valuesOfType(type, json, design.site);
}

/**
 * Whether a group's item may keep what no field holds any more: what some revision of the entry has
 * so. Revisions are read when it is asked for.
 */
function keptOf(connection: Connection, id: string | null): Given['isKept'] {
  const stored = statement<string>(connection, 'SELECT "values" FROM revision WHERE entry = ?');
  let known: Set<string> | null = null;
  const note = (name: string, value: unknown): string => `${name}\n${JSON.stringify(value)}`;
  return (name, value) => {
    if (!known) {
      known = new Set();
      for (const json of stored.pluck().iterate(id) as Iterable<string>)
        JSON.parse(json, (key, inner: unknown) => {
          known!.add(note(key, inner));
          return inner;
        });
    }
    return known.has(note(name, value));
  };
}

function unreadable(): Issue {
  return {
    code: 'wrong-form',
    message: 'What this entry has besides its fields cannot be read.',
    fix: 'Reload the page and try again.',
  };
}

const CANDIDATES = 1000;

/** What limits of values are reckoned by in a stored site. */
export function limitWorld(
  connection: Connection,
  { design }: CompiledSite,
  now: Instant,
): LimitWorld {
  const { tables } = connection;
  return {
    now,
    zone: design.site.zone,
    file: (id) =>
      tables
        .select({ mime: media.mime, bytes: media.bytes })
        .from(media)
        .where(and(eq(media.id, id), isNull(media.ends)))
        .get() ?? null,
  };
}

/** What is there of a stored site, for checking values. */
export function storedWorld(connection: Connection, site: CompiledSite, now: Instant): ValueWorld {
  const { tables } = connection;
  return {
    typeOf: (id) => {
      const found = tables
        .select({ type: entry.type })
        .from(entry)
        .where(and(eq(entry.id, id), isNull(entry.deleted)))
        .get();
      return found ? (site.types.get(found.type)?.key ?? null) : null;
    },
    has: (mention) =>
      mention.of === 'subject'
        ? isSubject(connection, site.setIds.get(mention.set) ?? '', mention.key, now)
        : // What is gone reads as nothing, and is back where that is undone.
          tables.select().from(media).where(eq(media.id, mention.key)).get() !== undefined,
    candidates: (mention) => {
      if (mention.of === 'subject')
        return new SubjectStore(connection)
          .under(site)
          .at(now)
          .all(mention.set)
          .map((s) => s.key);
      const found =
        mention.of === 'media'
          ? tables.select({ id: media.id }).from(media).where(isNull(media.ends)).orderBy(media.id)
          : tables
              .select({ id: entry.id })
              .from(entry)
              .where(isNull(entry.deleted))
              .orderBy(entry.id);
      return found
        .limit(CANDIDATES)
        .all()
        .map(({ id }) => id);
    },
  };
}

/** Whether a key may be saved: what is gone reads as nothing, and is back where that is undone. */
function isSubject(connection: Connection, set: string, key: string, now: Instant): boolean {
  return subjectAt(connection, set, key, now) !== null || wasThere(connection, set, key, now);
}
