import type { ContentType } from '../design/spec.ts';
import type { TimingRule } from '../design/timing-spec.ts';

/** Units that a span is written in on screens, with their place in ISO 8601. */
export const SPAN_UNITS = [
  { unit: 'minutes', one: 'minute', iso: (n: number) => `PT${n}M` },
  { unit: 'hours', one: 'hour', iso: (n: number) => `PT${n}H` },
  { unit: 'days', one: 'day', iso: (n: number) => `P${n}D` },
  { unit: 'weeks', one: 'week', iso: (n: number) => `P${n}W` },
  { unit: 'months', one: 'month', iso: (n: number) => `P${n}M` },
  { unit: 'years', one: 'year', iso: (n: number) => `P${n}Y` },
] as const;
/** One of them. */
export type SpanUnit = (typeof SPAN_UNITS)[number]['unit'];

/** A span as one number of one unit, before or after. */
export interface SpanParts {
  count: number;
  unit: SpanUnit;
  isBefore: boolean;
}

/** A span of one unit; null for one of several. */
export function spanParts(span: string): SpanParts | null {
  const isBefore = span.startsWith('-');
  const plain = span.replace(/^[-+]/, '').toUpperCase();
  if (plain === 'PT0S') return { count: 0, unit: 'days', isBefore };
  for (const { unit, iso } of SPAN_UNITS) {
    const count = Number(/\d+/.exec(plain)?.[0] ?? NaN);
    if (iso(count) === plain) return { count, unit, isBefore };
  }
  return null;
}

/** The ISO 8601 duration of a number of one unit. */
export function spanOf({ count, unit, isBefore }: SpanParts): string {
  const iso = SPAN_UNITS.find((u) => u.unit === unit)!.iso(count);
  return isBefore ? `-${iso}` : iso;
}

/** What rules count from besides fields, in words. */
export const START_WORDS: Readonly<Record<string, string>> = {
  'entry.created': 'it was written',
  'entry.published': 'it went live first',
};

/** A rule as a sentence without its condition: "retires 2 hours after Ends". */
export function ruleWords(
  { do: deed, after, from, where }: TimingRule,
  { fields }: Pick<ContentType, 'fields'>,
): string {
  const verb = deed === 'retire' ? 'retires' : 'goes live';
  const start = START_WORDS[from] ?? fields.find((f) => f.key === from)?.label ?? from;
  const only = where === undefined ? '' : ', where its condition holds';
  return `${verb} ${spanWords(after)} ${start}${only}`;
}

function spanWords(span: string): string {
  const parts = spanParts(span);
  const isBefore = span.startsWith('-');
  if (!parts) return `${span.replace(/^[-+]/, '')} ${isBefore ? 'before' : 'after'}`;
  const { count, unit } = parts;
  if (count === 0) return 'at';
  const { one } = SPAN_UNITS.find((u) => u.unit === unit)!;
  return `${count.toLocaleString('en')} ${count === 1 ? one : unit} ${isBefore ? 'before' : 'after'}`;
}
