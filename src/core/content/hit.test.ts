import { expect, test } from 'vitest';
import { hitIn } from './hit.ts';

test.each([
  [
    'Climbs on strings; wants a wind-break.',
    'string',
    'Climbs on \u0002strings\u0003; wants a wind-break.',
  ],
  ['École, ÉCOLE and ecole', 'école', '\u0002École\u0003, \u0002ÉCOLE\u0003 and \u0002ecole\u0003'],
  ['one\ntwo  three', 'TWO', 'one \u0002two\u0003 three'],
  ['nothing of the sort', 'pea', null],
  ['pea', '- "', null],
  ['', 'pea', null],
])('%j searched for %j shows %j', (text, search, shown) => {
  expect(hitIn(text, search)).toBe(shown);
});

test('a long text is cut on both sides of the first hit', () => {
  const text = `${'before '.repeat(30)}pea ${'after '.repeat(30)}`;
  expect(hitIn(text, 'pea')).toBe(
    `…before before before before \u0002pea\u0003${' after'.repeat(9)}…`,
  );
});

test('a text of two megabytes is looked through at once', () => {
  expect(hitIn('x'.repeat(2_000_000), 'pea')).toBeNull();
  expect(hitIn('- '.repeat(1_000_000), 'pea')).toBeNull();
});
