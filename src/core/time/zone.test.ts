import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { BEGINNING, Validity, covers, earlier, isWithinYears, nextBound } from './interval.ts';
import {
  addDays,
  calendarDay,
  dayParts,
  daySpan,
  dayStart,
  isZone,
  isoInZone,
  localInstants,
  localTime,
  localToInstant,
} from './zone.ts';

const utc = (iso: string): number => Date.parse(iso);
const ZONES = ['UTC', 'Europe/Dublin', 'America/St_Johns', 'Pacific/Apia', 'Asia/Kathmandu'];
const instants = fc.integer({
  min: utc('1971-01-01T00:00:00Z'),
  max: utc('2100-01-01T00:00:00Z'),
});

describe('half-open intervals', () => {
  test.each([
    [{ from: 10, to: 20 }, 9, false, 10],
    [{ from: 10, to: 20 }, 10, true, 20],
    [{ from: 10, to: 20 }, 19, true, 20],
    [{ from: 10, to: 20 }, 20, false, null],
    [{ from: 10, to: null }, 99, true, null],
  ])('%j covers %i: %s; that changes next at %s', (interval, at, covered, next) => {
    expect(covers(interval, at)).toBe(covered);
    expect(nextBound(interval, at)).toBe(next);
  });

  test('change only at their bounds', () => {
    const bound = fc.integer({ min: 0, max: 20 });
    fc.assert(
      fc.property(bound, fc.option(bound), bound, (from, length, at) => {
        const interval = { from, to: length === null ? null : from + length };
        const next = nextBound(interval, at) ?? 99;
        for (let t = at; t < next; t++) expect(covers(interval, t)).toBe(covers(interval, at));
      }),
    );
  });

  test('the earlier of two bounds, where null is never', () => {
    expect([earlier(1, 2), earlier(2, 1), earlier(null, 3), earlier(3, null)]).toEqual([
      1, 1, 3, 3,
    ]);
    expect(earlier(null, null)).toBeNull();
  });
});

describe('a validity', () => {
  test('is the nearest bound on either side, this instant counting as past', () => {
    const validity = new Validity(100);
    for (const bound of [50, 80, 100, 150, 120, null, BEGINNING]) validity.tell(bound);
    expect([validity.since, validity.until]).toEqual([100, 120]);
  });

  test('does not depend on the order in which it is told', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 50 })), fc.nat(50), (bounds, at) => {
        const of = (list: number[]): unknown[] => {
          const validity = new Validity(at);
          list.forEach((b) => validity.tell(b));
          return [validity.since, validity.until];
        };
        expect(of(bounds)).toEqual(of([...bounds].reverse()));
      }),
    );
  });
});

describe('days of a zone', () => {
  test('cover every instant once', () => {
    fc.assert(
      fc.property(instants, fc.constantFrom(...ZONES), (at, zone) => {
        const { from, to, day } = daySpan(at, zone);
        expect(from <= at && at < to).toBe(true);
        expect(calendarDay(at, zone)).toBe(day);
        expect(dayStart(day, zone)).toBe(from);
        expect(calendarDay(from - 1, zone) < day).toBe(true);
        expect(calendarDay(to, zone) > day).toBe(true);
      }),
    );
  });

  test('have 23, 24 or 25 hours where clocks change, and one is missing where a zone jumped', () => {
    const hours = (day: string, zone: string): number =>
      (dayStart(addDays(day, 1), zone) - dayStart(day, zone)) / 3_600_000;
    expect(hours('2026-03-29', 'Europe/Dublin')).toBe(23);
    expect(hours('2026-10-25', 'Europe/Dublin')).toBe(25);
    expect(hours('2026-07-01', 'Europe/Dublin')).toBe(24);
    expect(calendarDay(utc('2011-12-30T10:00:00Z'), 'Pacific/Apia')).toBe('2011-12-31');
  });

  test('are counted in the calendar, over months and leap years', () => {
    expect(addDays('2028-02-28', 1)).toBe('2028-02-29');
    expect(addDays('2027-02-28', 1)).toBe('2027-03-01');
    expect(addDays('2026-01-01', -1)).toBe('2025-12-31');
    expect(dayParts('2026-11-25')).toMatchObject({ year: 2026, month: 11, day: 25, weekday: 3 });
  });
});

describe('a local time', () => {
  test('and back is the same instant, but for an hour that comes twice', () => {
    fc.assert(
      fc.property(instants, fc.constantFrom(...ZONES), (at, zone) => {
        const whole = at - (at % 1000);
        const { year, month, day, hour, minute, second } = localTime(whole, zone);
        const two = (n: number): string => String(n).padStart(2, '0');
        const local = `${year}-${two(month)}-${two(day)}T${two(hour)}:${two(minute)}:${two(second)}`;
        expect(localInstants(local, zone).instants).toContain(whole);
        expect(Date.parse(isoInZone(whole, zone))).toBe(whole);
      }),
    );
  });

  test('that does not exist moves forward by the gap', () => {
    expect(localInstants('2026-03-29T01:30', 'Europe/Dublin')).toEqual({
      instants: [utc('2026-03-29T01:30:00Z')],
      moved: true,
    });
    expect(localToInstant('2026-03-29T01:30', 'Europe/Dublin')).toBe(utc('2026-03-29T01:30:00Z'));
  });

  test('that comes twice is two instants, of which the earlier is taken', () => {
    const both = [utc('2026-10-25T00:30:00Z'), utc('2026-10-25T01:30:00Z')];
    expect(localInstants('2026-10-25T01:30', 'Europe/Dublin')).toEqual({
      instants: both,
      moved: false,
    });
    expect(localToInstant('2026-10-25T01:30', 'Europe/Dublin')).toBe(both[0]);
  });
});

test.each([
  ['Europe/Dublin', true],
  ['UTC', true],
  ['+01:00', false],
  ['Europe/Nowhere', false],
  ['', false],
])('"%s" names a zone: %s', (zone, expected) => {
  expect(isZone(zone)).toBe(expected);
});

test.each([
  ['0001-01-01T00:00:00Z', true],
  ['9999-12-31T23:59:59.999Z', true],
  ['0000-12-31T23:59:59Z', false],
  ['+010000-01-01T00:00:00Z', false],
])('%s lies in the years that can be written: %s', (iso, expected) => {
  expect(isWithinYears(utc(iso))).toBe(expected);
});

test('instants beyond the years that can be written have a local time, too', () => {
  expect(localTime(253_402_300_800_000 + 3_600_000, 'UTC')).toMatchObject({
    year: 10_000,
    hour: 1,
  });
  expect(localTime(253_402_300_799_000, 'Asia/Tokyo')).toMatchObject({ year: 10_000, day: 1 });
});
