import type { Field } from './field.ts';
import type { StandInWorld } from './kinds/definition.ts';
import { kindOf } from './kinds/index.ts';
import type { ContentType } from './spec.ts';
import type { Values } from './values.ts';

/** The entries that are invented to try a type on, by what is hard about them. */
export const STAND_INS = {
  '~usual': 'Stand-in',
  '~long': 'Stand-in, everything long',
  '~blank': 'Stand-in, nothing but its name',
  '~many': 'Stand-in, many of everything',
} as const;
/** The name of one; no entry's id begins like it. */
export type StandIn = keyof typeof STAND_INS;

/** Whether an id names an invented entry. */
export function isStandIn(id: string): id is StandIn {
  return Object.hasOwn(STAND_INS, id);
}

const LONG_NAME = 120;
const LONG_NUMBER = 1_234_567;
const LONG_TEXT = 900;
const MANY = 12;

/** Invented values by kind and label, by field id; what is computed is not among them. */
export function standInValues(
  { fields, naming, label }: ContentType,
  which: StandIn,
  world: StandInWorld,
): Values {
  const values = fields.map((field): [string, unknown] => {
    const isName = field.key === naming && kindOf(field).names;
    if (which === '~blank' && field.key !== naming) return [field.id, null];
    const usual = isName ? `A sample: ${label}` : kindOf(field).standIn(field, world);
    return [field.id, valueOf(field, usual, which, world)];
  });
  return Object.fromEntries(values);
}

function valueOf(field: Field, usual: unknown, which: StandIn, world: StandInWorld): unknown {
  if (usual === null) return null;
  const one = which === '~long' ? lengthened(field, usual) : usual;
  if (!field.many) return one;
  return which === '~many' ? several(field, one, world) : [one];
}

/** A value as long as editors may make it. */
function lengthened(field: Field, value: unknown): unknown {
  const options = field.options ?? [];
  if (options.length > 0)
    return options.reduce((a, b) => (b.label.length > a.label.length ? b : a)).id;
  if (kindOf(field).family === 'number') return field.max ?? LONG_NUMBER;
  if (typeof value !== 'string' || kindOf(field).family !== 'text') return value;
  const wanted = field.maxLength ?? (kindOf(field).control === 'lines' ? LONG_TEXT : LONG_NAME);
  return `${value} `
    .repeat(Math.ceil(wanted / (value.length + 1)))
    .slice(0, wanted)
    .trim();
}

function several(field: Field, value: unknown, world: StandInWorld): unknown[] {
  const count = field.maxCount ?? MANY;
  const prepared =
    field.options?.map((o) => o.id) ?? (field.set ? world.subjects(field.set) : null);
  if (prepared) return prepared.slice(0, count);
  return Array.from({ length: count }, (_, i) =>
    typeof value === 'string' && kindOf(field).family === 'text' ? `${value} ${i + 1}` : value,
  );
}
