import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { compareCodePoints } from '../text.ts';
import { crossingOf } from './crossing.ts';
import { sortKey } from './sort-key.ts';

const sorted = (words: string[]): string[] =>
  [...words].sort((a, b) => compareCodePoints(sortKey(a), sortKey(b)));

describe('the order of texts', () => {
  test.each([
    ['white space, punctuation, digits, letters', ['a b', 'a-b', 'a1', 'ab']],
    ['letters before accents before case', ['resume', 'Resume', 'résume', 'Résume', 'resumes']],
    ['digits one by one', ['10', '100', '2', '9']],
    ['shorter first', ['', 'a', 'aa']],
    ['letters of other alphabets after', ['zebra', 'Ωmega', 'жук']],
  ])('%s', (_, words) => {
    expect(sorted([...words].reverse())).toEqual(words);
  });

  test('is the same however accents are written', () => {
    expect(sortKey('e\u0301')).toBe(sortKey('é'));
  });

  test('tells any two texts apart that are not the same letters', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), fc.string({ unit: 'grapheme' }), (a, b) => {
        const [x, y] = [a.normalize('NFD'), b.normalize('NFD')];
        if (x.toLowerCase() !== y.toLowerCase()) expect(sortKey(a)).not.toBe(sortKey(b));
        if (x === y) expect(sortKey(a)).toBe(sortKey(b));
      }),
    );
  });

  test('compares as its UTF-8 bytes do, as a database has it', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), fc.string({ unit: 'binary' }), (a, b) => {
        const [x, y] = [sortKey(a), sortKey(b)];
        const bytes = Buffer.compare(Buffer.from(x), Buffer.from(y));
        expect(Math.sign(compareCodePoints(x, y))).toBe(bytes);
        expect(Math.sign(x < y ? -1 : x > y ? 1 : 0)).toBe(bytes);
      }),
    );
  });
});

describe('when a comparison with now may change', () => {
  test('is when now and the duration reach the value, and after this instant', () => {
    expect(crossingOf(1000, 300, 500)).toBe(700);
    expect(crossingOf(1000, -300, 500)).toBe(1300);
    expect(crossingOf(800, 300, 500)).toBe(501);
    expect(crossingOf(null, 300, 500)).toBeNull();
  });
});
