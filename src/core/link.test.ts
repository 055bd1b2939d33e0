import { describe, expect, test } from 'vitest';
import { encodeAddress, isSafeLink, isSafeTarget } from './link.ts';

test.each(['/a', '#part', '?q=1', 'other', 'https://a.example/x', 'mailto:a@b.example', 'tel:1'])(
  '%s may stand in a link',
  (address) => {
    expect(isSafeLink(address)).toBe(true);
  },
);

test.each([
  'javascript:alert(1)',
  'JaVaScRiPt:alert(1)',
  ' javascript:alert(1)',
  'java\nscript:alert(1)',
  'data:text/html,x',
  'vbscript:x',
  'blob:https://a.example/x',
  '//other.example/x',
  '/\\other.example',
  '\\\\other.example',
  'http://',
  '/a\u0000',
])('%j may not', (address) => {
  expect(isSafeLink(address)).toBe(false);
});

test.each([null, undefined, 1, {}, []])('%j is no link at all', (address) => {
  expect(isSafeLink(address)).toBe(false);
});

test('a redirect leads to a path or a page, nowhere else', () => {
  expect(['/a', 'https://a.example'].every(isSafeTarget)).toBe(true);
  expect(['a', '#x', 'javascript:x', '//x'].some(isSafeTarget)).toBe(false);
});

describe('encoding', () => {
  test.each([
    ['/café', '/caf%C3%A9'],
    ['/caf%C3%A9', '/caf%C3%A9'],
    ['/100%', '/100%25'],
    ['/a b"c', '/a%20b%22c'],
    ['https://x.example/?a=1&b=2#c', 'https://x.example/?a=1&b=2#c'],
    ['/\ud800', '/%EF%BF%BD'],
  ])('%j stands as %s', (address, encoded) => {
    expect(encodeAddress(address)).toBe(encoded);
  });

  test('twice gives the same as once', () => {
    for (const address of ['/ä ö%zz', '/%', '/[x]', '/%41'])
      expect(encodeAddress(encodeAddress(address))).toBe(encodeAddress(address));
  });
});
