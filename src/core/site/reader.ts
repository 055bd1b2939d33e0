import type { Presets } from '../design/presets.ts';
import type { EntryView, Media, Subject } from '../design/values.ts';
import type { ListingRow } from '../listing/columns.ts';
import type { ListingPlan, FilterWorld } from '../listing/plan.ts';
import type { Instant, Validity } from '../time/interval.ts';
import type { CompiledSite } from './compile.ts';

/** Who stands, or stood, at a path. */
export interface PathHolders {
  current: { entry: string; role: 'current' | 'redirect' } | null;
  /** The entry that held the path most recently before. */
  former: string | null;
}

/** One live page of an entry, with the entry's type by key and the start of what it shows. */
export interface LivePage {
  path: string;
  entry: string;
  type: string;
  updated: Instant;
  /** What the entry has otherwise than its type; left out where that is nothing. */
  presets?: Presets;
  /** Set where the site's own language stands in for words that are not there. */
  isFallback?: true;
}

/** Ids of the entries next to a place in a list; null where none is. */
export interface Neighbours {
  /** Whether the row whose place it is stands in the list. */
  isIn: boolean;
  before: string | null;
  after: string | null;
}

/**
 * What rendering reads. All of it is as of the validity's instant; every method tells the
 * validity the bounds of what it looked up, misses included.
 */
export interface SiteReader {
  /** What the same content is in another of the site's languages. */
  in(site: CompiledSite): SiteReader;
  /** The live entries among the ids, each in its live revision, in the order of the ids. */
  liveEntries(ids: readonly string[], validity: Validity): Map<string, EntryView>;
  holders(path: string, validity: Validity): PathHolders;
  /** An entry's current path, live or not; null while it has none. */
  currentPath(entry: string, validity: Validity): string | null;
  /** The content type of an entry, live or not, by key; null where there is no such entry. */
  typeOf(entry: string): string | null;
  /** The name of an entry's newest revision, for people; null where there is no such entry. */
  nameOf(entry: string): string | null;
  /**
   * Who will be the next to stand at a path after an instant, and from when; null for nobody
   * known.
   */
  comingAt(path: string, at: Instant): { entry: string; at: Instant } | null;
  /**
   * A stretch of a listing in its order, and how many entries it has; both without some entries,
   * where named.
   */
  listing(
    plan: ListingPlan,
    validity: Validity,
    offset: number,
    limit: number,
    without?: readonly string[],
  ): { ids: string[]; total: number };
  /**
   * How many entries of a listing come before a row in its order, whether that is in it or not;
   * without some entries, where named.
   */
  preceding(
    plan: ListingPlan,
    row: ListingRow,
    validity: Validity,
    without?: readonly string[],
  ): number;
  /**
   * The entries of a listing that stand just before and just after where a row has its place in
   * the order, whether that is in it or not; without some entries, where named.
   */
  neighbours(
    plan: ListingPlan,
    row: ListingRow,
    validity: Validity,
    without?: readonly string[],
  ): Neighbours;
  /**
   * How many entries of a listing have each value of a column by which visitors narrow it, by name:
   * options by their keys, `yes` and `no`, subjects by their keys with all that lies within them,
   * live entries by their ids. Those of which there are none are left out, and of entries that many
   * lead to the most are there. Without some entries, where named.
   */
  counts(
    plan: ListingPlan,
    name: string,
    validity: Validity,
    without?: readonly string[],
  ): Map<string, number>;
  /** A stretch of picks, by their id, in their order; whether live or not. */
  picked(picks: string, validity: Validity, offset: number, limit: number): string[];
  /** Entries with a page of their own, newest first. */
  newestPages(limit: number, validity: Validity): string[];
  /** How many live pages of entries there are. */
  livePageCount(validity: Validity): number;
  /** Live pages in the order of their paths, after a path. */
  livePages(after: string | null, limit: number, validity: Validity): LivePage[];
  /**
   * Entries any of whose revisions point at one of the targets through one of the fields (by id).
   */
  referrers(targets: readonly string[], fields: readonly string[]): string[];
  /** What a key of a set stands for, one that was merged into another included. */
  subject(set: string, key: string, validity: Validity): Subject | null;
  /** All subjects of a set, in their order. */
  subjectsOf(set: string, validity: Validity): Subject[];
  /** What filters ask of subjects as of an instant. */
  filterWorld(at: Instant): FilterWorld;
  media(id: string, validity: Validity): Media | null;
  /** What a person is called, by the id. */
  person(id: string): string;
}
