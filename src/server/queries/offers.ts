import { isDerived } from '@/core/design/computed.ts';
import type { Field } from '@/core/design/field.ts';
import type { ContentType } from '@/core/design/spec.ts';
import { type Values, valuesOf } from '@/core/design/values.ts';
import { stablePath } from '@/core/site/pictures.ts';
import { targetOf } from '@/core/design/field-values.ts';
import { searchKey } from '@/core/text.ts';
import type { Instant } from '@/core/time/interval.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import type { Subjects } from '../store/subject-store.ts';
import { statement } from '../store/statement.ts';
import { readValues } from '../store/stored-values.ts';
import type { SiteView } from './site-view.ts';
import { asOf } from '../store/as-of.ts';

/** Something a control offers. */
export interface Option {
  value: string;
  label: string;
}

/**
 * What a field's control offers at once: options or subjects; entries and media are searched for.
 */
export function optionsOf(view: SiteView, field: Field, at: Instant): Option[] {
  const target = targetOf(field);
  if (target === null) return field.options?.map((o) => ({ value: o.id, label: o.label })) ?? [];
  if (target.of === 'subjects') return subjectOptions(view.subjects(at), target.set);
  return [];
}

function subjectOptions(subjects: Subjects, set: string): Option[] {
  const path = (key: string, depth = 0): string => {
    const subject = subjects.get(set, key);
    if (!subject) return key;
    const above =
      subject.parent === null || depth > 20 ? '' : `${path(subject.parent, depth + 1)} › `;
    return above + subject.name;
  };
  return subjects.all(set).map((s) => ({ value: s.key, label: path(s.key) }));
}

/** An entry that can be pointed at. */
export interface FoundEntry {
  id: string;
  name: string;
  typeLabel: string;
  /** Its path as of the instant asked for; null where it has none. */
  path: string | null;
  /** What it says of itself, short; '' where it says nothing. */
  says: string;
  /** Address of a small picture of it; null where it has none. */
  thumbnail: string | null;
}

const FOUND = 20;

/** Entries of some types (all where null) that have the searched words in their name, by name. */
export function findEntries(
  view: SiteView,
  actor: Actor,
  { types, words, without }: { types: string[] | null; words: string; without: string | null },
  at: Instant,
): FoundEntry[] {
  permit(actor, 'read-unpublished', SITE);
  const site = view.at(at)?.site;
  if (!site) return [];
  const sql = `
    SELECT e.id, e.type, r.name, r."values" AS json, (${PATH}) AS path
    FROM entry AS e JOIN revision AS r ON r.entry = e.id AND r.number = e.newest
    WHERE e.deleted IS NULL AND instr(r.search, @words) > 0 AND e.id IS NOT @without
      AND (@types IS NULL OR e.type IN (SELECT value FROM json_each(@types)))
    ORDER BY instr(r.search, @words), r.search, e.id LIMIT ${FOUND}`;
  const params = {
    at,
    without,
    words: searchKey(words),
    types: types && JSON.stringify(types.flatMap((key) => site.typesByKey.get(key)?.id ?? [])),
  };
  const rows = statement<{
    id: string;
    type: string;
    name: string;
    path: string | null;
    json: string;
  }>(view.connection, sql).all(params);
  return rows.map(({ type: id, json, ...found }) => {
    const type = site.types.get(id);
    const shown = type ? shortOf(type, readValues(json, site.design.site.language)) : NOTHING;
    return { ...found, typeLabel: type?.label ?? id, ...shown };
  });
}

const NOTHING = { says: '', thumbnail: null };
const SAYS_CHARS = 80;

/** What stands for an entry in a line: the beginning of its summary, and its first picture. */
function shortOf(
  { fields, summary }: ContentType,
  values: Values,
): Pick<FoundEntry, 'says' | 'thumbnail'> {
  const said = fields.find((f) => f.key === summary && !isDerived(f));
  const picture = fields.find((f) => targetOf(f)?.of === 'media');
  const words = said ? valuesOf(values, said.id)[0] : undefined;
  const medium = picture ? valuesOf(values, picture.id)[0] : undefined;
  return {
    says: typeof words === 'string' ? words.slice(0, SAYS_CHARS) : '',
    thumbnail: typeof medium === 'string' ? stablePath(medium, 160) : null,
  };
}

const PATH = `SELECT path FROM address AS a WHERE a.entry = e.id AND a.role = 'current' AND ${asOf('a', '@at')}`;
