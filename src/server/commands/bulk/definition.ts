import type { z } from 'zod';
import type { ContentType } from '@/core/design/spec.ts';
import type { Deed } from '../../permit.ts';
import type { CommandContext } from '../definition.ts';
import type { EntryRow } from '../entry-lookup.ts';

/** An entry that something is done to. */
export interface Concerned {
  id: string;
  row: EntryRow;
  type: ContentType;
}

/** What of an entry was so before, as JSON: enough to take it back. */
export type Before = unknown;

/** One thing that can be done to many entries, with everything that belongs to it. */
export interface BulkDeed<S extends z.ZodType = z.ZodType> {
  deed: Deed;
  input: S;
  /** Where it changes no revision, yet something that pages and lists show of live entries. */
  isShownAtOnce?: true;
  /**
   * Does it to one entry, of which nothing is derived yet; `null` where there is nothing to change.
   * @throws Refused where it cannot be done to this one; nothing may be written by then
   */
  act: (context: CommandContext, entry: Concerned, input: z.output<S>) => Before | null;
  /**
   * Takes it back of one entry; false where it is otherwise by now.
   * @throws Refused
   */
  takeBack: (
    context: CommandContext,
    entry: Concerned,
    done: { input: z.output<S>; before: Before },
  ) => boolean;
}

/** A deed with the type of its input kept. */
export function bulkDeed<S extends z.ZodType>(definition: BulkDeed<S>): BulkDeed<S> {
  return definition;
}
