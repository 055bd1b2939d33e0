import { expect, test } from 'vitest';
import { checkWhole } from './check-values.ts';
import type { Field } from './field.ts';
import { isShown, shownWhen } from './shown.ts';
import { fieldSpec } from './spec.ts';

const GIVEN = { now: Date.parse('2026-07-01T12:00:00Z'), zone: 'Europe/Dublin' };
const field = (given: object): Field => fieldSpec.parse({ key: 'thing', ...given });
const messages = (fields: Field[], values: Record<string, unknown>): string[] =>
  checkWhole(fields, values, GIVEN).map(({ message }) => message);
const doc = (text: string): object => ({
  type: 'doc',
  content: [{ type: 'paragraph', content: [{ type: 'text', text }] }],
});

test.each([
  [{ kind: 'text', maxLength: 3 }, 'abcd', 'Thing has at most 3 characters, and these are 4.'],
  [{ kind: 'text', maxLength: 3 }, '🌱🌱🌱', null],
  [{ kind: 'paragraphs', minLength: 3 }, 'ab', 'Thing has at least 3 characters, and these are 2.'],
  [
    { kind: 'richtext', maxLength: 3 },
    doc('abcd'),
    'Thing has at most 3 characters, and these are 4.',
  ],
  [{ kind: 'number', min: 2 }, 1, 'Thing is 2 or more.'],
  [{ kind: 'number', max: 2 }, 2.5, 'Thing is 2 or less.'],
  [{ kind: 'number', decimals: 0 }, 2.5, 'Thing is a whole number.'],
  [{ kind: 'number', decimals: 1 }, 2.25, 'Thing has at most 1 digits after the point.'],
  [{ kind: 'number', min: 0, max: 9, decimals: 1 }, 2.5, null],
  [{ kind: 'date', earliest: 'today' }, '2026-06-30', 'Thing is 2026-07-01 or later.'],
  [{ kind: 'date', latest: '2026-01-01' }, '2026-01-02', 'Thing is 2026-01-01 or earlier.'],
  [{ kind: 'datetime', earliest: '2026-07-02' }, Date.UTC(2026, 6, 1, 23, 30), null],
  [{ kind: 'text', required: true }, ' ', 'Thing is required, and it is blank.'],
  [{ kind: 'text', minLength: 3 }, '', null],
  [{ kind: 'text', many: true, minCount: 2 }, ['a', ''], 'Thing holds at least 2, and there is 1.'],
  [
    { kind: 'text', many: true, maxCount: 1 },
    ['a', 'b'],
    'Thing holds at most 1, and there are 2.',
  ],
  [{ kind: 'text', many: true, minCount: 2 }, [], null],
  [
    { kind: 'text', many: true, maxLength: 1 },
    ['a', 'bb'],
    'Thing has at most 1 characters, and these are 2.',
  ],
])('%j with %j', (given, value, wanted) => {
  expect(messages([field(given)], { thing: value })).toEqual(wanted === null ? [] : [wanted]);
});

test('a field that the form does not show is not asked for', () => {
  const options = [{ id: 'o1', key: 'race', label: 'Race' }, 'walk'];
  const sort = field({ key: 'sort', kind: 'choice', options });
  const place = field({
    key: 'place',
    kind: 'text',
    required: true,
    shownIf: { field: 'sort', is: 'race' },
  });
  expect(messages([sort, place], { sort: 'walk' })).toEqual([]);
  expect(messages([sort, place], { sort: 'o1' })).toEqual(['Place is required, and it is blank.']);
});

test('a field is shown while another is filled, or has a value, as stored or as a form holds it', () => {
  const tick = field({ key: 'tick', kind: 'yesno' });
  const of = (shownIf: object) => shownWhen(field({ kind: 'text', shownIf }), [tick]);
  expect(isShown(of({ field: 'tick' }), { tick: false })).toBe(true);
  expect(isShown(of({ field: 'tick' }), { tick: null })).toBe(false);
  expect(isShown(of({ field: 'tick', is: true }), { tick: true })).toBe(true);
  expect(isShown(of({ field: 'tick', is: true }), { tick: 'yes' })).toBe(true);
  expect(isShown(of({ field: 'tick', is: true }), { tick: 'no' })).toBe(false);
  expect(isShown(null, {})).toBe(true);
});
