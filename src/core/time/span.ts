import { Temporal } from 'temporal-polyfill';
import { type Instant, isWithinYears } from './interval.ts';

/** Spans longer than this are refused, in years. */
const MOST_YEARS = 100;

/** Whether a text is an ISO 8601 duration of at most 100 years, "-" before it or not. */
export function isSpan(text: string): boolean {
  try {
    const span = Temporal.Duration.from(text);
    return Math.abs(span.total({ unit: 'years', relativeTo: '2026-01-01' })) <= MOST_YEARS;
  } catch {
    return false; // no duration, or one that leads out of the calendar
  }
}

/**
 * An instant moved by an ISO 8601 duration on the calendar of a zone: a day later is the same time
 * of the next day, also where the clocks change between them. Null outside the years 1 to 9999.
 */
export function movedBy(at: Instant, span: string, zone: string): Instant | null {
  try {
    const moved = Temporal.Instant.fromEpochMilliseconds(at)
      .toZonedDateTimeISO(zone)
      .add(Temporal.Duration.from(span)).epochMilliseconds;
    return isWithinYears(moved) ? moved : null;
  } catch {
    return null;
  }
}
