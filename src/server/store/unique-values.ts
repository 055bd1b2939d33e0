import { isReference } from '@/core/design/field-values.ts';
import type { Field } from '@/core/design/field.ts';
import { type Converting, referenceIds } from '@/core/design/conversion.ts';
import type { ContentType } from '@/core/design/spec.ts';
import { type Values, valuesOf } from '@/core/design/values.ts';
import type { Issue } from '@/core/issue.ts';
import { isBlank } from '@/core/pattern/types.ts';
import type { Connection } from '../db/connection.ts';
import { statement } from './statement.ts';
import { valuesOfType } from './stored-values.ts';

/** How many doubled values are named. */
const SHOWN = 5;

const NEWEST = `FROM revision AS r JOIN entry AS e ON e.id = r.entry AND e.newest = r.number
  WHERE e.type = ? AND e.deleted IS NULL`;

/**
 * Values that another entry of the type has already, in fields where no two may have the same:
 * the newest revisions of entries that are there are compared.
 */
export function doubledValues(
  connection: Connection,
  type: ContentType,
  values: Values,
  { entry, site }: { entry: string | null; site: Converting },
): Issue[] {
  return type.fields.flatMap((field) => {
    const value = values[field.id];
    if (!field.unique || isBlank(value)) return [];
    if (isReference(field)) return ledToAlready(connection, type, field, { values, entry });
    const name = field.replaces
      ? converted(connection, type, field, site).find(
          (other) => other.entry !== entry && other.value === value,
        )?.name
      : nameOfHolder(connection, type, field, { value, entry, language: site.language });
    return name === undefined ? [] : [doubled(field, name)];
  });
}

/** Fields that are to have no value twice, and have. */
export function fieldsWithDoubles(
  connection: Connection,
  type: ContentType,
  fields: readonly Field[],
  site: Converting,
): Issue[] {
  return fields.flatMap((field) => {
    const seen = new Map<unknown, string>();
    const twice: string[] = [];
    for (const { value: all, name } of converted(connection, type, field, site))
      for (const value of valuesOf({ all }, 'all')) {
        const first = seen.get(value);
        if (first === undefined) seen.set(value, name);
        else if (first !== name) twice.push(`“${first}” and “${name}”`);
      }
    if (twice.length === 0) return [];
    const shown = twice.slice(0, SHOWN).join(', ');
    const more = twice.length > SHOWN ? ` and ${twice.length - SHOWN} more` : '';
    return [
      {
        code: 'not-unique',
        path: `types/${type.key}/fields/${field.key}`,
        message: `${field.label} is to be unique, and these have the same: ${shown}${more}.`,
        fix: 'Change them first.',
      },
    ];
  });
}

/** Entries that a reference leads to, and that of another entry does already. */
function ledToAlready(
  connection: Connection,
  type: ContentType,
  field: Field,
  { values, entry }: { values: Values; entry: string | null },
): Issue[] {
  return holdersOf(connection, type, field, { values, entry }).map(({ holder, target }) => ({
    code: 'partner-taken',
    path: field.key,
    message: `“${target.name}” is the ${field.label} of “${holder.name}” already, and can be of one only.`,
    fix: `Take it away from “${holder.name}” first, or choose another.`,
  }));
}

/** An entry that leads to another one, by id and name. */
export interface Holder {
  holder: { id: string; name: string };
  target: { id: string; name: string };
}

/** Who leads by a reference to what some values lead to, but for one entry. */
export function holdersOf(
  connection: Connection,
  type: ContentType,
  field: Field,
  { values, entry }: { values: Values; entry: string | null },
): Holder[] {
  const holder = statement<{ id: string; name: string; to: string }>(
    connection,
    `SELECT e.id, r.name, t.name AS "to" FROM reference_edge AS g
       JOIN entry AS e ON e.id = g.entry AND e.newest = g.revision
       JOIN revision AS r ON r.entry = e.id AND r.number = e.newest
       JOIN entry AS te ON te.id = g.target
       JOIN revision AS t ON t.entry = te.id AND t.number = te.newest
     WHERE g.target = ? AND g.field IN (SELECT value FROM json_each(?))
       AND e.type = ? AND e.deleted IS NULL AND e.id IS NOT ? LIMIT 1`,
  );
  return valuesOf(values, field.id).flatMap((target) => {
    const id = String(target);
    const found = holder.get(id, JSON.stringify(referenceIds(field)), type.id, entry);
    if (!found) return [];
    return [{ holder: { id: found.id, name: found.name }, target: { id, name: found.to } }];
  });
}

function doubled(field: Field, name: string): Issue {
  return {
    code: 'not-unique',
    path: field.key,
    message: `${field.label} is unique, and “${name}” has the same.`,
    fix: 'Give it another value.',
  };
}

/** What an index finds: of a field that holds a value for each language, that of one. */
function stored(field: Field, language: string): string {
  const own = `json_extract(r."values", '$."${field.id}"')`;
  return field.translated
    ? `coalesce(json_extract(r."values", '$."${field.id}"."languages"."${language}"'), ${own})`
    : own;
}

function nameOfHolder(
  connection: Connection,
  type: ContentType,
  field: Field,
  { value, entry, language }: { value: unknown; entry: string | null; language: string },
): string | undefined {
  const expression = stored(field, language);
  const index = `unique_${field.id}_${field.translated ? language : ''}`;
  ensureIndex(connection, index, expression);
  const compared = typeof value === 'boolean' ? Number(value) : value;
  return statement<string>(
    connection,
    `SELECT r.name FROM revision AS r INDEXED BY "${index}"
       CROSS JOIN entry AS e ON e.id = r.entry AND e.newest = r.number
     WHERE ${expression} = ? AND ${expression} IS NOT NULL
       AND e.type = ? AND e.deleted IS NULL AND e.id IS NOT ? LIMIT 1`,
  )
    .pluck()
    .get(compared, type.id, entry);
}

/** Makes an index where it is not there: one made in a write that was refused is gone with it. */
function ensureIndex({ driver }: Connection, name: string, expression: string): void {
  const own = expression.replaceAll('r."values"', '"values"');
  driver.exec(`CREATE INDEX IF NOT EXISTS "${name}" ON revision (${own}) WHERE ${own} IS NOT NULL`);
}

/** The value that each entry has in a field, whatever it was stored under. */
function converted(
  connection: Connection,
  type: ContentType,
  { id }: Field,
  site: Converting,
): { entry: string; name: string; value: unknown }[] {
  const rows = statement<{ entry: string; name: string; json: string }>(
    connection,
    `SELECT r.entry, r.name, r."values" AS json ${NEWEST} ORDER BY e.created, e.id`,
  ).all(type.id);
  return rows.map(({ json, ...row }) => ({ ...row, value: valuesOfType(type, json, site)[id] }));
}
