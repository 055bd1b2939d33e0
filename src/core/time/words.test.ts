import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { instantInFull, readInstantWords } from './words.ts';
import { parseInstant } from './parse.ts';

const ZONE = 'Europe/Dublin';
const now = Date.parse('2026-11-25T10:30:15Z'); // a Wednesday
const iso = (text: string): string | null => {
  const read = readInstantWords(text, now, ZONE);
  return read && new Date(read.at).toISOString();
};

describe('instants in words', () => {
  test.each([
    ['now', '2026-11-25T10:30:15.000Z'],
    ['+2h', '2026-11-25T12:30:15.000Z'],
    ['in 3 days', '2026-11-28T10:30:15.000Z'],
    ['tomorrow 8:00', '2026-11-26T08:00:00.000Z'],
    ['tomorrow at 8am', '2026-11-26T08:00:00.000Z'],
    ['Sat 9am', '2026-11-28T09:00:00.000Z'],
    ['next monday noon', '2026-11-30T12:00:00.000Z'],
    ['12 Mar 2027 08:00', '2027-03-12T08:00:00.000Z'],
    ['12 March', '2027-03-12T00:00:00.000Z'],
    ['1 July 2027, 08:00', '2027-07-01T07:00:00.000Z'],
    ['9:00', '2026-11-26T09:00:00.000Z'],
    ['11:00', '2026-11-25T11:00:00.000Z'],
    ['12am', '2026-11-26T00:00:00.000Z'],
    ['2027-03-12T08:00', '2027-03-12T08:00:00.000Z'],
    ['2027-03-12 08:00:30', '2027-03-12T08:00:30.000Z'],
    ['2027-03-12T08:00:00+02:00', '2027-03-12T06:00:00.000Z'],
    ['2027-03-12', '2027-03-12T00:00:00.000Z'],
  ])('%s', (text, expected) => expect(iso(text)).toBe(expected));

  test.each(['', 'soon', '31 Feb 2027', '25:00', '0000-01-01', '99999', '13pm', '+9999999w'])(
    '%j is none',
    (text) => expect(iso(text)).toBe(null),
  );

  test('a local time that does not exist moves forward and says so; one that comes twice offers both', () => {
    const gap = readInstantWords('28 Mar 2027 01:30', now, ZONE)!;
    expect([gap.moved, new Date(gap.at).toISOString()]).toEqual([true, '2027-03-28T01:30:00.000Z']);
    const twice = readInstantWords('31 Oct 2027 01:30', now, ZONE)!;
    expect([twice.at, twice.again].map((t) => new Date(t!).toISOString())).toEqual([
      '2027-10-31T00:30:00.000Z',
      '2027-10-31T01:30:00.000Z',
    ]);
  });

  test('what is read back in full names day, time, zone and offset', () => {
    expect(instantInFull(Date.parse('2027-07-01T07:00:00Z'), ZONE)).toBe(
      'Thu 1 Jul 2027, 08:00 (Europe/Dublin, UTC+1)',
    );
    expect(instantInFull(Date.parse('2027-01-01T00:00:30Z'), 'Asia/Kathmandu')).toBe(
      'Fri 1 Jan 2027, 05:45:30 (Asia/Kathmandu, UTC+5:45)',
    );
  });

  test('any local time is read as the server reads it, and never throws', () => {
    fc.assert(
      fc.property(fc.integer({ min: Date.UTC(2020, 0), max: Date.UTC(2035, 0) }), (t) => {
        const local = new Date(t).toISOString().slice(0, 16);
        expect(readInstantWords(local, now, ZONE)?.at).toBe(parseInstant(local, ZONE));
      }),
    );
    fc.assert(fc.property(fc.string(), (text) => void readInstantWords(text, now, ZONE)));
  });
});
