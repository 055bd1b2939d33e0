/** In which order numbers with slashes or points name a day: `2/3/2024`. */
export type DayOrder = 'dmy' | 'mdy';

const MONTHS = 'jan feb mar apr may jun jul aug sep oct nov dec'.split(' ');
const TIME = String.raw`(?:[T ,]+(\d{1,2}):(\d{2})(?::(\d{2})(?:\.\d+)?)?\s*([ap]m)?)?`;
const ZONE = String.raw`\s*(Z|UTC|GMT|[+-]\d{2}:?\d{2})?(?:\s*\(.*\))?`;
const BY_NUMBER = new RegExp(`^(\\d{4})[-/.](\\d{1,2})[-/.](\\d{1,2})${TIME}${ZONE}$`, 'i');
const SHORT = new RegExp(`^(\\d{1,2})[-/.](\\d{1,2})[-/.](\\d{4}|\\d{2})${TIME}${ZONE}$`, 'i');
const DAY_FIRST = new RegExp(
  `^(?:[a-z]+,?\\s+)?(\\d{1,2})(?:st|nd|rd|th)?\\.?[\\s-]+([a-z]{3})[a-z]*\\.?,?[\\s-]+(\\d{4})${TIME}${ZONE}$`,
  'i',
);
const MONTH_FIRST = new RegExp(
  `^(?:[a-z]+,?\\s+)?([a-z]{3})[a-z]*\\.?\\s+(\\d{1,2})(?:st|nd|rd|th)?,?\\s+(\\d{4})${TIME}${ZONE}$`,
  'i',
);

/**
 * A day, or a day with a time, as other tools write them, in the form of ISO 8601; null where it is
 * none. Days by numbers alone are read in the order given.
 */
export function plainDate(value: unknown, order: DayOrder = 'dmy'): string | null {
  if (value instanceof Date) return Number.isNaN(value.getTime()) ? null : value.toISOString();
  if (typeof value !== 'string') return null;
  const text = value.trim();
  const iso = BY_NUMBER.exec(text);
  if (iso) return dateOf(iso[1]!, iso[2]!, iso[3]!, iso.slice(4));
  const short = SHORT.exec(text);
  if (short) {
    const [, a = '', b = '', year = '', ...rest] = short;
    const whole = year.length === 4 ? year : `${Number(year) < 70 ? '20' : '19'}${year}`;
    return order === 'dmy' ? dateOf(whole, b, a, rest) : dateOf(whole, a, b, rest);
  }
  const named = DAY_FIRST.exec(text);
  if (named) return dateOf(named[3]!, monthOf(named[2]!), named[1]!, named.slice(4));
  const american = MONTH_FIRST.exec(text);
  if (american) return dateOf(american[3]!, monthOf(american[1]!), american[2]!, american.slice(4));
  return null;
}

function monthOf(name: string): string {
  return String(MONTHS.indexOf(name.toLowerCase()) + 1);
}

function dateOf(
  year: string,
  month: string,
  day: string,
  [hour, minute, second, half, zone]: (string | undefined)[],
): string | null {
  const two = (part: string | number): string => String(part).padStart(2, '0');
  const date = `${year}-${two(month)}-${two(day)}`;
  const checked = new Date(`${date}T00:00:00Z`);
  if (Number.isNaN(checked.getTime()) || checked.getUTCDate() !== Number(day)) return null;
  if (hour === undefined) return date;
  const twelve = Number(hour) % 12;
  const hours = half ? twelve + (/p/i.test(half) ? 12 : 0) : Number(hour);
  if (hours > 23 || Number(minute) > 59) return null;
  const offset = zone === undefined ? '' : /^[+-]/.test(zone) ? zone : 'Z';
  return `${date}T${two(hours)}:${minute!}:${second ?? '00'}${offset}`;
}

/** How a day by numbers alone can be read: one way, or `either`; null for what is none. */
export function dayOrderOf(text: string): DayOrder | 'either' | null {
  const [, a, b] = SHORT.exec(text.trim()) ?? [];
  if (a === undefined) return null;
  if (Number(a) > 12) return 'dmy';
  return Number(b) > 12 ? 'mdy' : 'either';
}

/** The sign before the decimals of a number: the other one parts thousands. */
export type Decimals = 'point' | 'comma';

const bareNumber = (text: string): string => text.trim().replace(/^[€$£]\s?|\s?[%€]$/g, '');

/** Which sign a number has before its decimals; `either` where it could be any; null for others. */
export function decimalsOf(text: string): Decimals | 'either' | null {
  const bare = bareNumber(text);
  if (/^[+-]?\d{1,3}[.,]\d{3}$/.test(bare)) return 'either';
  if (plainNumber(bare) === null) return null;
  const last = /[.,](?=[^.,]*$)/.exec(bare)?.[0];
  if (last === undefined) return null;
  const isThousands = bare.split(last).length > 2;
  return (last === '.') === isThousands ? 'comma' : 'point';
}

/**
 * A number as people write it, such as "1,234.5", "1.234,5", "€ 12" or "40 %"; null for none. What
 * could be read either way, "1.234", is read by the sign before the decimals.
 */
export function plainNumber(value: unknown, decimals?: Decimals): number | null {
  if (typeof value === 'number') return Number.isFinite(value) ? value : null;
  if (typeof value !== 'string') return null;
  const text = bareNumber(value);
  if (decimals && /^[+-]?\d{1,3}[.,]\d{3}$/.test(text)) {
    const isDecimal = text.includes(decimals === 'point' ? '.' : ',');
    return Number(text.replace(/[.,]/, isDecimal ? '.' : ''));
  }
  if (/^[+-]?\d+(\.\d+)?$/.test(text)) return Number(text);
  if (/^[+-]?\d{1,3}([, '\u00a0]\d{3})+(\.\d+)?$/.test(text))
    return Number(text.replace(/[, '\u00a0]/g, ''));
  if (/^[+-]?\d{1,3}(\.\d{3})+(,\d+)?$/.test(text) || /^[+-]?\d+,\d+$/.test(text))
    return Number(text.replaceAll('.', '').replace(',', '.'));
  return null;
}

const YES = new Set(['yes', 'true', 'y', 'on', '1', 'x', '✓', 'ja', 'oui']);
const NO = new Set(['no', 'false', 'n', 'off', '0', '', '-', 'nein', 'non']);

/** Yes or no as people write it; null where it is neither. */
export function plainYesNo(value: unknown): boolean | null {
  if (typeof value === 'boolean') return value;
  const text = String(value).trim().toLowerCase();
  return YES.has(text) ? true : NO.has(text) ? false : null;
}

/** Several values in one: a list, or a text parted by ";", "|", line ends, else by commas. */
export function plainList(value: unknown): unknown[] {
  if (Array.isArray(value)) return value.filter((one) => one !== null && one !== '');
  if (typeof value !== 'string') return value === null || value === undefined ? [] : [value];
  const bare = value.trim().replace(/^\[(.*)\]$/s, '$1');
  const mark = [';', '|', '\n'].find((one) => bare.includes(one)) ?? ',';
  return bare
    .split(mark)
    .map((one) => one.trim().replace(/^(["'])(.*)\1$/, '$2'))
    .filter((one) => one !== '');
}
