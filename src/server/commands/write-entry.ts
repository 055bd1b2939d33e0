import { randomBytes } from 'node:crypto';
import type { Connection } from '../db/connection.ts';
import { DesignStore } from '../store/design-store.ts';
import { derive } from '../store/derive.ts';
import { revisionWriter } from '../store/revision-writer.ts';
import { statement } from '../store/statement.ts';
import { raisePublic, write } from '../store/write.ts';
import { markdownToRichText } from '../files/markdown.ts';
import { type Actor, permit } from './permit.ts';
import { type Issue, type Result, ok, refused } from '@/core/issue.ts';
import { parseValue } from '@/core/design/field-types.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { Values } from '@/core/design/values.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { Instant } from '@/core/time/interval.ts';

/** Leaves the transaction without a trace, with what stands in the way. */
export class Refusal extends Error {
  constructor(readonly issues: Issue[]) {
    super('refused');
  }
}

/** Runs a write that may be refused on the way. */
export function refusable<T>(
  connection: Connection,
  wallClock: Instant,
  change: (at: Instant, site: CompiledSite) => T,
): Result<T> {
  try {
    return ok(
      write(connection, wallClock, (at) => {
        const released = new DesignStore(connection).at(at);
        if (!released)
          throw new Refusal([
            { code: 'no-site', message: 'There is no site yet.', fix: 'Load a site folder first.' },
          ]);
        return change(at, released.site);
      }),
    );
  } catch (error) {
    if (error instanceof Refusal) return refused(...error.issues);
    throw error;
  }
}

/** Values of a form, by field key, as they are stored; every wrong one is named. */
export function interpretValues(
  site: CompiledSite,
  type: ContentType,
  given: Record<string, unknown>,
  now: Instant,
): Result<Values> {
  const { zone } = site.design.site;
  const issues: Issue[] = [];
  const values: Values = {};
  for (const field of type.fields) {
    const parsed = parseValue(given[field.key], field, { now, zone, markdown: markdownToRichText });
    if (parsed.ok) values[field.id] = parsed.value;
    else issues.push(...parsed.issues);
  }
  return issues.length > 0 ? { ok: false, issues } : ok(values);
}

/** What saving an entry takes: its type and values by field key; no id for a new one. */
export interface SaveInput {
  id: string | null;
  type: string;
  values: Record<string, unknown>;
  /** The newest revision the person saw; a newer one by somebody else refuses the save. */
  seen: number | null;
}

/** Saves a revision, making the entry where it is new. Nothing public changes by it. */
export function saveEntry(
  connection: Connection,
  actor: Actor,
  input: SaveInput,
  wallClock: Instant,
): Result<{ id: string; revision: number }> {
  permit(actor, 'write-entry');
  return refusable(connection, wallClock, (at, site) => {
    const saved = insertRevision(connection, site, actor, input, at);
    const { types } = derive(connection, { site, settled: at, touched: [saved.id] });
    raisePublic(connection, hasFuture(connection, at) ? [...types].map((t) => `type:${t}`) : []);
    return saved;
  });
}

function hasFuture(connection: Connection, at: Instant): boolean {
  return (
    statement(connection, 'SELECT 1 FROM planned_change WHERE at > ? LIMIT 1').get(at) !== undefined
  );
}

function insertRevision(
  connection: Connection,
  site: CompiledSite,
  actor: Actor,
  input: SaveInput,
  at: Instant,
): { id: string; revision: number } {
  const type = site.types.get(input.type);
  if (!type)
    throw new Refusal([
      {
        code: 'unknown-type',
        message: `There is no content type "${input.type}".`,
        fix: 'Choose another.',
      },
    ]);
  const values = interpretValues(site, type, input.values, at);
  if (!values.ok) throw new Refusal(values.issues);
  const id = input.id ?? `${type.key}-${randomBytes(6).toString('hex')}`;
  if (input.id === null)
    statement(connection, 'INSERT INTO entry (id, type, created, author) VALUES (?, ?, ?, ?)').run(
      id,
      type.key,
      at,
      actor.name,
    );
  else if (
    !statement(connection, 'SELECT 1 FROM entry WHERE id = ? AND type = ?').get(id, type.key)
  )
    throw new Refusal([
      {
        code: 'unknown-entry',
        message: `There is no ${type.label.toLowerCase()} "${id}".`,
        fix: 'It may have been removed; go back to Content.',
      },
    ]);
  checkReferences(connection, type, values.value);
  const newest =
    (statement(connection, 'SELECT max(number) FROM revision WHERE entry = ?').pluck().get(id) as
      number | null) ?? 0;
  if (input.seen !== null && newest > input.seen) {
    throw new Refusal([
      {
        code: 'newer-revision',
        message: 'Somebody saved a newer version while you were writing.',
        fix: 'Open the newest version in another tab, bring your words over, and save again.',
      },
    ]);
  }
  revisionWriter(connection, site.design.site.language)(id, type, {
    number: newest + 1,
    saved: at,
    values: values.value,
    author: actor.name,
  });
  return { id, revision: newest + 1 };
}

function checkReferences(connection: Connection, type: ContentType, values: Values): void {
  const issues: Issue[] = [];
  const exists = statement(connection, 'SELECT type FROM entry WHERE id = ?').pluck();
  for (const field of type.fields.filter((f) => f.kind === 'reference')) {
    for (const target of [values[field.id] ?? []].flat().map(String)) {
      const found = exists.get(target) as string | undefined;
      if (found === undefined || (field.types && !field.types.includes(found)))
        issues.push({
          code: 'unknown-entry',
          path: field.key,
          message: `${field.label} points at "${target}", which is not there or of another type.`,
          fix: 'Choose one from the list.',
        });
    }
  }
  if (issues.length > 0) throw new Refusal(issues);
}
