import { type Instant } from '../time/interval.ts';
import { type Relative, parseDuration } from '../time/parse.ts';

/** Stretches of the calendar that today lies in; weeks begin on Monday (ISO 8601). */
export const UNITS = ['week', 'month', 'year'] as const;
/** A stretch of the calendar. */
export type Unit = (typeof UNITS)[number];

/** What one value is compared with. */
export type Bound =
  | { kind: 'scalar'; value: string | number | boolean }
  | { kind: 'day'; day: string }
  | { kind: 'instant'; instant: Instant }
  | { kind: 'relative'; value: Relative };

/** What a condition compares with. */
export type Operand =
  | { kind: 'none' }
  | Bound
  | { kind: 'keys'; keys: string[] }
  /** Any of some texts or numbers. */
  | { kind: 'several'; values: (string | number)[] }
  /** Both ends count. */
  | { kind: 'between'; from: Bound; to: Bound }
  /** So far back from today or now, or ahead. */
  | { kind: 'within'; length: Length }
  | { kind: 'unit'; unit: Unit }
  /** What a field of the page's entry has, or that entry itself by `entry`: nothing without one. */
  | { kind: 'page'; field: string };

/** Whole calendar days, or ms. */
export type Length = { days: number } | { ms: number };

const WORDED = /^(\d+)\s*(weeks?|days?|hours?|minutes?)$/i;
const DATES = /^P(?:(\d+)W)?(?:(\d+)D)?$/i;
const MOST_DAYS = 36_500;
const DAY_MS = 86_400_000;

/**
 * Reads a length of time: `7 days`, `2 weeks`, `P7D` as calendar days; `36 hours`, `PT36H` exactly.
 * Null where it is neither, nothing at all, or more than 100 years.
 */
export function readLength(text: string): Length | null {
  const length = lengthOf(text.trim());
  if (!length) return null;
  const days = 'days' in length ? length.days : length.ms / DAY_MS;
  return days > 0 && days <= MOST_DAYS ? length : null;
}

function lengthOf(text: string): Length | null {
  const [, count, unit] = WORDED.exec(text) ?? [];
  if (count !== undefined) {
    const [n, first] = [Number(count), unit![0]!.toLowerCase()];
    if (first === 'w' || first === 'd') return { days: n * (first === 'w' ? 7 : 1) };
    return { ms: n * (first === 'h' ? 3_600_000 : 60_000) };
  }
  const [whole, weeks, days] = DATES.exec(text) ?? [];
  if (whole !== undefined && (weeks ?? days) !== undefined)
    return { days: Number(weeks ?? 0) * 7 + Number(days ?? 0) };
  const ms = parseDuration(text);
  return ms === null ? null : { ms };
}

/** The values of an operand that move with the clock: what is asked of them can turn as it goes. */
export function relativesOf(op: string, operand: Operand): Relative[] {
  switch (operand.kind) {
    case 'relative':
      return [operand.value];
    case 'between':
      return [...relativesOf(op, operand.from), ...relativesOf(op, operand.to)];
    case 'within': {
      const ahead = op === 'within-next' ? 1 : -1;
      const { length } = operand;
      if ('days' in length) return [{ today: 0 }, { today: ahead * length.days }];
      return [{ now: 0 }, { now: ahead * length.ms }];
    }
    case 'unit':
      return [{ today: 0 }];
    default:
      return op === 'on-this-day' ? [{ today: 0 }] : [];
  }
}
