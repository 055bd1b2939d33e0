import { z } from 'zod';
import { type Issue, ok } from '../../issue.ts';
import { formatNumber } from '../../pattern/to-text.ts';
import { one } from '../../pattern/types.ts';
import type { Field } from '../field.ts';
import { type FieldKind, PLAIN, notA } from './definition.ts';
import { ordered } from './limits.ts';

/** A finite number (IEEE 754 double). */
export const number: FieldKind<'number'> = {
  ...PLAIN,
  kind: 'number',
  label: 'Number',
  words: 'a number',
  doc: 'A number that can be sorted and compared, such as days or a price.',
  spoken: ['number', 'amount', 'count', 'figure'],
  suggestedBy: [
    'price',
    'stock',
    'amount',
    'count',
    'year',
    'length',
    'weight',
    'height',
    'distance',
    'age',
    'seats',
    'number',
    'result',
  ],
  valueType: () => one('number'),
  parse: (raw, field) => {
    const value =
      typeof raw === 'string' && /^\s*[+-]?\d+(\.\d+)?\s*$/.test(raw) ? Number(raw) : raw;
    if (typeof value === 'number' && Number.isFinite(value)) return ok(value + 0);
    return notA(field, 'a number', raw, 'Write digits, with a point before decimals.');
  },
  properties: {
    min: z.number().optional(),
    max: z.number().optional(),
    /** Digits after the point, at most. */
    decimals: z.int().min(0).max(10).optional(),
    /** Stands behind the number: "kg". */
    unit: z.string().min(1).max(20).optional(),
    /** Says where an entry stands among those of its type: they are put in order by hand. */
    position: z.boolean().optional(),
  },
  limits: (stored, field) => numberLimits(Number(stored), field),
  check: (field, path) => [
    ...ordered(field, path, [field.min, field.max]),
    ...checkPosition(field, path),
  ],
  control: 'number',
  otherControls: ({ min, max, many }) =>
    min === undefined || max === undefined || many ? [] : ['slider'],
  display: (stored, { unit }, { language }) =>
    `${formatNumber(Number(stored), language)}${unit === undefined ? '' : ` ${unit}`}`,
  family: 'number',
  sortable: true,
  standIn: () => 12,
  example: {
    field: {},
    raw: '1200.5',
    stored: 1200.5,
    printed: 1200.5,
    shown: '1,200.5',
    wrong: 'many',
  },
};

function numberLimits(value: number, { min, max, decimals }: Field): string[] {
  const written = /\.(\d+)$/.exec(value.toString())?.[1]?.length ?? 0;
  return [
    ...(min !== undefined && value < min ? [`is ${min} or more`] : []),
    ...(max !== undefined && value > max ? [`is ${max} or less`] : []),
    ...(decimals !== undefined && written > decimals
      ? [decimals === 0 ? 'is a whole number' : `has at most ${decimals} digits after the point`]
      : []),
  ];
}

/** Entries are put between others, so their places are numbers of any form. */
function checkPosition(
  { position, label, min, max, decimals, many }: Field,
  path: string,
): Issue[] {
  const isLimited = [min, max, decimals].some((limit) => limit !== undefined) || many;
  if (!position || !isLimited) return [];
  return [
    {
      code: 'limited-position',
      path,
      message: `${label} says where entries stand, and its numbers are limited, or several.`,
      fix: 'Take the limits away, or do not put entries in order by it.',
    },
  ];
}
