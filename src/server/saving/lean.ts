import type { z } from 'zod';
import { fieldSpec } from '@/core/design/spec.ts';
import { same } from '@/core/design-edit/properties.ts';

type Plain = Record<string, unknown>;

/**
 * A part of a design without what reading it fills in: its id where that is its key, labels made
 * of keys, numbered ids, defaults. Reading gives the same part again.
 */
export function lean(spec: z.ZodType, part: object): Plain {
  const readsTheSame = (given: unknown): boolean => {
    const read = spec.safeParse(given);
    return read.success && same(read.data, part);
  };
  let rest: Plain = { ...part };
  const attempt = (next: Plain): void => {
    if (readsTheSame(next)) rest = next;
  };
  if (Array.isArray(rest.fields)) attempt({ ...rest, fields: rest.fields.map(leanField) });
  for (const tree of ['where', 'blocks', 'slots'])
    if (rest[tree] !== undefined) attempt({ ...rest, [tree]: withoutIds(rest[tree]) });
  for (const name of Object.keys(rest)) {
    const { [name]: _, ...without } = rest;
    attempt(without);
  }
  return rest;
}

function leanField(field: Plain): Plain {
  const { options } = field;
  if (!Array.isArray(options)) return leanest(field);
  const short = (options as Plain[]).map(({ id, ...option }) => {
    const { key, label } = option;
    if (id !== key) return { id, ...option };
    return label === key && Object.keys(option).length === 2 ? key : option;
  });
  return { ...leanest(field), options: short };
}

function leanest(field: Plain): Plain {
  let rest = field;
  for (const name of Object.keys(field)) {
    const { [name]: _, ...without } = rest;
    const read = fieldSpec.safeParse(without);
    if (read.success && same(read.data, field)) rest = without;
  }
  return rest;
}

/** A tree with the ids taken out of everything in it. */
function withoutIds(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(withoutIds);
  if (typeof value !== 'object' || value === null) return value;
  const { id: _, ...rest } = value as Plain;
  return Object.fromEntries(Object.entries(rest).map(([name, inner]) => [name, withoutIds(inner)]));
}
