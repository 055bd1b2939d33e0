import type { Issue } from '../issue.ts';
import type { Field } from './field.ts';
import type { Given } from './kinds/definition.ts';
import { kindOf } from './kinds/registry.ts';
import { parseValue } from './parse-value.ts';
import type { Values } from './values-of.ts';

/**
 * Values of fields that stand within another value, by id, from what a folder or form gave: files
 * name fields by their keys, forms by their ids. Issues have the path of the field they are of.
 */
export function parseItem(
  raw: Readonly<Record<string, unknown>>,
  fields: readonly Field[],
  given: Given,
): { values: Values; issues: Issue[] } {
  const values: Values = {};
  const issues: Issue[] = [];
  for (const [name, value] of Object.entries(raw)) {
    const byId = fields.find((f) => f.id === name);
    const byKey = fields.find((f) => f.key === name);
    if (!byId && given.isKept?.(name, value)) {
      values[name] = value;
      continue;
    }
    // One field's id may be the other's key.
    const inner = given.isKept ? (byId ?? byKey) : (byKey ?? byId);
    if (!inner) issues.push(unknownField(name, fields));
    else {
      const parsed = parseValue(value, inner, given);
      if (!parsed.ok) issues.push(...parsed.issues);
      else if (parsed.value !== null) values[inner.id] = parsed.value;
    }
  }
  return { values, issues };
}

function unknownField(name: string, fields: readonly Field[]): Issue {
  return {
    code: 'wrong-value',
    path: name,
    message: `There is no field "${name.slice(0, 60)}" in it.`,
    fix: `It has: ${fields.map((f) => f.key).join(', ')}.`,
  };
}

/** Values within another value as a site folder has them, by key. */
export function printItem(
  values: Values,
  fields: readonly Field[],
  zone: string,
): Record<string, unknown> {
  return Object.fromEntries(
    fields.flatMap((inner) => {
      const value = values[inner.id];
      if (value === undefined || value === null) return [];
      const printed = (item: unknown): unknown => kindOf(inner).print(item, inner, zone);
      return [[inner.key, Array.isArray(value) ? value.map(printed) : printed(value)]];
    }),
  );
}
