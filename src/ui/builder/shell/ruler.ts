import { addDays, calendarDay, dayParts, dayStart, localTime } from '@/core/time/zone.ts';
import type { ChangeTick } from '@/server/queries/clock.ts';

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;

/**
 * How much time the ruler shows: ms before and after now; what its marks are, and to what it
 * snaps.
 */
export const ZOOMS = {
  day: {
    label: 'Day',
    before: DAY_MS / 4,
    after: (DAY_MS * 3) / 4,
    marks: 'hours',
    round: 900_000,
  },
  fortnight: {
    label: 'Fortnight',
    before: 2 * DAY_MS,
    after: 14 * DAY_MS,
    marks: 'days',
    round: HOUR_MS,
  },
  season: {
    label: 'Season',
    before: 14 * DAY_MS,
    after: 90 * DAY_MS,
    marks: 'days',
    round: 6 * HOUR_MS,
  },
  year: {
    label: 'Year',
    before: 60 * DAY_MS,
    after: 360 * DAY_MS,
    marks: 'months',
    round: DAY_MS,
  },
} as const;
export type Zoom = keyof typeof ZOOMS;

/** A tick on the ruler: one change, or several nearer than 8 px. */
export interface RulerTick {
  /** Place from the left in px. */
  x: number;
  at: number;
  count: number;
  words: string;
  /** Whether there is room for its count. */
  showsCount: boolean;
}

/** The instants shown, with the place of each in a ruler of a width in px. */
export interface RulerScale {
  from: number;
  to: number;
  width: number;
}

/** Place of an instant in px. */
export function placeOf(at: number, { from, to, width }: RulerScale): number {
  return ((at - from) / (to - from)) * width;
}

/** Instant at a place in px, to a round time of the zone (ms). */
export function instantAt(x: number, scale: RulerScale, round: number, zone: string): number {
  const at = scale.from + (x / scale.width) * (scale.to - scale.from);
  const midnight = dayStart(calendarDay(at, zone), zone);
  return midnight + Math.round((at - midnight) / round) * round;
}

const NEAR_PX = 8;
const COUNT_PX = 18;

/** The ticks within the scale; those nearer than 8 px to the one before merge with it. */
export function rulerTicks(ticks: readonly ChangeTick[], scale: RulerScale): RulerTick[] {
  const out: RulerTick[] = [];
  for (const { at, count, names } of ticks) {
    if (at < scale.from || at > scale.to) continue;
    const x = placeOf(at, scale);
    const last = out.at(-1);
    if (last && x - last.x < NEAR_PX) {
      last.count += count;
      last.words = `${last.count} changes`;
    } else out.push({ x, at, count, words: names.join(', '), showsCount: false });
  }
  out.forEach((tick, i) => {
    const room = (out[i + 1]?.x ?? Infinity) - tick.x;
    tick.showsCount = tick.count > 1 && room >= COUNT_PX;
  });
  return out;
}

/** The nearest tick within 8 px of a place, if any. */
export function snap(x: number, ticks: readonly RulerTick[]): RulerTick | undefined {
  const near = ticks.filter((t) => Math.abs(t.x - x) <= NEAR_PX);
  return near.sort((a, b) => Math.abs(a.x - x) - Math.abs(b.x - x))[0];
}

/** A mark below the ruler. */
export interface RulerMark {
  x: number;
  label: string;
}

const MONTHS = 'Jan Feb Mar Apr May Jun Jul Aug Sep Oct Nov Dec'.split(' ');
const LABEL_PX = 52;

/** Hours, days or months of the zone within the scale, as many as have room, with a label each. */
export function rulerMarks(
  scale: RulerScale,
  zone: string,
  kind: 'hours' | 'days' | 'months',
): RulerMark[] {
  const instants =
    kind === 'hours'
      ? hours(scale, zone)
      : kind === 'days'
        ? days(scale, zone)
        : months(scale, zone);
  const out: RulerMark[] = [];
  for (const { at, label } of instants) {
    const x = placeOf(at, scale);
    const fits = x >= 0 && x < scale.width - 30 && x - (out.at(-1)?.x ?? -LABEL_PX) >= LABEL_PX;
    if (fits) out.push({ x, label });
  }
  return out;
}

interface Labelled {
  at: number;
  label: string;
}

function days({ from, to }: RulerScale, zone: string): Labelled[] {
  const out: Labelled[] = [];
  for (let day = calendarDay(from, zone); dayStart(day, zone) < to; day = addDays(day, 1)) {
    const { day: d, month } = dayParts(day);
    out.push({ at: dayStart(day, zone), label: `${d} ${MONTHS[month - 1]}` });
  }
  return out;
}

function hours({ from, to }: RulerScale, zone: string): Labelled[] {
  const out: Labelled[] = [];
  for (let at = Math.ceil(from / HOUR_MS) * HOUR_MS; at < to; at += HOUR_MS) {
    const { hour, day, month } = localTime(at, zone);
    if (hour % 3 !== 0) continue;
    out.push({ at, label: hour === 0 ? `${day} ${MONTHS[month - 1]}` : `${hour}:00` });
  }
  return out;
}

function months({ from, to }: RulerScale, zone: string): Labelled[] {
  const out: Labelled[] = [];
  let first = `${calendarDay(from, zone).slice(0, 8)}01`;
  while (dayStart(first, zone) < to) {
    const { month, year } = dayParts(first);
    const label = month === 1 ? `${MONTHS[0]} ${year}` : MONTHS[month - 1]!;
    out.push({ at: dayStart(first, zone), label });
    first = `${addDays(first, 32).slice(0, 8)}01`;
  }
  return out;
}
