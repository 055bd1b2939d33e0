import type { Instant } from './interval.ts';
import { isWithinYears } from './interval.ts';
import { parseInstant } from './parse.ts';
import {
  type CalendarDay,
  addDays,
  calendarDay,
  dayParts,
  localInstants,
  localTime,
} from './zone.ts';

/** An instant that somebody typed, with what there is to say about it. */
export interface ReadInstant {
  at: Instant;
  /** The later of two, where the local time comes twice; null else. */
  again: Instant | null;
  /** True where the local time does not exist that day and the one after the gap is meant. */
  moved: boolean;
}

const MONTHS = 'jan feb mar apr may jun jul aug sep oct nov dec'.split(' ');
const WEEKDAYS = 'mon tue wed thu fri sat sun'.split(' ');
const UNITS: Record<string, number> = {
  s: 1000,
  m: 60_000,
  min: 60_000,
  h: 3_600_000,
  d: 86_400_000,
  w: 604_800_000,
};

/**
 * Reads an instant as people write it, in a zone: "now", "+2h", "in 3 days", "tomorrow 8:00",
 * "Sat 9am", "12 Mar 2027 08:00", "8:00" (the next one), ISO 8601. Null where it is none of
 * these, or not in the years 1 to 9999.
 */
export function readInstantWords(text: string, now: Instant, zone: string): ReadInstant | null {
  const words = text.trim().toLowerCase().replace(/,/g, ' ').replace(/\s+/g, ' ');
  const exact = /[zZ]$|[+-]\d{2}:?\d{2}$/.test(text.trim()) ? parseInstant(text, zone) : null;
  if (exact !== null) return { at: exact, again: null, moved: false };
  if (words === 'now') return { at: now, again: null, moved: false };
  const shifted = readShift(words, now);
  if (shifted !== undefined) return shifted;
  const { rest, time } = takeTime(words);
  const day = readDay(rest, time, now, zone);
  return day === null ? null : onDay(day, time ?? '00:00', zone);
}

function readShift(words: string, now: Instant): ReadInstant | null | undefined {
  const m = /^(?:([+-]) ?|in )(\d{1,6}) ?(s|min|m|h|d|w)\w*$/.exec(words);
  if (!m) return undefined;
  const ms = Number(m[2]) * UNITS[m[3]!]!;
  const at = now + (m[1] === '-' ? -ms : ms);
  return isWithinYears(at) ? { at, again: null, moved: false } : null;
}

/**
 * The time of day at the end (or the beginning) of some words, as `HH:mm[:ss]`; undefined where
 * there is none.
 */
function takeTime(words: string): { rest: string; time?: string } {
  const m =
    /(?:^|[ t]|\bat )(\d{1,2})(?::(\d{2}))(?::(\d{2})(?:\.\d+)?)? ?(am|pm)?$/.exec(words) ??
    /(?:^| |\bat )(\d{1,2})()() ?(am|pm)$/.exec(words);
  const noon = /(?:^| |\bat )(noon|midnight)$/.exec(words);
  if (noon)
    return {
      rest: words.slice(0, noon.index).trim(),
      time: noon[1] === 'noon' ? '12:00' : '00:00',
    };
  if (!m) return { rest: words };
  const half = m[4];
  const given = Number(m[1]);
  if (half ? given < 1 || given > 12 : given > 23) return { rest: words };
  const hour = half ? (given % 12) + (half === 'pm' ? 12 : 0) : given;
  const [minute, second] = [m[2] || '00', m[3] || '00'];
  if (Number(minute) > 59 || Number(second) > 59) return { rest: words };
  const time = `${String(hour).padStart(2, '0')}:${minute}:${second}`;
  return { rest: words.slice(0, m.index).replace(/ at$/, '').trim(), time };
}

