import { Temporal } from 'temporal-polyfill';
import { type Instant, isWithinYears } from './interval.ts';

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

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
/** Characters of a day as it is written in the years 0 to 9999. */
const PLAIN_DAY = 10;

/** Days worked out already, by zone and hour: those of all entries of a list are asked for again. */
const spans = new Map<string, Map<number, DaySpan>>();
const MOST_SPANS = 5000;

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
  let ofZone = spans.get(zone);
  if (!ofZone) spans.set(zone, (ofZone = new Map<number, DaySpan>()));
  const hour = Math.floor(at / HOUR_MS);
  const known = ofZone.get(hour);
  if (known && known.from <= at && at < known.to) return known;
  const date = zoned(at, zone).toPlainDate();
  const span = {
    from: dayStart(date.toString(), zone),
    to: dayStart(date.add({ days: 1 }).toString(), zone),
    day: date.toString(),
  };
  if (ofZone.size >= MOST_SPANS) ofZone.clear();
  ofZone.set(hour, span);
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

/** How many days lie between two days, whichever comes first. */
export function daysApart(a: CalendarDay, b: CalendarDay): number {
  return Math.abs(Date.parse(a) - Date.parse(b)) / DAY_MS;
}

/** The wall-clock parts of an instant in a zone. */
export function localTime(at: Instant, zone: string): LocalTime {
  if (!isWithinYears(at)) return lookedUp(at, zone);
  const { from, to, day } = daySpan(at, zone);
  // On days on which clocks are changed, and in zones where the years have run out.
  if (to - from !== DAY_MS || day.length !== PLAIN_DAY) return lookedUp(at, zone);
  const seconds = Math.floor((at - from) / 1000);
  const [hour, minute] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60];
  return { ...dayParts(day), hour, minute, second: seconds % 60 };
}

/** The same, whatever the day. */
function lookedUp(at: Instant, zone: string): LocalTime {
  const { year, month, day, dayOfWeek: weekday, hour, minute, second } = zoned(at, zone);
  return { year, month, day, weekday, hour, minute, second };
}

/** Weekdays come again every 400 years: `Date.UTC` takes the years to 99 for others. */
const CYCLE = 400;

/** The wall-clock parts of a calendar day at midnight. @throws RangeError where it is none */
export function dayParts(day: CalendarDay): LocalTime {
  const [year, month, date] = [+day.slice(0, 4), +day.slice(5, 7), +day.slice(8)];
  const midnight = new Date(Date.UTC(year + CYCLE, month - 1, date));
  if (midnight.getUTCMonth() !== month - 1 || midnight.getUTCDate() !== date)
    throw new RangeError(`"${day}" is no day.`);
  const weekday = midnight.getUTCDay() || 7;
  return { year, month, day: date, weekday, hour: 0, minute: 0, second: 0 };
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
