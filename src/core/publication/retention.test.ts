import fc from 'fast-check';
import { expect, test } from 'vitest';
import { ALWAYS_KEPT, daysKept, expendable } from './retention.ts';

const DAY = 86_400_000;

test('versions that were never public go after their days, the newest ten never', () => {
  const versions = Array.from({ length: 14 }, (_, i) => ({
    number: i + 1,
    saved: i * DAY,
    isNeeded: i === 1,
  }));
  expect(expendable(versions, { days: 5, at: 20 * DAY })).toEqual([1, 3, 4]);
  expect(expendable(versions, { days: 18, at: 20 * DAY })).toEqual([1]);
  expect(expendable(versions, { days: 20, at: 20 * DAY })).toEqual([]);
  expect(expendable(versions.slice(4), { days: 1, at: 20 * DAY })).toEqual([]);
});

test('what is needed stays, whatever the days and the order', () => {
  const version = fc.record({ saved: fc.nat(1e6), isNeeded: fc.boolean() });
  fc.assert(
    fc.property(fc.array(version, { maxLength: 30 }), fc.nat(20), (all, days) => {
      const versions = all.map((v, i) => ({ ...v, number: i + 1 }));
      const gone = expendable(versions.toReversed(), { days, at: 1e9 });
      for (const number of gone) {
        expect(versions[number - 1]!.isNeeded).toBe(false);
        expect(number).toBeLessThanOrEqual(versions.length - ALWAYS_KEPT);
      }
      expect(gone).toEqual(expendable(versions, { days, at: 1e9 }));
    }),
  );
});

test.each([
  [{}, {}, null],
  [{ retention: 30 }, {}, 30],
  [{ retention: 30 }, { retention: 7 }, 7],
  [{ retention: 30 }, { retention: 'ever' as const }, null],
  [{}, { retention: 7 }, 7],
])('of a site with %j and a type with %j they are kept for %j days', (site, type, days) => {
  expect(daysKept(site, type)).toBe(days);
});
