import type { Media, Subject, Values } from '../design/values.ts';
import type { ContentType } from '../design/spec.ts';
import type { LiveInterval, Plan, Revision } from '../publication/model.ts';
import type { Instant, Interval } from '../time/interval.ts';

/** An address set by hand on an entry, while its interval runs. */
export interface ByHand extends Interval {
  path: string;
}

/** An address that an entry is known to have held, as its site was saved. `base`: see `Held`. */
export interface HeldFact extends Interval {
  path: string;
  base: string;
  /** The base it was to have instead and could not; null where there was none. */
  refused: string | null;
}

/** All addresses an entry held before an instant; from then on they are worked out again. */
export interface AddressHistory {
  until: Instant;
  held: readonly HeldFact[];
}

/** What the past, the plans and the saved revisions of one entry are. */
export interface TimelineEntry {
  id: string;
  type: ContentType;
  created: Instant;
  author: string;
  /** By number, ascending. */
  revisions: readonly Revision[];
  /** By instant and sequence, ascending. */
  plans: readonly Plan[];
  byHand: readonly ByHand[];
  /**
   * When a rule of its type retires what is live, after an instant; left out where none does.
   * `published`: start of the first live interval.
   */
  endsByRule?: (
    live: { revision: number; from: Instant },
    published: Instant | null,
    after: Instant,
  ) => Instant | null;
  /** While a saved site is loaded: what is not to be worked out anew. */
  history?: AddressHistory;
}

/** An address in the running stretch. */
export interface Held {
  path: string;
  /**
   * What it was dealt for: the unnumbered path, `hand:` and a path set by hand, or `front:` and
   * one.
   */
  base: string;
  from: Instant;
  /**
   * The base that was refused last while it is held, so that it is not claimed at any act; else
   * null.
   */
  refused: string | null;
}

/** How an entry stands at some instant of the simulation. */
export interface Standing {
  /** What is live, a number by `codeOf`, and since when; null while nothing is. */
  live: { revision: number; from: Instant } | null;
  /** Its address in the running stretch, the base it was dealt for, and since when it holds. */
  held: Held | null;
  /** Start of the first live interval. */
  published: Instant | null;
  /** The revision live most recently, and the address held most recently. */
  lastRevision: number | null;
  lastHeld: { path: string; base: string } | null;
}

/** An address and the entry it belongs to, while its interval runs. `base`: see `Held`. */
export interface AddressRow extends Interval {
  path: string;
  language: string;
  entry: string;
  /** `redirect`: the pattern's path of an entry that stands at `/`. */
  role: 'current' | 'redirect';
  base: string;
}

/** A publication or an address that could not be had. */
export interface Refusal {
  entry: string;
  at: Instant;
  code: 'clash' | 'blank-segment' | 'cycle' | 'too-long' | 'nothing-left';
  message: string;
  fix: string;
  /**
   * True where the publication itself did not happen; false where a path was kept or dealt all
   * the same.
   */
  cancelled: boolean;
  /** The base that could not be had; null where it was had. */
  base: string | null;
  /**
   * True where somebody set an address by hand that is taken, or took one: certain as soon as it
   * is written.
   */
  byHand: boolean;
}

/** Everything derived for the entries a simulation touched, from its start on. */
export interface Timeline {
  live: LiveInterval[];
  addresses: AddressRow[];
  published: Map<string, Instant | null>;
  refusals: Refusal[];
  /** Entries whose rows open at the start, or later, are to be replaced by those above. */
  touched: Set<string>;
}

/**
 * Where the simulation reads from. Entries that it plays through are as of its start, the others
 * as they stand, or will, at each instant.
 */
export interface TimelineSource {
  /** An entry, of its type as the design of an instant has it. */
  entry(id: string, at: Instant): TimelineEntry | undefined;
  standing(id: string, at: Instant): Standing;
  /** Whether an entry may have plans at just this instant, asked before it is read. */
  mayAct(id: string, at: Instant): boolean;
  /** The entry that holds a path at an instant; null where none does. */
  holder(path: string, at: Instant): string | null;
  /** Entries any of whose revisions refer to this one through fields that addresses read. */
  dependents(id: string): readonly string[];
  subject(set: string, key: string, at: Instant): Subject | null;
  media(id: string): Media | null;
  /** Hears of every address worked out, so that long work shows that it goes on. */
  step?(): void;
}

/**
 * Entries to look at again at an instant, because of plans, saved revisions, by-hand addresses or
 * a release.
 */
export type TimelineEvents = ReadonlyMap<Instant, ReadonlySet<string>>;

/** A standing with no past. */
export function freshStanding(): Standing {
  return { live: null, held: null, published: null, lastRevision: null, lastHeld: null };
}

/** The values of a revision; none where it is not there. */
export function valuesOfRevision(entry: TimelineEntry, number: number | null): Values {
  return entry.revisions.find((r) => r.number === number)?.values ?? {};
}
