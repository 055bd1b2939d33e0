import { Temporal } from 'temporal-polyfill';
import type { Instant } from './interval.ts';

/** A calendar day as `yyyy-MM-dd` (ISO 8601, proleptic Gregorian). */
export type CalendarDay = string;

/**
 * Wall-clock parts of an instant in a zone; `month` and `day` count from 1, `weekday` 1 = Monday.
 */
export interface LocalTime {
  year: number;
  month: number;
  day: number;
  weekday: number;
  hour: number;
  minute: number;
  second: number;
}

interface DaySpan {
  from: Instant;
  to: Instant;
  day: CalendarDay;
}

const lastSpan = new Map<string, DaySpan>();

/** Whether the text names an IANA time zone this machine knows. */
export function isZone(zone: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone });
    return !/^[+-]/.test(zone);
  } catch {
    return false;
  }
}

function zoned(at: Instant, zone: string): Temporal.ZonedDateTime {
  return Temporal.Instant.fromEpochMilliseconds(at).toZonedDateTimeISO(zone);
}

/** The zone's calendar day of an instant, with the instants at which that day starts and ends. */
export function daySpan(at: Instant, zone: string): DaySpan {
  const known = lastSpan.get(zone);
  if (known && known.from <= at && at < known.to) return known;
  const date = zoned(at, zone).toPlainDate();
  const span = {
    from: dayStart(date.toString(), zone),
    to: dayStart(date.add({ days: 1 }).toString(), zone),
    day: date.toString(),
  };
  lastSpan.set(zone, span);
  return span;
}

/** The zone's calendar day of an instant. */
export function calendarDay(at: Instant, zone: string): CalendarDay {
  return daySpan(at, zone).day;
}

/** The instant at which a calendar day starts in a zone (the first instant that exists of it). */
export function dayStart(day: CalendarDay, zone: string): Instant {
  return Temporal.PlainDate.from(day).toZonedDateTime(zone).epochMilliseconds;
}

/** The calendar day `days` later (earlier where negative). */
export function addDays(day: CalendarDay, days: number): CalendarDay {
  return Temporal.PlainDate.from(day).add({ days }).toString();
}

/** The wall-clock parts of an instant in a zone. */
export function localTime(at: Instant, zone: string): LocalTime {
  const z = zoned(at, zone);
  return {
    year: z.year,
    month: z.month,
    day: z.day,
    weekday: z.dayOfWeek,
    hour: z.hour,
    minute: z.minute,
    second: z.second,
  };
}

/** The wall-clock parts of a calendar day at midnight. */
export function dayParts(day: CalendarDay): LocalTime {
  const d = Temporal.PlainDate.from(day);
  return {
    year: d.year,
    month: d.month,
    day: d.day,
    weekday: d.dayOfWeek,
    hour: 0,
    minute: 0,
    second: 0,
  };
}

/**
 * The instant of a local time. A time in a spring gap moves forward by the gap's length, a
 * doubled one takes the earlier (Temporal's "compatible").
 */
export function localToInstant(local: string, zone: string): Instant {
  return Temporal.PlainDateTime.from(local).toZonedDateTime(zone, { disambiguation: 'compatible' })
    .epochMilliseconds;
}

/**
 * The instants of a local time: two where it comes twice, the earlier first. Where it does not
 * exist, the one moved forward by the gap's length, and `moved`.
 */
export function localInstants(
  local: string,
  zone: string,
): { instants: Instant[]; moved: boolean } {
  const wanted = Temporal.PlainDateTime.from(local);
  const at = (disambiguation: 'earlier' | 'later' | 'compatible'): Temporal.ZonedDateTime =>
    wanted.toZonedDateTime(zone, { disambiguation });
  const [first, last] = [at('earlier'), at('later')];
  const compatible = at('compatible');
  const moved = !compatible.toPlainDateTime().equals(wanted);
  if (moved || first.epochMilliseconds === last.epochMilliseconds)
    return { instants: [compatible.epochMilliseconds], moved };
  return { instants: [first.epochMilliseconds, last.epochMilliseconds], moved };
}

/** ISO 8601 with the zone's offset, to the second (milliseconds where there are any). */
export function isoInZone(at: Instant, zone: string): string {
  return zoned(at, zone).toString({
    timeZoneName: 'never',
    smallestUnit: at % 1000 === 0 ? 'second' : 'millisecond',
  });
}
