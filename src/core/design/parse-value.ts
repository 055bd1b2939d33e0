import { type Result, ok } from '../issue.ts';
import { isBlank } from '../pattern/types.ts';
import type { Field } from './field.ts';
import type { Given } from './kinds/definition.ts';
import { kindOf } from './kinds/registry.ts';

/**
 * A field's stored value from what a folder or form gave: a list where the field holds many; null
 * where blank.
 */
export function parseValue(raw: unknown, field: Field, given: Given): Result<unknown> {
  const kind = kindOf(field);
  if (isBlank(raw)) return ok(null);
  if (!field.many) return kind.parse(raw, field, given);
  const splits = typeof raw === 'string' && kind.family === 'members';
  const parts = Array.isArray(raw) ? raw : splits ? raw.split(/[;,]/) : [raw];
  const results = parts
    .filter((part) => !isBlank(part))
    .map((part) => kind.parse(part, field, given));
  const issues = results.flatMap((r) => (r.ok ? [] : r.issues));
  if (issues.length > 0) return { ok: false, issues };
  const values = results.flatMap((r) => (r.ok && r.value !== null ? [r.value] : []));
  return ok(values.length > 0 || kind.family === 'members' ? values : null);
}
