import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { codingFor, isUnchanged } from './conditional.ts';
import { partOf } from './range.ts';

const ETAG = '"abc"';
const CHANGED = 'Wed, 01 Jul 2026 12:00:00 GMT';

describe('a client’s copy', () => {
  test.each<[string, Record<string, string>, string | undefined, boolean]>([
    ['nothing is said', {}, CHANGED, false],
    ['it has this one', { 'if-none-match': '"abc"' }, CHANGED, true],
    ['it has it among others', { 'if-none-match': '"x", W/"abc" ,"y"' }, CHANGED, true],
    ['it has any', { 'if-none-match': '*' }, CHANGED, true],
    ['it has another', { 'if-none-match': '"x"' }, CHANGED, false],
    [
      'it has another, of a later date',
      { 'if-none-match': '"x"', 'if-modified-since': 'Thu, 02 Jul 2026 00:00:00 GMT' },
      CHANGED,
      false,
    ],
    ['it is of the same date', { 'if-modified-since': CHANGED }, CHANGED, true],
    ['it is older', { 'if-modified-since': 'Tue, 30 Jun 2026 00:00:00 GMT' }, CHANGED, false],
    ['the date is none', { 'if-modified-since': 'yesterday' }, CHANGED, false],
    ['nobody knows when it changed', { 'if-modified-since': CHANGED }, undefined, false],
    ['the tag is cut short', { 'if-none-match': 'abc' }, CHANGED, false],
  ])('where %s', (_, headers, changed, expected) => {
    expect(isUnchanged(headers, ETAG, changed)).toBe(expected);
  });
});

describe('the coding', () => {
  test.each([
    [undefined, 'identity'],
    ['', 'identity'],
    ['gzip', 'gzip'],
    ['gzip, deflate, br', 'br'],
    ['br;q=0.1, gzip;q=0.9', 'gzip'],
    ['br;q=0, gzip;q=0', 'identity'],
    ['*', 'br'],
    ['*;q=0', 'identity'],
    ['identity', 'identity'],
    ['GZIP; Q=0.5', 'gzip'],
    ['gzip;q=nonsense', 'gzip'],
    [',;,', 'identity'],
  ])('for "%s" is %s', (accept, expected) => {
    expect(codingFor(accept)).toBe(expected);
  });

  test('is one that the client takes, whatever it sends', () => {
    fc.assert(
      fc.property(fc.string(), (accept) => {
        const coding = codingFor(accept);
        if (coding !== 'identity') expect(accept.toLowerCase()).toMatch(/br|gzip|\*/);
      }),
    );
  });
});

describe('the part that is asked for', () => {
  test.each<[string | undefined, ReturnType<typeof partOf>]>([
    [undefined, null],
    ['bytes=0-0', { first: 0, last: 0 }],
    ['bytes=10-19', { first: 10, last: 19 }],
    ['bytes=90-', { first: 90, last: 99 }],
    ['bytes=-5', { first: 95, last: 99 }],
    ['bytes=-500', { first: 0, last: 99 }],
    ['bytes=50-500', { first: 50, last: 99 }],
    ['bytes=100-', 'unsatisfiable'],
    ['bytes=-0', 'unsatisfiable'],
    ['bytes=20-10', null],
    ['bytes=0-1,5-6', null],
    ['bytes=-', null],
    ['lines=0-1', null],
    ['bytes=a-b', null],
  ])('by "%s" of a hundred bytes is %j', (range, expected) => {
    expect(partOf(range === undefined ? {} : { range }, 100, ETAG)).toEqual(expected);
  });

  test('is the whole where it is of another version', () => {
    expect(partOf({ range: 'bytes=0-1', 'if-range': '"x"' }, 100, ETAG)).toBeNull();
    expect(partOf({ range: 'bytes=0-1', 'if-range': ETAG }, 100, ETAG)).toEqual({
      first: 0,
      last: 1,
    });
  });

  test('lies within the body, whatever is asked', () => {
    const number = fc.option(fc.nat(300), { nil: '' as const });
    fc.assert(
      fc.property(number, number, fc.integer({ min: 1, max: 200 }), (from, to, length) => {
        const part = partOf({ range: `bytes=${from}-${to}` }, length, ETAG);
        if (part === null || part === 'unsatisfiable') return;
        expect(part.first).toBeGreaterThanOrEqual(0);
        expect(part.last).toBeLessThan(length);
        expect(part.first).toBeLessThanOrEqual(part.last);
      }),
    );
  });
});
