import type { Instant, Interval } from '../time/interval.ts';
import type { Values } from '../design/values.ts';

/** An immutable saved state of an entry's values. Numbers rise with the saved instant, from 1. */
export interface Revision {
  number: number;
  saved: Instant;
  values: Values;
  author: string;
}

/**
 * A publication or retirement asked for at an instant. Plans at one instant apply by `sequence`.
 */
export interface Plan {
  at: Instant;
  sequence: number;
  do: 'publish' | 'retire';
  /** The revision to publish; null for the newest saved by then. */
  revision: number | null;
  /** Set where it changes what is live, and makes nothing live that is not. */
  keeps?: true;
}

/** While it runs, a revision of an entry is public. */
export interface LiveInterval extends Interval {
  entry: string;
  /** Of the words that are shown: the site's own where that stands in for another. */
  language: string;
  revision: number;
  /** The revision that untranslated values are read from. */
  sharedRevision: number;
}

/** The states an entry can be in as of an instant. */
export type EntryState =
  'not yet written' | 'draft' | 'scheduled' | 'live' | 'live with newer draft' | 'retired';
