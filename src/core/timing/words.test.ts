import { describe, expect, test } from 'vitest';
import { isSpan, movedBy } from '../time/span.ts';
import { SPAN_UNITS, ruleWords, spanOf, spanParts } from './words.ts';

describe('a span', () => {
  test('of one unit is read as it was written, before or after', () => {
    for (const { unit } of SPAN_UNITS)
      for (const count of [0, 1, 14, 400])
        for (const isBefore of [true, false]) {
          const parts = { count, unit, isBefore };
          expect(spanParts(spanOf(parts)), JSON.stringify(parts)).toEqual(parts);
        }
    expect(spanParts('PT0S')).toEqual({ count: 0, unit: 'days', isBefore: false });
    expect(spanParts('P1DT2H')).toBeNull();
  });

  test.each([
    ['P14D', true],
    ['-PT2H', true],
    ['P1Y2M3DT4H', true],
    ['P200Y', false],
    ['P999999999Y', false],
    ['two days', false],
    ['', false],
    ['P', false],
  ])('%j is one: %s', (text, is) => expect(isSpan(text)).toBe(is));

  test('moves on the calendar of a zone, and not beyond the years that can be written', () => {
    const from = Date.parse('2026-03-28T08:00:00Z');
    const moved = (span: string): string | null => {
      const at = movedBy(from, span, 'Europe/Dublin');
      return at === null ? null : new Date(at).toISOString();
    };
    expect(moved('P1D')).toBe('2026-03-29T07:00:00.000Z');
    expect(moved('PT24H')).toBe('2026-03-29T08:00:00.000Z');
    expect(moved('-P1M')).toBe('2026-02-28T08:00:00.000Z');
    expect(movedBy(Date.parse('9999-06-01T00:00:00Z'), 'P1Y', 'UTC')).toBeNull();
  });
});

test('a rule reads as a sentence', () => {
  const fields = [{ key: 'ends', label: 'Ends' }] as never;
  const words = (from: string, after: string): string =>
    ruleWords({ id: 'r', do: 'retire', from, after }, { fields });
  expect(words('ends', 'PT2H')).toBe('retires 2 hours after Ends');
  expect(words('ends', '-P1W')).toBe('retires 1 week before Ends');
  expect(words('entry.published', 'P1DT1H')).toBe('retires P1DT1H after it went live first');
  expect(words('ends', 'PT0S')).toBe('retires at Ends');
});
