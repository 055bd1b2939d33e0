import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { Validity, common, covers, nextBound } from './interval.ts';
import {
  parseDuration,
  parseInstant,
  parseMoment,
  parseMomentDay,
  parseRelative,
  resolveRelative,
} from './parse.ts';
import { calendarDay, dayStart, daySpan, localToInstant } from './zone.ts';

const iso = (at: number | null): string | null => (at === null ? null : new Date(at).toISOString());
const DUBLIN = 'Europe/Dublin';

describe('local times', () => {
  test('a time in a spring gap moves forward by the gap’s length', () => {
    expect(iso(localToInstant('2026-03-29T01:30', DUBLIN))).toBe('2026-03-29T01:30:00.000Z'); // 02:30 summer time
  });
  test('a doubled time takes the earlier', () => {
    expect(iso(localToInstant('2026-10-25T01:30', DUBLIN))).toBe('2026-10-25T00:30:00.000Z');
  });
  test('a day that has no midnight starts at its first instant', () => {
    expect(iso(dayStart('2018-11-04', 'America/Sao_Paulo'))).toBe('2018-11-04T03:00:00.000Z');
  });
  test('days of a zone are 23, 24 or 25 hours long and follow each other', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: Date.UTC(2000, 0), max: Date.UTC(2040, 0) }),
        fc.constantFrom(DUBLIN, 'America/New_York', 'Australia/Lord_Howe', 'Asia/Kathmandu'),
        (at, zone) => {
          const span = daySpan(at, zone);
          expect(span.from <= at && at < span.to).toBe(true);
          expect(calendarDay(span.to, zone) > span.day).toBe(true);
          expect(calendarDay(span.to - 1, zone)).toBe(span.day);
        },
      ),
    );
  });
});

describe('parsing', () => {
  test.each([
    ['2026-03-12T08:00:00Z', '2026-03-12T08:00:00.000Z'],
    ['2026-03-12T08:00:00.123+02:00', '2026-03-12T06:00:00.123Z'],
    ['2026-07-12T08:00', '2026-07-12T07:00:00.000Z'],
    ['2026-07-12 08:00', '2026-07-12T07:00:00.000Z'],
    ['2026-07-12', '2026-07-11T23:00:00.000Z'],
    ['2026-02-30', null],
    ['2026-13-01T00:00', null],
    ['soon', null],
    ['2026-07-12T25:00', null],
  ])('%s is %s', (text, expected) => {
    expect(iso(parseInstant(text, DUBLIN))).toBe(expected);
  });

  test('relative moments count from now and from the site’s day', () => {
    const now = Date.parse('2026-03-28T10:15:00Z');
    expect(iso(parseMoment('now + PT5M', now, DUBLIN))).toBe('2026-03-28T10:20:00.000Z');
    expect(iso(parseMoment('today + P1D at 08:00', now, DUBLIN))).toBe('2026-03-29T07:00:00.000Z');
    expect(iso(parseMoment('today - P1M', now, DUBLIN))).toBe('2026-02-28T00:00:00.000Z');
    expect(parseMomentDay('today + P3D', now, DUBLIN)).toBe('2026-03-31');
    expect(parseMomentDay('now', now, DUBLIN)).toBe(null);
  });

  test('durations are exact milliseconds; months and empty ones are refused', () => {
    expect(parseDuration('P1DT2H30M0.5S')).toBe(95_400_500);
    expect(parseDuration('P2W')).toBe(1_209_600_000);
    for (const wrong of ['P', 'PT', 'P1M', 'P1Y', '1D', 'P1.5D'])
      expect(parseDuration(wrong)).toBe(null);
  });

  test('today ± n counts calendar days of the zone; now ± duration is exact', () => {
    const at = Date.parse('2026-03-28T23:30:00Z');
    expect(resolveRelative(parseRelative('today + 1')!, at, DUBLIN)).toEqual({ day: '2026-03-29' });
    expect(resolveRelative(parseRelative('today - 2 days')!, at, DUBLIN)).toEqual({
      day: '2026-03-26',
    });
    expect(resolveRelative(parseRelative('now - PT2H')!, at, DUBLIN)).toEqual({
      instant: at - 7_200_000,
    });
    expect(parseRelative('tomorrow')).toBe(null);
  });
});

describe('half-open intervals', () => {
  test('what two intervals have in common is covered by both, and nothing else', () => {
    const interval = fc
      .tuple(fc.nat(12), fc.option(fc.integer({ min: 1, max: 9 })))
      .map(([from, long]) => ({ from, to: long === null ? null : from + long }));
    fc.assert(
      fc.property(interval, interval, fc.nat(24), (a, b, at) => {
        const both = common(a, b);
        expect(both !== null && covers(both, at)).toBe(covers(a, at) && covers(b, at));
        if (both?.to) expect(both.from).toBeLessThan(both.to);
      }),
    );
  });
  test('the start is in, the end is out, and bounds are the instants where that changes', () => {
    const interval = { from: 10, to: 20 };
    expect([9, 10, 19, 20].map((at) => covers(interval, at))).toEqual([false, true, true, false]);
    expect([5, 10, 19, 20].map((at) => nextBound(interval, at))).toEqual([10, 20, 20, null]);
  });
  test('validity takes the least bound ahead and the greatest behind', () => {
    const validity = new Validity(15);
    for (const bound of [30, 15, 20, null, 7, 40]) validity.tell(bound);
    expect([validity.until, validity.since]).toEqual([20, 15]);
  });
});
