import type { Connection } from '../db/connection.ts';
import { DatabaseProblem } from '../db/problem.ts';
import { noteWriting, noteWritten } from '../db/writing-note.ts';
import { readKey } from '@/core/forecast/read-set.ts';
import type { Instant } from '@/core/time/interval.ts';
import { statement } from './statement.ts';

const MAX_CLOCK_LAG_MS = 60_000;

/** The instant of the last write (ms UTC); 0 where nothing was written yet. */
export function settledInstant(connection: Connection): Instant {
  return Number(
    statement<string>(connection, `SELECT value FROM meta WHERE key = 'settled'`).pluck().get() ??
      0,
  );
}

/** Says at which instant the last write was made. */
export function setSettled(connection: Connection, at: Instant): void {
  statement(
    connection,
    `INSERT INTO meta (key, value) VALUES ('settled', ?)
       ON CONFLICT (key) DO UPDATE SET value = excluded.value`,
  ).run(String(at));
}

/** The counter that every write raises; other processes see it move. */
export function totalGeneration(connection: Connection): number {
  return (
    statement<number>(connection, `SELECT generation FROM site_change WHERE scope = 'total'`)
      .pluck()
      .get() ?? 0
  );
}

/**
 * Reads the counter of what the public can see; drafts do not move it. Prepared once, asked at
 * every request.
 */
export function publicGenerationOf(connection: Connection): () => number {
  const read = statement<number>(
    connection,
    `SELECT generation FROM site_change WHERE scope = 'public'`,
  ).pluck();
  return () => read.get() ?? 0;
}

/** The counter that every release raises. */
export function designGeneration(connection: Connection): number {
  return (
    statement<number>(connection, `SELECT generation FROM site_change WHERE scope = 'design'`)
      .pluck()
      .get() ?? 0
  );
}

/** So many public changes are told piece by piece; whoever saw fewer makes everything anew. */
const CHANGES_KEPT = 1000;
/** More keys than this are told as everything. */
const MOST_KEYS = 2000;
/** Keys that have a counter of their own as well. */
const COUNTED = [readKey.design, readKey.subjects, readKey.media];

/** Tells what changed in public, by keys of read sets; nothing where there are none. */
export function raisePublic(connection: Connection, keys: Iterable<string>): void {
  const all = new Set(keys);
  if (all.size === 0) return;
  raise(connection, 'public', ...COUNTED.filter((key) => all.has(key)));
  const generation = publicGenerationOf(connection)();
  const add = statement(connection, 'INSERT INTO public_change (generation, key) VALUES (?, ?)');
  for (const key of all.size > MOST_KEYS ? [readKey.everything] : all) add.run(generation, key);
  statement(connection, 'DELETE FROM public_change WHERE generation <= ?').run(
    generation - CHANGES_KEPT,
  );
}

/** What changed in public after a generation, by keys of read sets; null where that is not known. */
export function changedSince(connection: Connection, generation: number): string[] | null {
  const oldest = statement<number | null>(
    connection,
    'SELECT min(generation) FROM public_change',
  ).pluck();
  const first = oldest.get();
  if (first === null || first === undefined || first > generation + 1) return null;
  return statement<string>(connection, 'SELECT key FROM public_change WHERE generation > ?')
    .pluck()
    .all(generation);
}

/** Raises the counter of the bench: what is on it changed. */
export function raiseBench(connection: Connection): void {
  raise(connection, 'bench');
}

function raise(connection: Connection, ...scopes: string[]): void {
  const sql = statement(
    connection,
    'INSERT INTO site_change (scope, generation) VALUES (?, 1) ON CONFLICT (scope) DO UPDATE SET generation = generation + 1',
  );
  for (const scope of scopes) sql.run(scope);
}

/**
 * Runs one write in one transaction: takes the write's instant, settles everything up to it, and
 * raises the total counter. What throws changes nothing.
 * @throws DatabaseProblem where the wall clock is far behind the last write.
 */
export function write<T>(
  connection: Connection,
  wallClock: Instant,
  change: (at: Instant) => T,
): T {
  const { name } = connection.driver;
  let holds = false;
  const transaction = connection.driver.transaction(() => {
    holds = true;
    connection.checkInPlace();
    noteWriting(name);
    const last = settledInstant(connection);
    if (wallClock < last - MAX_CLOCK_LAG_MS) {
      throw new DatabaseProblem(
        `This machine's clock says ${new Date(wallClock).toISOString()}, and the last change was made at ${new Date(last).toISOString()}.`,
        'Set the clock right. Where it was ahead when that change was made, `npx bontel clock` shows what stands in the way and takes it back to now.',
      );
    }
    const at = Math.max(wallClock, last + 1);
    setSettled(connection, at);
    raise(connection, 'total');
    return change(at);
  });
  try {
    return transaction.immediate();
  } finally {
    if (holds) noteWritten(name);
  }
}
