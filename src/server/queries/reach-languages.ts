import { type Found, reachOf, wholeLanguage } from '@/core/forecast/reach.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { SiteReader } from '@/core/site/reader.ts';
import { type Instant, Validity } from '@/core/time/interval.ts';
import type { Draft, Seen } from './preview.ts';

/** A site in one language before and after; null where it is not in it. */
export interface Versions {
  before: Seen | null;
  after: Seen | null;
  /** Entries that may have a page only afterwards, or another one. */
  more: string[];
}

/** What stands in, in a language that is new, for words that are not there. */
export function standIns(
  own: Seen,
  site: CompiledSite,
  ids: readonly string[],
  at: Instant,
): Draft[] {
  const { edition } = site.design;
  if (!edition?.fallback) return [];
  const live = own.reader.liveEntries(ids, new Validity(at)).values();
  return [...live].flatMap((entry): Draft[] => {
    const type = site.types.get(entry.type.id);
    const { id, values, author } = entry;
    return type ? [{ id, type, values, author, language: edition.own }] : [];
  });
}

/** The versions, each of whose sites leads to the others as they are afterwards. */
export function inSight(versions: readonly Versions[]): readonly Versions[] {
  const readers = new Map(versions.flatMap(({ after }) => (after ? [[after.site, after]] : [])));
  for (const one of versions) {
    if (!one.after) continue;
    const { site, reader } = one.after;
    const own = Object.create(reader) as SiteReader;
    own.in = (other) => readers.get(other)?.reader ?? reader.in(other);
    one.after = { site, reader: own };
  }
  return versions;
}

/** What becomes of the pages of one language. */
export function comparing(
  { before, after, more }: Versions,
  all: readonly Versions[],
  at: Instant,
): Iterable<Found> {
  // Where entries stand in one language is told on their pages in the others.
  const moved = all.flatMap((one) => one.more);
  if (before && after)
    return reachOf(before, after, at, all.length > 1 && more.length === 0 ? moved : more);
  if (before) return wholeLanguage(before, 'vanishes', at);
  return after ? wholeLanguage(after, 'appears', at) : [];
}
