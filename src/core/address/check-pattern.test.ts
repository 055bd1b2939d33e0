import { describe, expect, test } from 'vitest';
import { checkAddressPattern, firstSegment } from './check-pattern.ts';
import { MAX_NUMBER, lowestFree } from './taken.ts';

const listings = new Set(['/', '/varieties', '/a/b']);
const codes = (pattern: string): string[] =>
  checkAddressPattern(pattern, listings).map((i) => i.code.replace('address-', ''));

describe('a pattern that no address can have is named', () => {
  test.each([
    ['', 'blank'],
    ['   ', 'blank'],
    ['notes/{title}', 'no-slash'],
    ['//x/{title}', 'empty-segment'],
    ['/x//{title}', 'empty-segment'],
    ['/../{title}', 'dot-segment'],
    ['/x/./{title}', 'dot-segment'],
    ['/media/{title}', 'reserved'],
    ['/build/{title}', 'reserved'],
    ['/api/{title}', 'reserved'],
    ['/style/{title}', 'reserved'],
    ['/varieties', 'taken'],
    ['/varieties/page-2', 'taken'],
    ['/a/b', 'taken'],
    ['/varieties[/{title}]', 'taken'],
  ])('"%s": %s', (pattern, code) => {
    expect(codes(pattern)).toEqual([code]);
  });
});

test.each(['/{title}', '/{cat.slug}/{title}', '[{within.path}]/{title}', '/varieties/{title}'])(
  '"%s" can be had',
  (pattern) => {
    expect(codes(pattern)).toEqual([]);
  },
);

test('the first segment is known where no value stands in it', () => {
  expect(firstSegment('/notes/{title}')).toBe('notes');
  expect(firstSegment('/{title}')).toBeNull();
});

describe('numbering', () => {
  test('takes the lowest free number at or after one', () => {
    const taken = new Set(['/a', '/a-2', '/a-4']);
    expect(lowestFree('/a', 1, (p) => taken.has(p))).toBe(3);
    expect(lowestFree('/a', 4, (p) => taken.has(p))).toBe(5);
  });

  test('ends below a reserved segment, and above its highest number', () => {
    expect(lowestFree('/media/x', 1, () => true)).toBeNull();
    let asked = 0;
    expect(lowestFree('/a', 1, () => ++asked > 0)).toBeNull();
    expect(asked).toBe(MAX_NUMBER);
  });
});
