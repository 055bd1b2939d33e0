import { z } from 'zod';
import { bulkChange } from '../../db/schema-desk.ts';
import { statement } from '../../store/statement.ts';
import type { CommandContext } from '../definition.ts';
import { broughtIn } from '../intake/take-back.ts';
import { BULK_DEEDS, bulkDo } from './deeds.ts';
import type { Before, BulkDeed } from './definition.ts';

/** What takes back what was done to entries. */
export type TakesBack = Pick<BulkDeed, 'deed' | 'isShownAtOnce' | 'takeBack'>;

/** Everything that was done to many entries and can be taken back, by name. */
export const KEPT_DEEDS = { ...BULK_DEEDS, bringIn: broughtIn };
/** What was done to many entries: the name, and what it took. */
export const keptDo = z.discriminatedUnion('do', [
  ...bulkDo.options,
  z.strictObject({ do: z.literal('bringIn'), ...broughtIn.input.shape }),
]);

/** So many changes of each person can be taken back. */
const KEPT = 20;

/** Keeps what is needed to take a change back; gives the number by which that is asked for. */
export function keepChange(
  { connection, actor, at }: CommandContext,
  what: z.output<typeof keptDo>,
  done: ReadonlyMap<string, Before>,
): number {
  const { id } = connection.tables
    .insert(bulkChange)
    .values({
      person: actor.id,
      at,
      what: JSON.stringify(what),
      done: JSON.stringify([...done]),
    })
    .returning({ id: bulkChange.id })
    .get();
  statement(
    connection,
    `DELETE FROM bulk_change WHERE person = ? AND id NOT IN
       (SELECT id FROM bulk_change WHERE person = ? ORDER BY id DESC LIMIT ${KEPT})`,
  ).run(actor.id, actor.id);
  return id;
}
