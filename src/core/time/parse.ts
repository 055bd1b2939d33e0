import { Temporal } from 'temporal-polyfill';
import { type Instant, isWithinYears } from './interval.ts';
import { type CalendarDay, addDays, calendarDay, dayStart, localToInstant } from './zone.ts';

const DAY = /^\d{4}-\d{2}-\d{2}$/;
const LOCAL = /^\d{4}-\d{2}-\d{2}[T ]\d{2}:\d{2}(:\d{2}([.,]\d{1,3})?)?$/;
const EXACT = /^\d{4}-\d{2}-\d{2}[T ]\d{2}:\d{2}(:\d{2}([.,]\d{1,3})?)?(Z|[+-]\d{2}(:?\d{2})?)$/i;
const RELATIVE =
  /^(now|today)(?:\s*([+-])\s*(P[0-9.YMWDTHS]+))?(?:\s+at\s+(\d{2}:\d{2}(?::\d{2})?))?$/i;

function attempt<T>(read: () => T): T | null {
  try {
    return read();
  } catch {
    return null;
  }
}

/** Reads a calendar day `yyyy-MM-dd`; null where it is none (31 February, say). */
export function parseDay(text: string): CalendarDay | null {
  if (!DAY.test(text) || text < '0001') return null;
  return attempt(() => Temporal.PlainDate.from(text, { overflow: 'reject' }).toString());
}

/**
 * Reads an instant: ISO 8601 with offset, or local in the zone, to the millisecond; a bare date
 * is that day's start in the zone. Null where it is none of these, or not in the years 1 to 9999.
 */
export function parseInstant(text: string, zone: string): Instant | null {
  const at = readInstant(text.trim(), zone);
  return at !== null && isWithinYears(at) ? at : null;
}

function readInstant(t: string, zone: string): Instant | null {
  const day = parseDay(t);
  if (day !== null) return attempt(() => dayStart(day, zone));
  const iso = t.replace(' ', 'T').replace(',', '.');
  if (EXACT.test(t)) return attempt(() => Temporal.Instant.from(iso).epochMilliseconds);
  if (!LOCAL.test(t)) return null;
  return attempt(() => {
    Temporal.PlainDateTime.from(iso, { overflow: 'reject' });
    return localToInstant(iso, zone);
  });
}

/**
 * Reads an instant that may also be relative to `now`: `now`, `now + PT5M`, `today - P14D`,
 * `today + P1M at 08:00` (calendar arithmetic in the zone). Null where it is none of these.
 */
export function parseMoment(text: string, now: Instant, zone: string): Instant | null {
  const m = RELATIVE.exec(text.trim());
  if (!m) return parseInstant(text, zone);
  const at = attempt(() => {
    const base = m[1]!.toLowerCase() === 'now' ? now : dayStart(calendarDay(now, zone), zone);
    let z = Temporal.Instant.fromEpochMilliseconds(base).toZonedDateTimeISO(zone);
    if (m[3]) z = m[2] === '-' ? z.subtract(m[3].toUpperCase()) : z.add(m[3].toUpperCase());
    return m[4]
      ? localToInstant(`${z.toPlainDate().toString()}T${m[4]}`, zone)
      : z.epochMilliseconds;
  });
  return at !== null && isWithinYears(at) ? at : null;
}

/** Reads a calendar day that may be relative: `today`, `today + P3D`. Null where it is neither. */
export function parseMomentDay(text: string, now: Instant, zone: string): CalendarDay | null {
  const day = parseDay(text.trim());
  if (day !== null) return day;
  if (!/^today\b/i.test(text.trim())) return null;
  const at = parseMoment(text, now, zone);
  return at === null ? null : calendarDay(at, zone);
}

/**
 * Reads an exact ISO 8601 duration (weeks, days of 24 h, hours, minutes, seconds) as
 * milliseconds; null otherwise.
 */
export function parseDuration(text: string): number | null {
  const m =
    /^([+-])?P(?:(\d+)W)?(?:(\d+)D)?(?:T(?:(\d+)H)?(?:(\d+)M)?(?:(\d+(?:\.\d{1,3})?)S)?)?$/i.exec(
      text.trim(),
    );
  if (!m || m.slice(2).every((part) => part === undefined)) return null;
  const [weeks, days, hours, minutes, seconds] = m.slice(2).map((part) => Number(part ?? 0)) as [
    number,
    number,
    number,
    number,
    number,
  ];
  const ms = Math.round(
    (((weeks * 7 + days) * 24 + hours) * 60 + minutes) * 60_000 + seconds * 1000,
  );
  return m[1] === '-' ? -ms : ms;
}

/** A value that moves with the clock: `today ± n` calendar days, or `now ± ms`. */
export type Relative = { today: number } | { now: number };

/** How far a relative value may be from today, in calendar days, and from now, in ms. */
const MAX_DAYS = 36_500;
const MAX_DURATION_MS = MAX_DAYS * 86_400_000;

/**
 * Reads `today`, `today + 3`, `now`, `now - PT2H`; null where it is neither, or more than 100
 * years away.
 */
export function parseRelative(text: string): Relative | null {
  const today = /^today(?:\s*([+-])\s*(?:(\d+)(?:\s*days?)?|P(\d+)D))?$/i.exec(text.trim());
  if (today) {
    const days = Number(today[2] ?? today[3] ?? 0);
    return days > MAX_DAYS ? null : { today: (today[1] === '-' ? -1 : 1) * days + 0 };
  }
  const now = /^now(?:\s*([+-])\s*(P\S+))?$/i.exec(text.trim());
  if (!now) return null;
  const ms = now[2] ? parseDuration(now[2]) : 0;
  return ms === null || Math.abs(ms) > MAX_DURATION_MS
    ? null
    : { now: now[1] === '-' && ms !== 0 ? -ms : ms };
}

/** The calendar day or instant a relative value stands for as of an instant. */
export function resolveRelative(
  value: Relative,
  at: Instant,
  zone: string,
): { day: CalendarDay } | { instant: Instant } {
  if ('today' in value) return { day: addDays(calendarDay(at, zone), value.today) };
  return { instant: at + value.now };
}
