import { ok } from '../../issue.ts';
import { one } from '../../pattern/types.ts';
import { type FieldType, notA } from './definition.ts';

/** A finite number (IEEE 754 double). */
export const number: FieldType = {
  kind: 'number',
  words: 'a number',
  valueType: () => one('number'),
  parse: (raw, field) => {
    const value =
      typeof raw === 'string' && /^\s*[+-]?\d+(\.\d+)?\s*$/.test(raw) ? Number(raw) : raw;
    if (typeof value === 'number' && Number.isFinite(value)) return ok(value + 0);
    return notA(field, 'a number', raw, 'Write digits, with a point before decimals.');
  },
  family: 'number',
  sortable: true,
};
