import { instantInFull } from '@/core/time/words.ts';
import { isoInZone, localTime } from '@/core/time/zone.ts';

/**
 * Short words for an instant in a zone: "Tue 24 Nov, 14:05", with the year where it is not this
 * one.
 */
export function instantWords(at: number, zone: string, now: number): string {
  const t = localTime(at, zone);
  const full = instantInFull(at - (at % 1000), zone).replace(/ \(.*$/, '');
  const near = Math.abs(at - now) <= 3_600_000;
  const timed = near ? full : full.replace(/:\d{2}$/, (s) => (full.split(':').length > 2 ? '' : s));
  return t.year === localTime(now, zone).year ? timed.replace(` ${t.year},`, ',') : timed;
}

/** A day in a zone: "24 Nov 2026". */
export function dayWords(at: number, zone: string): string {
  return instantInFull(at, zone).replace(/^\w+ /, '').replace(/,.*$/, '');
}

/** `yyyy-MM-ddTHH:mm:ss` of an instant in a zone. */
export function localValue(at: number, zone: string): string {
  return isoInZone(at, zone).slice(0, 19);
}

/** "1 entry", "2 entries". */
export function counted(n: number, one: string, many = `${one}s`): string {
  return `${n.toLocaleString('en')} ${n === 1 ? one : many}`;
}

/** "1 entry", "more than 1,000 entries" where no more are counted. */
export function entriesCounted(n: number): string {
  return n > 1000 ? 'more than 1,000 entries' : counted(n, 'entry', 'entries');
}

/** Where an entry's screen is, or that of its words in a language; ids may hold "#", "?" or "%". */
export function entryHref(id: string, language: string | null = null): string {
  const spoken = language === null ? '' : `?language=${encodeURIComponent(language)}`;
  return `/build/content/${id.split('/').map(encodeURIComponent).join('/')}${spoken}`;
}