function readDay(
  words: string,
  time: string | undefined,
  now: Instant,
  zone: string,
): CalendarDay | null {
  const today = calendarDay(now, zone);
  if (words === '') return time === undefined ? null : nextTime(time, today, now, zone);
  const named: Record<string, number> = { today: 0, tomorrow: 1, yesterday: -1 };
  if (Object.hasOwn(named, words)) return addDays(today, named[words]!);
  return readWeekday(words, today) ?? readDate(words, today) ?? (isDay(words) ? words : null);
}

/** Today where that time is still to come, else tomorrow. */
function nextTime(time: string, today: CalendarDay, now: Instant, zone: string): CalendarDay {
  const at = localInstants(`${today}T${time}`, zone).instants[0]!;
  return at > now ? today : addDays(today, 1);
}

function readWeekday(words: string, today: CalendarDay): CalendarDay | null {
  const m = /^(?:next |on )?(mon|tue|wed|thu|fri|sat|sun)[a-z]*$/.exec(words);
  if (!m) return null;
  const wanted = WEEKDAYS.indexOf(m[1]!) + 1;
  const ahead = (wanted - dayParts(today).weekday + 7) % 7;
  return addDays(today, ahead === 0 ? 7 : ahead);
}

function readDate(words: string, today: CalendarDay): CalendarDay | null {
  const m =
    /^(?:(?:mon|tue|wed|thu|fri|sat|sun)[a-z]* )?(\d{1,2})(?:st|nd|rd|th)?\.? ([a-z]{3,})\.?(?: (\d{4}))?$/.exec(
      words,
    );
  if (!m) return null;
  const month = MONTHS.indexOf(m[2]!.slice(0, 3)) + 1;
  if (month === 0) return null;
  const on = (year: number): CalendarDay =>
    `${String(year).padStart(4, '0')}-${String(month).padStart(2, '0')}-${m[1]!.padStart(2, '0')}`;
  if (m[3] !== undefined) return isDay(on(Number(m[3]))) ? on(Number(m[3])) : null;
  const { year } = dayParts(today);
  const day = on(year) >= today ? on(year) : on(year + 1);
  return isDay(day) ? day : null;
}

function isDay(text: string): boolean {
  return /^\d{4}-\d{2}-\d{2}$/.test(text) && parseInstant(text, 'UTC') !== null;
}

function onDay(day: CalendarDay, time: string, zone: string): ReadInstant | null {
  if (parseInstant(day, 'UTC') === null) return null;
  const { instants, moved } = localInstants(`${day}T${time}`, zone);
  const [at, again] = instants;
  return isWithinYears(at!) ? { at: at!, again: again ?? null, moved } : null;
}

/**
 * An instant in full, in English: "Sat 28 Nov 2026, 09:00:30 (Europe/Dublin, UTC+0)". Seconds
 * where there are any.
 */
export function instantInFull(at: Instant, zone: string): string {
  const t = localTime(at, zone);
  const two = (n: number): string => String(n).padStart(2, '0');
  const name = (names: string[], n: number): string => capital(names[n - 1]!);
  const day = `${name(WEEKDAYS, t.weekday)} ${t.day} ${name(MONTHS, t.month)} ${t.year}`;
  const seconds = t.second === 0 ? '' : `:${two(t.second)}`;
  return `${day}, ${two(t.hour)}:${two(t.minute)}${seconds} (${zone}, ${offsetWords(at, t)})`;
}

function offsetWords(at: Instant, t: ReturnType<typeof localTime>): string {
  const wall = Date.UTC(2000, t.month - 1, t.day, t.hour, t.minute, t.second);
  const years = new Date(wall);
  years.setUTCFullYear(t.year);
  const minutes = Math.round((years.getTime() - Math.floor(at / 1000) * 1000) / 60_000);
  const sign = minutes < 0 ? '−' : '+';
  const hours = Math.floor(Math.abs(minutes) / 60);
  const rest = Math.abs(minutes) % 60;
  return `UTC${sign}${hours}${rest === 0 ? '' : `:${String(rest).padStart(2, '0')}`}`;
}

function capital(word: string): string {
  return word[0]!.toUpperCase() + word.slice(1);
}
