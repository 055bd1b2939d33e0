import { ok } from '../../issue.ts';
import { formatStyled } from '../../pattern/date-format.ts';
import { one } from '../../pattern/types.ts';
import { isWithinYears } from '../../time/interval.ts';
import { parseMoment } from '../../time/parse.ts';
import { calendarDay, isoInZone } from '../../time/zone.ts';
import { type FieldKind, PLAIN, notA } from './definition.ts';
import { DAYS, dayLimits, readableDays } from './limits.ts';

/** An instant, stored as integer milliseconds UTC. */
export const datetime: FieldKind<'datetime'> = {
  ...PLAIN,
  kind: 'datetime',
  label: 'Date and time',
  words: 'a date and time',
  doc: 'A day with a time, such as when something starts.',
  spoken: ['date and time', 'date-time', 'datetime', 'time'],
  suggestedBy: ['time', 'starts', 'ends'],
  valueType: () => one('datetime'),
  parse: (raw, field, { now, zone }) => {
    const at =
      typeof raw === 'number' && Number.isSafeInteger(raw)
        ? raw
        : typeof raw === 'string'
          ? parseMoment(raw, now, zone)
          : null;
    return at === null || !isWithinYears(at)
      ? notA(
          field,
          'a date and time in the years 1 to 9999',
          raw,
          'Write ISO 8601, such as 2026-03-12T08:00, or relative: now + PT2H.',
        )
      : ok(at);
  },
  print: (stored, _, zone) => isoInZone(Number(stored), zone),
  asText: (stored, _, zone) => isoInZone(Number(stored), zone),
  fromText: (text) => (/^\d{4}-/.test(text) ? text : null),
  properties: DAYS,
  limits: (stored, field, given) =>
    dayLimits(calendarDay(Number(stored), given.zone), field, given),
  check: readableDays,
  control: 'instant',
  display: (stored, _, { language, zone }) =>
    formatStyled(Number(stored), 'medium', language, zone),
  family: 'instant',
  sortable: true,
  standIn: () => Date.UTC(2026, 4, 4, 9),
  example: {
    field: {},
    raw: '2026-03-09T08:00:00Z',
    stored: Date.UTC(2026, 2, 9, 8),
    printed: '2026-03-09T08:00:00+00:00',
    shown: 'Mar 9, 2026, 8:00 AM',
    wrong: 9_000_000_000_000_000,
  },
};
