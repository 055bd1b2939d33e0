import type { ByHand, HeldFact } from '@/core/address/model.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { Values } from '@/core/design/values.ts';
import type { Revision } from '@/core/publication/model.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { EntryFacts } from './entry-facts.ts';
import type { RawEntry } from './entry-form.ts';
import type { PlanToLoad } from './entry-timing.ts';

/** A revision with what is not read from its values. */
export interface RevisionToLoad extends Revision {
  /** Values by field id that are stored as they are. */
  stored: Values;
  /** Values of translated fields in further languages, by BCP 47 tags and field ids. */
  languages: Record<string, Values>;
  /** What it is called where its naming field says otherwise. */
  name?: string | undefined;
  note?: string | undefined;
}

/** An entry ready to be written, with where it came from. */
export interface EntryToLoad {
  id: string;
  type: ContentType;
  created: Instant;
  author: string;
  deleted: Instant | null;
  revisions: RevisionToLoad[];
  plans: PlanToLoad[];
  byHand: ByHand[];
  /** What is not to be worked out; null where the entry was not saved with the rest. */
  facts: EntryFacts | null;
  /** The addresses it held so far; null where they are to be worked out. */
  held: HeldFact[] | null;
  /** Where it stands. */
  raw: Pick<RawEntry, 'file' | 'lineOf'>;
}

/** A starter ready to be written. */
export interface StarterToLoad {
  id: string;
  type: ContentType;
  name: string;
  /** By field id, and those that are stored as they are. */
  values: Values;
  stored: Values;
  author: string;
  saved: Instant;
  raw: Pick<RawEntry, 'file' | 'lineOf'>;
}
