import { ok } from '../../issue.ts';
import { one } from '../../pattern/types.ts';
import { MAX_TEXT, foldSpace } from '../../text.ts';
import { type FieldKind, PLAIN, notA } from './definition.ts';
import { LENGTHS, lengthLimits, ordered } from './limits.ts';

/** A line of text. */
export const text: FieldKind<'text'> = {
  ...PLAIN,
  kind: 'text',
  label: 'Text',
  words: 'text',
  doc: 'A line of text, such as a title.',
  spoken: ['text', 'line', 'words'],
  suggestedBy: ['title', 'name', 'place', 'village', 'town', 'email', 'phone'],
  names: true,
  translated: true,
  valueType: () => one('text'),
  parse: (raw, field) => {
    if (typeof raw === 'number' || typeof raw === 'boolean') return ok(String(raw));
    if (typeof raw !== 'string')
      return notA(
        field,
        'text',
        raw,
        'Write it as text, in quotes where YAML would read it as something else.',
      );
    if (raw.length > MAX_TEXT)
      return notA(field, 'text of at most 2 MB', `${raw.slice(0, 20)}…`, 'Shorten it.');
    return ok(raw);
  },
  fromText: foldSpace,
  searched: (stored) => String(stored),
  properties: LENGTHS,
  limits: (stored, field) => lengthLimits(String(stored), field),
  check: (field, path) => ordered(field, path, [field.minLength, field.maxLength]),
  control: 'line',
  family: 'text',
  sortable: true,
  standIn: (field) => field.label,
  example: {
    field: {},
    raw: 'Blue pea',
    stored: 'Blue pea',
    printed: 'Blue pea',
    shown: 'Blue pea',
    wrong: ['a', 'b'],
  },
};
