import { ok } from '../../issue.ts';
import { one } from '../../pattern/types.ts';
import { parseMomentDay } from '../../time/parse.ts';
import { type FieldType, notA } from './definition.ts';

/** A calendar day, stored as `yyyy-MM-dd`. */
export const date: FieldType = {
  kind: 'date',
  words: 'a date',
  valueType: () => one('date'),
  parse: (raw, field, { now, zone }) => {
    const day = typeof raw === 'string' ? parseMomentDay(raw, now, zone) : null;
    return day === null
      ? notA(field, 'a date', raw, 'Write it as yyyy-MM-dd, or relative: today + P3D.')
      : ok(day);
  },
  family: 'day',
  sortable: true,
};
