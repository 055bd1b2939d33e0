import type { ChangeTick } from '@/server/queries/clock.ts';

const DAY_MS = 86_400_000;

/** How much time the ruler shows: ms before and after now. */
export const ZOOMS = {
  day: { label: 'Day', before: DAY_MS / 4, after: (DAY_MS * 3) / 4 },
  fortnight: { label: 'Fortnight', before: 2 * DAY_MS, after: 14 * DAY_MS },
  season: { label: 'Season', before: 14 * DAY_MS, after: 90 * DAY_MS },
  year: { label: 'Year', before: 60 * DAY_MS, after: 360 * DAY_MS },
} as const;
export type Zoom = keyof typeof ZOOMS;

/** A tick on the ruler: one change, or several nearer than 8 px. */
export interface RulerTick {
  /** Place from the left in px. */
  x: number;
  at: number;
  count: number;
  words: string;
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

/** Instant at a place in px, to the minute. */
export function instantAt(x: number, { from, to, width }: RulerScale): number {
  return Math.round((from + (x / width) * (to - from)) / 60_000) * 60_000;
}

const NEAR_PX = 8;

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
    } else out.push({ x, at, count, words: names.join(', ') });
  }
  return out;
}

/** The nearest tick within 8 px of a place, if any. */
export function snap(x: number, ticks: readonly RulerTick[]): RulerTick | undefined {
  const near = ticks.filter((t) => Math.abs(t.x - x) <= NEAR_PX);
  return near.sort((a, b) => Math.abs(a.x - x) - Math.abs(b.x - x))[0];
}

/** Midnights in a zone within the scale, at most one every 56 px, with a label each. */
export function rulerDays(scale: RulerScale, zone: string): { x: number; label: string }[] {
  const step = Math.max(1, Math.ceil((56 / scale.width) * ((scale.to - scale.from) / DAY_MS)));
  const format = new Intl.DateTimeFormat('en-IE', {
    timeZone: zone,
    day: 'numeric',
    month: 'short',
  });
  const out: { x: number; label: string }[] = [];
  for (
    let at = midnight(scale.from, zone);
    at < scale.to;
    at = midnight(at + step * DAY_MS + DAY_MS / 2, zone)
  ) {
    if (at >= scale.from && placeOf(at, scale) < scale.width - 36)
      out.push({ x: placeOf(at, scale), label: format.format(at) });
  }
  return out;
}

/** The start of an instant's day in a zone. */
function midnight(at: number, zone: string): number {
  const parts = Object.fromEntries(
    new Intl.DateTimeFormat('en-GB', {
      timeZone: zone,
      hour: '2-digit',
      minute: '2-digit',
      second: '2-digit',
      hour12: false,
    })
      .formatToParts(at)
      .map(({ type, value }) => [type, Number(value)]),
  );
  return (
    Math.floor(at / 1000) * 1000 -
    (((parts.hour ?? 0) % 24) * 3600 + (parts.minute ?? 0) * 60 + (parts.second ?? 0)) * 1000
  );
}
