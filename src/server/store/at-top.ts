import { referenceIds } from '@/core/design/conversion.ts';
import type { Field } from '@/core/design/field.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { Values } from '@/core/design/values.ts';
import { isBlank } from '@/core/pattern/types.ts';
import type { Issue } from '@/core/issue.ts';
import type { Connection } from '../db/connection.ts';
import { statement } from './statement.ts';

/** How many are named. */
const SHOWN = 5;

/** The field that makes a type's tree of pages, where only so many may be at its top. */
export function limitedTop({ fields }: ContentType): (Field & { atTop: number }) | null {
  const field = fields.find((f) => f.sitsWithin);
  return field?.atTop === undefined ? null : { ...field, atTop: field.atTop };
}

/** Names of the entries of a type that sit within nothing, in what was saved of them last. */
export function namesAtTop(
  connection: Connection,
  type: ContentType,
  field: Field,
  { except, most }: { except: string | null; most: number },
): string[] {
  const sql = `SELECT r.name FROM entry AS e
      JOIN revision AS r ON r.entry = e.id AND r.number = e.newest
    WHERE e.type = @type AND e.deleted IS NULL AND e.id IS NOT @except
      AND NOT EXISTS (SELECT 1 FROM reference_edge AS g WHERE g.entry = e.id
        AND g.revision = e.newest AND g.field IN (SELECT value FROM json_each(@fields)))
    ORDER BY e.created, e.id LIMIT @most`;
  const fields = JSON.stringify(referenceIds(field));
  return statement<string>(connection, sql).pluck().all({ type: type.id, except, fields, most });
}

/** What keeps an entry from sitting within nothing: so many may, and do. */
export function crowdedTop(
  connection: Connection,
  type: ContentType,
  values: Values,
  except: string | null,
): Issue[] {
  const field = limitedTop(type);
  if (!field || !isBlank(values[field.id])) return [];
  const names = namesAtTop(connection, type, field, { except, most: field.atTop });
  if (names.length < field.atTop) return [];
  return [
    {
      code: 'crowded-top',
      path: field.key,
      message: `${topWords(type, field.atTop)}${names.length > 0 ? `: ${quoted(names)}` : ''}.`,
      fix: `Choose what it sits within, or change how many may be at the top in the field ${field.label}.`,
    },
  ];
}

/** Types of which more are at the top than may be from now on. */
export function topsInUse(
  connection: Connection,
  type: ContentType,
  before: ContentType | undefined,
): Issue[] {
  const field = limitedTop(type);
  const was = before && limitedTop(before);
  if (!field || (was && was.id === field.id && was.atTop <= field.atTop)) return [];
  const names = namesAtTop(connection, type, field, { except: null, most: field.atTop + SHOWN });
  if (names.length <= field.atTop) return [];
  return [
    {
      code: 'crowded-top',
      path: `types/${type.key}/fields/${field.key}/atTop`,
      message: `${topWords(type, field.atTop)}, and there are more: ${quoted(names)}.`,
      fix: 'Let some of them sit within another one first, or allow more.',
    },
  ];
}

function topWords({ label, plural }: ContentType, most: number): string {
  if (most === 0) return `No ${label} sits within nothing`;
  return most === 1 ? `One ${label} may be at the top` : `${most} ${plural} may be at the top`;
}

function quoted(names: readonly string[]): string {
  const shown = names.slice(0, SHOWN).map((name) => `“${name}”`);
  return names.length > SHOWN ? `${shown.join(', ')} …` : shown.join(', ');
}
