/** An instant: integer milliseconds since 1970-01-01T00:00Z (UTC). */
export type Instant = number;

/** Half-open: `from <= t && (to === null || t < to)`. `to: null` means "no end known". */
export interface Interval {
  from: Instant;
  to: Instant | null;
}

/** The first instant a site can speak of; a design loaded from a folder holds from here. */
export const BEGINNING: Instant = -8_640_000_000_000_000;

/** The first and the last instant that can be written: years 1 to 9999 in UTC. */
export const FIRST_INSTANT: Instant = -62_135_596_800_000;
/** The end of the year 9999, ms UTC. */
export const LAST_INSTANT: Instant = 253_402_300_799_999;

/** Whether an instant lies in the years 1 to 9999. */
export function isWithinYears(at: Instant): boolean {
  return at >= FIRST_INSTANT && at <= LAST_INSTANT;
}

/** Whether the interval covers the instant. */
export function covers(interval: Interval, at: Instant): boolean {
  return interval.from <= at && (interval.to === null || at < interval.to);
}

/** The next instant after `at` at which "does the interval cover it" changes; null for never. */
export function nextBound(interval: Interval, at: Instant): Instant | null {
  if (at < interval.from) return interval.from;
  return interval.to !== null && at < interval.to ? interval.to : null;
}

/** What two intervals have in common; null where that is nothing. */
export function common(a: Interval, b: Interval): Interval | null {
  const [from, to] = [Math.max(a.from, b.from), earlier(a.to, b.to)];
  return to === null || from < to ? { from, to } : null;
}

/** The earlier of two bounds, where null means never. */
export function earlier(a: Instant | null, b: Instant | null): Instant | null {
  if (a === null) return b;
  return b === null || a < b ? a : b;
}

/** Gathers the stretch over which an answer certainly holds, from the bounds it is told. */
export class Validity {
  /** The next instant at which the answer may change; null for never. */
  until: Instant | null = null;
  /** The latest instant at which something in the answer changed; null where nothing is known. */
  since: Instant | null = null;
  constructor(readonly at: Instant) {}

  /** Tells an instant at which something read changes, or changed. */
  tell(bound: Instant | null): void {
    if (bound === null || bound === BEGINNING) return;
    if (bound > this.at) this.until = earlier(this.until, bound);
    else if (this.since === null || bound > this.since) this.since = bound;
  }
}
