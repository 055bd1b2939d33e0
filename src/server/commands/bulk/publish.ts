import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import { plannedChange } from '../../db/schema.ts';
import { asOf } from '../../store/as-of.ts';
import { statement } from '../../store/statement.ts';
import type { CommandContext } from '../definition.ts';
import { addPlan, checkPublishable, instantOf } from '../plan-change.ts';
import { bulkDeed } from './definition.ts';

const input = z.strictObject({
  /** At once where null, else a local time or instant (ISO 8601). */
  at: z.string().max(64).nullable(),
});

/** Publishes the newest revisions, now or at an instant. */
export const publish = bulkDeed({
  deed: 'publish',
  input,
  act(context, { id, row, type }, { at: when }) {
    const live = liveRevision(context, id);
    const at = instantOf(context, { at: when });
    if (when === null && live === row.newest) return null;
    checkPublishable(context, type, { entry: id, revision: null });
    addPlan(context, { entry: id, action: 'publish', revision: null, at, typed: when });
    return { live };
  },
  takeBack: (context, { id, row }, { input: { at }, before }) =>
    at !== null
      ? dropPlan(context, id, { action: 'publish', at: instantOf(context, { at }) })
      : isLive(context, id, row.newest) && goBack(context, id, (before as Live).live),
});

/** Takes entries off the site, now or at an instant. */
export const retire = bulkDeed({
  deed: 'publish',
  input,
  act(context, { id }, { at: when }) {
    const live = liveRevision(context, id);
    const at = instantOf(context, { at: when });
    if (when === null ? live === null : !isLiveEver(context, id, at)) return null;
    addPlan(context, { entry: id, action: 'retire', revision: null, at, typed: when });
    return { live };
  },
  takeBack: (context, { id }, { input: { at }, before }) =>
    at !== null
      ? dropPlan(context, id, { action: 'retire', at: instantOf(context, { at }) })
      : liveRevision(context, id) === null && goBack(context, id, (before as Live).live),
});

interface Live {
  /** The revision that was live; null where none was. */
  live: number | null;
}

/** The revision of an entry that is live; null where none is. */
export function liveRevision({ connection, at }: CommandContext, id: string): number | null {
  const sql = `SELECT revision FROM live_interval WHERE entry = ? AND ${asOf('')}`;
  return statement<number>(connection, sql).pluck().get(id, at, at) ?? null;
}

function isLive(context: CommandContext, id: string, revision: number): boolean {
  return liveRevision(context, id) === revision;
}

/** Whether an entry is live when a planned retirement comes. */
function isLiveEver({ connection }: CommandContext, id: string, at: number): boolean {
  const sql = `SELECT 1 FROM live_interval WHERE entry = ? AND starts < ?
    AND (ends IS NULL OR ends >= ?)`;
  return statement(connection, sql).get(id, at, at) !== undefined;
}

/** Has a revision be live again, or none. */
export function goBack(context: CommandContext, entry: string, revision: number | null): boolean {
  const action = revision === null ? 'retire' : 'publish';
  addPlan(context, { entry, action, revision, at: context.at, typed: null });
  return true;
}

/** Cancels what was planned; false where it is not planned any more. */
function dropPlan(
  { connection }: CommandContext,
  entry: string,
  { action, at }: { action: 'publish' | 'retire'; at: number },
): boolean {
  const own = and(
    eq(plannedChange.entry, entry),
    eq(plannedChange.at, at),
    eq(plannedChange.action, action),
  );
  return connection.tables.delete(plannedChange).where(own).run().changes > 0;
}
