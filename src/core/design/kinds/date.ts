import { ok } from '../../issue.ts';
import { formatStyled } from '../../pattern/date-format.ts';
import { one } from '../../pattern/types.ts';
import { parseMomentDay } from '../../time/parse.ts';
import { type FieldKind, PLAIN, notA } from './definition.ts';
import { DAYS, dayLimits, readableDays } from './limits.ts';

/** A calendar day, stored as `yyyy-MM-dd`. */
export const date: FieldKind<'date'> = {
  ...PLAIN,
  kind: 'date',
  label: 'Date',
  words: 'a date',
  doc: 'A calendar day without a time, such as when to sow.',
  spoken: ['date', 'day'],
  suggestedBy: ['date', 'day', 'born', 'built', 'birthday', 'deadline', 'founded'],
  valueType: () => one('date'),
  parse: (raw, field, { now, zone }) => {
    const day = typeof raw === 'string' ? parseMomentDay(raw, now, zone) : null;
    return day === null
      ? notA(field, 'a date', raw, 'Write it as yyyy-MM-dd, or relative: today + P3D.')
      : ok(day);
  },
  fromText: (text) => /^\d{4}-\d\d-\d\d/.exec(text)?.[0] ?? null,
  properties: DAYS,
  limits: (stored, field, given) => dayLimits(String(stored), field, given),
  check: readableDays,
  control: 'day',
  display: (stored, _, { language, zone }) =>
    formatStyled(String(stored), 'medium', language, zone),
  family: 'day',
  sortable: true,
  standIn: () => '2026-05-04',
  example: {
    field: {},
    raw: '2026-03-09',
    stored: '2026-03-09',
    printed: '2026-03-09',
    shown: 'Mar 9, 2026',
    wrong: '2026-02-31',
  },
};
