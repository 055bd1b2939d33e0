import { ok } from '../../issue.ts';
import { one } from '../../pattern/types.ts';
import { parseMoment } from '../../time/parse.ts';
import { type FieldType, notA } from './definition.ts';

/** An instant, stored as integer milliseconds UTC. */
export const datetime: FieldType = {
  kind: 'datetime',
  words: 'a date and time',
  valueType: () => one('datetime'),
  parse: (raw, field, { now, zone }) => {
    if (typeof raw === 'number' && Number.isSafeInteger(raw)) return ok(raw);
    const at = typeof raw === 'string' ? parseMoment(raw, now, zone) : null;
    return at === null
      ? notA(
          field,
          'a date and time',
          raw,
          'Write ISO 8601, such as 2026-03-12T08:00, or relative: now + PT2H.',
        )
      : ok(at);
  },
  family: 'instant',
  sortable: true,
};
