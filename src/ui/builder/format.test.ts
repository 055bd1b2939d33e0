import { expect, test } from 'vitest';
import { dayWords, entriesCounted, entryHref, instantWords, localValue } from './format.ts';

const ZONE = 'Europe/Dublin';
const now = Date.parse('2026-11-25T10:00:00Z');

test('an instant in words leaves out the year that it is, and seconds that are far', () => {
  expect(instantWords(Date.parse('2026-11-26T08:00:30Z'), ZONE, now)).toBe('Thu 26 Nov, 08:00');
  expect(instantWords(Date.parse('2026-11-25T10:00:30Z'), ZONE, now)).toBe('Wed 25 Nov, 10:00:30');
  expect(instantWords(Date.parse('2027-07-01T07:00:00Z'), ZONE, now)).toBe('Thu 1 Jul 2027, 08:00');
});

test('years before 1000 have four digits where a machine reads them', () => {
  expect(localValue(Date.parse('0026-03-12T08:00:00Z'), 'UTC')).toBe('0026-03-12T08:00:00');
  expect(dayWords(Date.parse('0026-03-12T08:00:00Z'), 'UTC')).toBe('12 Mar 26');
});

test('an entry’s screen is found whatever its id holds', () => {
  expect(entryHref('notes#000001')).toBe('/build/content/notes%23000001');
  expect(
    new URL(entryHref('a/100%?b c'), 'http://x').pathname
      .split('/')
      .slice(3)
      .map(decodeURIComponent)
      .join('/'),
  ).toBe('a/100%?b c');
});

test('entries are counted in words, the many as more than are counted', () => {
  expect([1, 2, 1000, 1001].map(entriesCounted)).toEqual([
    '1 entry',
    '2 entries',
    '1,000 entries',
    'more than 1,000 entries',
  ]);
});
