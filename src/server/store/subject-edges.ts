import type { Field } from '@/core/design/field.ts';
import { targetOf } from '@/core/design/field-values.ts';
import { type Values, valuesOf } from '@/core/design/values.ts';
import type { Connection } from '../db/connection.ts';
import { statement } from './statement.ts';

/** What a reference edge to a subject leads to: no entry has an id that begins so. */
export function subjectTarget(set: string, key: string): string {
  return `#${set}/${key}`;
}

/** The subjects that values have, those in groups included; sets by their keys. */
export function subjectsAmong(
  fields: readonly Field[],
  values: Values,
): { field: string; set: string; key: string }[] {
  return fields.flatMap((field) => {
    const all = valuesOf(values, field.id);
    if (field.fields) return all.flatMap((item) => subjectsAmong(field.fields!, item as Values));
    const target = targetOf(field);
    if (target?.of !== 'subjects') return [];
    return all.map((key) => ({ field: field.id, set: target.set, key: String(key) }));
  });
}

/**
 * The entries any of whose versions has one of some subjects of a set, by its id; in some fields
 * only, where they are given.
 */
export function entriesWith(
  connection: Connection,
  set: string,
  keys: Iterable<string>,
  fields: readonly string[] | null = null,
): Set<string> {
  const read = statement<string>(
    connection,
    `SELECT DISTINCT entry FROM reference_edge WHERE target = @target
       AND (@fields IS NULL OR field IN (SELECT value FROM json_each(@fields)))`,
  ).pluck();
  const found = new Set<string>();
  const among = fields && JSON.stringify(fields);
  for (const key of keys)
    for (const entry of read.all({ target: subjectTarget(set, key), fields: among }))
      found.add(entry);
  return found;
}
