import { z } from 'zod';
import type { Issue } from '../../issue.ts';
import { parseMomentDay } from '../../time/parse.ts';
import type { Field } from '../field.ts';
import type { Given } from './definition.ts';

/** Settings of fields whose values have a length, in characters (Unicode code points). */
export const LENGTHS = {
  minLength: z.int().min(1).max(1_000_000).optional(),
  maxLength: z.int().min(1).max(1_000_000).optional(),
};

/** Settings of fields whose values are days or instants: `yyyy-MM-dd`, or `today ± days`. */
export const DAYS = {
  earliest: z.string().max(40).optional(),
  latest: z.string().max(40).optional(),
};

/** What is wrong with the length of a text; nothing where it is right. */
export function lengthLimits(text: string, { minLength, maxLength }: Field): string[] {
  const { length } = [...text];
  if (minLength !== undefined && length < minLength)
    return [`has at least ${minLength} characters, and these are ${length}`];
  if (maxLength !== undefined && length > maxLength)
    return [
      `has at most ${maxLength.toLocaleString('en')} characters, and these are ${length.toLocaleString('en')}`,
    ];
  return [];
}

/** What is wrong with a day (`yyyy-MM-dd`); nothing where it is right. */
export function dayLimits(day: string, { earliest, latest }: Field, given: DayWorld): string[] {
  const read = (limit: string | undefined): string | null =>
    limit === undefined ? null : parseMomentDay(limit, given.now, given.zone);
  const [from, to] = [read(earliest), read(latest)];
  if (from !== null && day < from) return [`is ${from} or later`];
  if (to !== null && day > to) return [`is ${to} or earlier`];
  return [];
}

/** What limits by days are reckoned from. */
export type DayWorld = Pick<Given, 'now' | 'zone'>;

/** Limits that are in the wrong order. */
export function ordered<T extends string | number>(
  field: Field,
  path: string,
  [least, most]: [T | undefined, T | undefined],
): Issue[] {
  if (least === undefined || most === undefined || least <= most) return [];
  return [
    {
      code: 'wrong-limits',
      path,
      message: `${field.label} has a least value above its greatest: ${least} and ${most}.`,
      fix: 'Exchange them.',
    },
  ];
}

/** Days that cannot be read. */
export function readableDays(field: Field, path: string): Issue[] {
  return [field.earliest, field.latest].flatMap((limit) =>
    limit === undefined || parseMomentDay(limit, 0, 'UTC') !== null
      ? []
      : [
          {
            code: 'wrong-limits',
            path,
            message: `"${limit}" is no day that ${field.label} could be limited by.`,
            fix: 'Write it as yyyy-MM-dd, or relative: today + P3D.',
          },
        ],
  );
}
