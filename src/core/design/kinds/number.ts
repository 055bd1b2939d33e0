import { ok } from '../../issue.ts';
import { formatNumber } from '../../pattern/to-text.ts';
import { one } from '../../pattern/types.ts';
import { type FieldKind, PLAIN, notA } from './definition.ts';

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
  control: 'number',
  display: (stored, _, { language }) => formatNumber(Number(stored), language),
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
