import type { CompiledSite } from '@/core/site/compile.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { TimelineExtras } from './timeline-source.ts';

/** What a write touched. */
export interface DeriveRequest extends TimelineExtras {
  /** The design that holds at the write's instant. */
  site: CompiledSite;
  /** The write's instant: rows at or before it are facts and stay. */
  settled: Instant;
  /** Entries written at `settled`; their plans of that instant apply on top of what stood. */
  touched: Iterable<string>;
  /** Entries to look at again at a later instant: those that a planned release may move. */
  touchedLater?: { at: Instant; entries: Iterable<string> };
  /** True to derive all that lies ahead anew, whatever was touched. */
  everybody?: boolean;
  /** How many entries may have their derived tables made anew; null for all. */
  most?: number | null;
  /** True while loading: nothing is settled yet, and all of the past is derived. */
  fromBeginning?: boolean;
}
