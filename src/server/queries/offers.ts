import type { Field } from '@/core/design/field.ts';
import { targetOf } from '@/core/design/field-values.ts';
import { kindOf } from '@/core/design/kinds/index.ts';
import { searchKey } from '@/core/text.ts';
import type { Instant } from '@/core/time/interval.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import type { Subjects } from '../store/subject-store.ts';
import { statement } from '../store/statement.ts';
import type { SiteView } from './site-view.ts';
import { asOf } from '../store/as-of.ts';

/** Something a control offers. */
export interface Option {
  value: string;
  label: string;
  /** Address of a small picture, for pictures. */
  picture?: string;
}

const MAX_OPTIONS = 500;

/**
 * What a field's control offers at once: options, subjects or pictures; entries are searched for.
 */
export function optionsOf(view: SiteView, field: Field, at: Instant): Option[] {
  if (kindOf(field).control === 'rich-text') return pictures(view);
  const target = targetOf(field);
  if (target === null) return field.options?.map((o) => ({ value: o.id, label: o.label })) ?? [];
  if (target.of === 'subjects') return subjectOptions(view.subjects(at), target.set);
  return target.of === 'media' ? picturesFor(view, field) : [];
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

/** The pictures that a field takes. */
function picturesFor(view: SiteView, field: Field): Option[] {
  const { formats, maxKilobytes } = field;
  if (!formats && maxKilobytes === undefined) return pictures(view);
  const sql = `SELECT id FROM media WHERE bytes <= @most
    AND (@mimes IS NULL OR mime IN (SELECT value FROM json_each(@mimes)))`;
  const mimes = formats ? JSON.stringify(formats.map((format) => `image/${format}`)) : null;
  const most = (maxKilobytes ?? 1e9) * 1000;
  const fit = new Set(statement<string>(view.connection, sql).pluck().all({ mimes, most }));
  return pictures(view).filter(({ value }) => fit.has(value));
}

/** The site's pictures, by file name. */
export function pictures({ connection }: SiteView): Option[] {
  const sql = `SELECT id, hash FROM media WHERE mime LIKE 'image/%' ORDER BY id LIMIT ?`;
  const rows = statement<{ id: string; hash: string }>(connection, sql).all(MAX_OPTIONS);
  return rows.map(({ id, hash }) => ({
    value: id,
    label: id,
    picture: `/media/${hash}/160.webp`,
  }));
}

/** An entry that can be pointed at. */
export interface FoundEntry {
  id: string;
  name: string;
  typeLabel: string;
  /** Its path as of the instant asked for; null where it has none. */
  path: string | null;
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
    SELECT e.id, e.type, r.name, (${PATH}) AS path
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
  }>(view.connection, sql).all(params);
  return rows.map(({ type, ...found }) => ({
    ...found,
    typeLabel: site.types.get(type)?.label ?? type,
  }));
}

const PATH = `SELECT path FROM address AS a WHERE a.entry = e.id AND a.role = 'current' AND ${asOf('a', '@at')}`;
