import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { compareCodePoints, escapeHtml, foldSpace, hasText, limitText, searchKey } from './text.ts';
import { fingerprint } from './fingerprint.ts';

describe('a text that is cut', () => {
  test.each([
    ['one two three', 13, 'one two three'],
    ['one two three', 12, 'one two…'],
    ['one two three', 8, 'one two…'],
    ['one two three', 7, 'one…'],
    ['one, two', 5, 'one…'],
    ['one — two', 7, 'one…'],
    ['one! two', 6, 'one!…'],
    ['unbroken', 4, 'unb…'],
    ['ab', 1, '…'],
    ['ab', 0, ''],
    ['😀😀😀', 2, '😀…'],
  ])('%j to %i is %j', (text, n, expected) => {
    expect(limitText(text, n)).toBe(expected);
  });

  test('is never longer, and what is short stays whole', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), fc.integer({ min: 0, max: 30 }), (text, n) => {
        const cut = limitText(text, n);
        expect([...cut].length).toBeLessThanOrEqual(Math.max(n, 0));
        if ([...text].length <= n) expect(cut).toBe(text);
      }),
    );
  });
});

describe('texts', () => {
  test('compare as their UTF-8 bytes', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), fc.string({ unit: 'grapheme' }), (a, b) => {
        const bytes = Buffer.compare(Buffer.from(a), Buffer.from(b));
        expect(Math.sign(compareCodePoints(a, b))).toBe(bytes);
      }),
    );
  });

  test('lose their accents, case and doubled spaces where they are searched', () => {
    expect(searchKey('  École \n Inés ')).toBe('ecole ines');
    expect(searchKey('e\u0301cole')).toBe(searchKey('École'));
    expect(foldSpace(' a \t\u00a0 b ')).toBe('a b');
  });

  test.each([
    ['', false],
    [' \t\n\u00a0', false],
    [' a', true],
    ['0', true],
    ['é', true],
  ])('%j has something in it: %s', (text, expected) => {
    expect(hasText(text)).toBe(expected);
  });

  test('never hold markup once they are escaped', () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        const escaped = escapeHtml(text);
        expect(escaped).not.toMatch(/[<>"']/);
        expect(escaped.replace(/&(amp|lt|gt|quot|#39);/g, '')).not.toContain('&');
      }),
    );
  });
});

test('a fingerprint is sixteen hex digits, and another text has another', () => {
  expect(fingerprint('')).toBe('cbf29ce484222325');
  fc.assert(
    fc.property(fc.string(), fc.string(), (a, b) => {
      expect(fingerprint(a)).toMatch(/^[0-9a-f]{16}$/);
      if (a !== b) expect(fingerprint(a)).not.toBe(fingerprint(b));
    }),
  );
});
