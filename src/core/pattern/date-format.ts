import type { LocalTime } from '../time/zone.ts';
import { dateParts } from './date-parts.ts';

/** A calendar day (`yyyy-MM-dd`) or an instant (ms UTC) shown in a zone. */
export type DateValue = string | number;

const STYLES = ['short', 'medium', 'long', 'full'] as const;
/** The name of a form of dates. */
export type DateStyle = (typeof STYLES)[number];

const formatters = new Map<string, Intl.DateTimeFormat>();

/** A formatter, made once for each `key`, which names its language and options. */
function formatter(
  key: string,
  language: string,
  options: Intl.DateTimeFormatOptions,
): Intl.DateTimeFormat {
  let found = formatters.get(key);
  if (!found) {
    const settled = { calendar: 'gregory', numberingSystem: 'latn', ...options };
    formatters.set(key, (found = new Intl.DateTimeFormat(language, settled)));
  }
  return found;
}

/** Whether the text names one of the four styles rather than a Unicode TR35 pattern. */
export function isDateStyle(style: string): style is DateStyle {
  return (STYLES as readonly string[]).includes(style);
}

/** Dates written already: those of a list's entries are written on each of its pages. */
const written = new Map<string, string>();
const MOST_WRITTEN = 5000;

/** A date, or a date-time with its time, in one of the language's styles (Unicode CLDR). */
export function formatStyled(
  value: DateValue,
  style: DateStyle,
  language: string,
  zone: string,
): string {
  const key = `${value} ${style} ${language} ${zone}`;
  let words = written.get(key);
  if (words === undefined) {
    if (written.size >= MOST_WRITTEN) written.clear();
    written.set(key, (words = inStyle(value, style, language, zone)));
  }
  return words;
}

function inStyle(value: DateValue, style: DateStyle, language: string, zone: string): string {
  const key = `${language} ${style}`;
  if (typeof value === 'number') {
    const timed = { dateStyle: style, timeStyle: 'short', timeZone: zone } as const;
    return formatter(`${key} ${zone}`, language, timed).format(value);
  }
  const day = { dateStyle: style, timeZone: 'UTC' } as const;
  return formatter(key, language, day).format(Date.parse(`${value}T00:00:00Z`));
}

const TOKEN = /'(?:''|[^'])*'|([A-Za-z])\1*|[^A-Za-z']+/g;
const NUMERIC = /^(y+|M{1,2}|L{1,2}|d{1,2}|H{1,2}|h{1,2}|m{1,2}|s{1,2})$/;
const NAMED = /^(M{3,5}|L{3,5}|E{1,5}|a)$/;

/**
 * Why a TR35 pattern cannot be used, in words; null where it can. Addresses take numeric fields
 * only.
 */
export function checkDatePattern(pattern: string, numericOnly: boolean): string | null {
  if ((pattern.match(/'/g)?.length ?? 0) % 2 !== 0)
    return 'A quote in this date pattern is never closed.';
  for (const [token, letter] of pattern.matchAll(TOKEN)) {
    if (!letter) continue;
    if (NUMERIC.test(token)) continue;
    if (!NAMED.test(token))
      return `"${token}" is not a date field; use y, M, d, E, H, h, m, s or a (Unicode TR35).`;
    if (numericOnly)
      return `"${token}" would write a name, and an address takes numeric dates only.`;
  }
  return null;
}

/** A date or date-time by a Unicode TR35 pattern. */
export function formatPattern(
  value: DateValue,
  pattern: string,
  language: string,
  zone: string,
): string {
  const parts = dateParts(value, zone);
  let out = '';
  for (const { token, isField } of tokensOf(pattern))
    out += isField ? field(token, parts, language) : token;
  return out;
}

/** A piece of a pattern: a field of dates, or words as they are. */
interface Token {
  token: string;
  isField: boolean;
}

const tokens = new Map<string, Token[]>();
const MOST_PATTERNS = 500;

/** The pieces of a pattern, read once. */
function tokensOf(pattern: string): Token[] {
  let found = tokens.get(pattern);
  if (found) return found;
  found = [...pattern.matchAll(TOKEN)].map(([token, letter]) => ({
    token: token.startsWith("'") ? quoted(token) : token,
    isField: letter !== undefined,
  }));
  if (tokens.size >= MOST_PATTERNS) tokens.clear();
  tokens.set(pattern, found);
  return found;
}

/** The words between quotes; two quotes are one. */
function quoted(token: string): string {
  return token === "''" ? "'" : token.slice(1, -1).replaceAll("''", "'");
}

function field(token: string, p: LocalTime, language: string): string {
  const pad = (n: number): string => String(n).padStart(token.length, '0');
  switch (token[0]) {
    case 'y':
      return token.length === 2 ? String(p.year % 100).padStart(2, '0') : pad(p.year);
    case 'M':
    case 'L':
      return token.length <= 2 ? pad(p.month) : monthName(token, p, language);
    case 'd':
      return pad(p.day);
    case 'E':
      return name(
        { weekday: width(Math.max(0, token.length - 3)) },
        Date.UTC(2001, 0, p.weekday),
        language,
        'weekday',
      );
    case 'H':
      return pad(p.hour);
    case 'h':
      return pad(p.hour % 12 || 12);
    case 'm':
      return pad(p.minute);
    case 's':
      return pad(p.second);
    default:
      return name(
        { hour: 'numeric', hour12: true },
        Date.UTC(2001, 0, 1, p.hour),
        language,
        'dayPeriod',
      );
  }
}

function monthName(token: string, { month }: LocalTime, language: string): string {
  const form = { month: width(token.length - 3) };
  return name(form, Date.UTC(2001, month - 1, 1), language, 'month');
}

function width(n: number): 'short' | 'long' | 'narrow' {
  return (['short', 'long', 'narrow'] as const)[n] ?? 'short';
}

const names = new Map<string, string>();

// 2001 started on a Monday, so day n of January is weekday n. Months are taken from a whole date,
// as languages inflect them there.
function name(
  options: Intl.DateTimeFormatOptions,
  at: number,
  language: string,
  part: keyof Intl.DateTimeFormatOptions,
): string {
  const form = `${language} ${part} ${options[part]}`;
  const key = `${form} ${at}`;
  const known = names.get(key);
  if (known !== undefined) return known;
  const whole = { day: options.month && ('numeric' as const), ...options, timeZone: 'UTC' };
  const parts = formatter(form, language, whole).formatToParts(at);
  const found = parts.find(({ type }) => type === part)?.value ?? '';
  names.set(key, found);
  return found;
}
