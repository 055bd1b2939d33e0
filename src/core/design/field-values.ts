import type { Issue } from '../issue.ts';
import { type ValueKind, isBlank } from '../pattern/types.ts';
import type { Field } from './field.ts';
import type { DisplayWorld, Given, Mention, Target } from './kinds/definition.ts';
import { kindOf } from './kinds/index.ts';
import { parseValue } from './parse-value.ts';
import { type Values, valuesOf } from './values.ts';

/**
 * Values of a form, by field id, as they are stored; every wrong one is named, and those of
 * fields that are gone.
 */
export function parseValues(
  fields: readonly Field[],
  given: Readonly<Record<string, unknown>>,
  how: Given,
): { values: Values; issues: Issue[] } {
  const issues: Issue[] = [];
  const values: Values = {};
  for (const field of fields) {
    if (kindOf(field).derived) continue;
    const parsed = parseValue(Object.hasOwn(given, field.id) ? given[field.id] : null, field, how);
    if (parsed.ok) values[field.id] = parsed.value;
    else issues.push(...parsed.issues);
  }
  const known = new Set(fields.map((f) => f.id));
  for (const [id, value] of Object.entries(given))
    if (!known.has(id) && !isBlank(value))
      issues.push({
        code: 'field-gone',
        path: id,
        message: `There is no field "${id}" any more, and the form holds words for it.`,
        fix: 'Reload the page; your words are kept in this browser.',
      });
  return { values, issues };
}

/** A field's values as tables show them, joined by ", ". */
export function displayValues(values: Values, field: Field, world: DisplayWorld): string {
  return valuesOf(values, field.id)
    .map((value) => kindOf(field).display(value, field, world))
    .join(', ');
}

export { parseValue };

/** All that a field's values name of the rest of the site, those within them included. */
export function mentionsOf(values: Values, field: Field): Mention[] {
  const { mentions, items } = kindOf(field);
  return valuesOf(values, field.id).flatMap((value) => [
    ...mentions(value, field),
    ...items(value, field).flatMap((item) =>
      item.fields.flatMap((inner) => mentionsOf(item.values, inner)),
    ),
  ]);
}

/** What a field's values are keys of; null where they stand for themselves. */
export function targetOf(field: Field): Target | null {
  return kindOf(field).target(field);
}

/** Whether a field's values are ids of entries. */
export function isReference(field: Field): boolean {
  return targetOf(field)?.of === 'entries';
}

/** Whether a field's values may lead to entries of every type. */
export function leadsAnywhere(field: Field): boolean {
  return targetOf(field)?.of === 'link' || (isReference(field) && field.types === undefined);
}

/** What a field's values are in patterns. */
export function valueKindOf(field: Field): ValueKind {
  return targetOf(field)?.of === 'media' ? 'media' : kindOf(field).valueType(field).kind;
}
