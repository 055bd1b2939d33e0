import { rmSync } from 'node:fs';
import type { Result } from '@/core/issue.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { CommandName } from '../commands/index.ts';
import { runCommand } from '../commands/run.ts';
import { type Connection, openDatabase } from '../db/connection.ts';
import type { Actor } from '../permit.ts';
import { publicGenerationOf, settledInstant } from '../store/write.ts';
import { benchGeneration } from '../store/bench.ts';
import { designsOf } from '../store/design-store.ts';
import { designsFrom, sitesOf } from '../store/designs-ahead.ts';
import { copyDatabase } from './copy-database.ts';
import { type RuledSpan, ruledSpans } from './own-instants.ts';
import {
  type PlannedTable,
  changedTable,
  lastNumbers,
  notedKeys,
  plannedTables,
  putTable,
} from './tables.ts';

/** A write that was done on a copy, and is to be done on the database itself. */
export interface PlannedWrite {
  /** The copy, with what changed in it under `changed_row`. */
  file: string;
  actor: Actor;
  /** The instant that it was written at in the copy. */
  planned: Instant;
  /** What rules retire of that which it publishes. */
  spans: RuledSpan[];
  /** Counters of the database when the copy was made: what was planned holds while they stand. */
  stands: Generations;
  /** The last write that stands in the copy, ms UTC. */
  copied: Instant;
  tables: PlannedTable[];
  /** The highest numbers of rows when the copy was made: others may take the next ones meanwhile. */
  lasts: ReadonlyMap<string, number>;
  /** What the command gave. */
  value: unknown;
}

/** Counters that say whether what was planned still holds. */
export interface Generations {
  public: number;
  bench: number;
}

/** The counters as they are now. */
export function generationsOf(connection: Connection): Generations {
  return { public: publicGenerationOf(connection)(), bench: benchGeneration(connection) };
}

/** A command to be planned. */
export interface ToPlan {
  name: CommandName;
  actor: Actor;
  input: unknown;
  wallClock: Instant;
}

/**
 * Does a command on a copy of the database and notes which rows it changed: nobody waits meanwhile.
 * Gives the refusal where it is refused; whoever gets a plan takes its file away.
 */
export function planWrite(
  connection: Connection,
  file: string,
  { name, actor, input, wallClock }: ToPlan,
  step: () => void,
): Result<PlannedWrite> {
  copyDatabase(connection, file);
  const copy = openDatabase(file);
  try {
    copy.driver.pragma('synchronous = OFF');
    const [stands, copied] = [generationsOf(copy), settledInstant(copy)];
    const tables = plannedTables(copy);
    const lasts = lastNumbers(copy, tables);
    noteChanges(copy, tables);
    const result: Result<unknown> = runCommand(copy, name, actor, input, { wallClock, step });
    if (!result.ok) return result;
    setApart(copy, tables);
    const planned = settledInstant(copy);
    const { value } = result;
    const found = { stands, copied, tables, lasts, value };
    return { ok: true, value: { file, actor, planned, spans: spansFrom(copy, planned), ...found } };
  } finally {
    copy.close();
  }
}

function spansFrom(copy: Connection, planned: Instant): RuledSpan[] {
  const released = designsOf(copy).at(planned);
  return released ? ruledSpans(sitesOf(designsFrom(copy, planned, released.site))) : [];
}

/** Sets the rows apart that are to be put in, and what changes in place, each in its order. */
function setApart({ driver }: Connection, tables: readonly PlannedTable[]): void {
  for (const table of tables) {
    const { name, key, order, changes } = table;
    const keys = key.map((column, i) => `${column} AS k${i + 1}`);
    if (changes.length > 0)
      driver.exec(`CREATE TABLE ${changedTable(table)} AS SELECT ${[...keys, ...changes].join(', ')}
        FROM ${name} WHERE (${key.join(', ')}) IN (${notedKeys(table, 'main', 0)})
        ORDER BY ${key.join(', ')}`);
    driver.exec(`CREATE TABLE ${putTable(table)} AS SELECT * FROM ${name}
      WHERE (${key.join(', ')}) IN (${notedKeys(table, 'main', 1)})
      ${order === undefined ? '' : `ORDER BY ${order}`}`);
  }
}

/** Takes a plan's files away. */
export function dropPlan(file: string): void {
  for (const suffix of ['', '-wal', '-shm', '.writing'])
    rmSync(`${file}${suffix}`, { force: true });
}

/** Has every change of a row noted: by its key, and whether it was only changed in place. */
function noteChanges({ driver }: Connection, tables: readonly PlannedTable[]): void {
  driver.pragma('recursive_triggers = ON'); // rows that others take the place of are noted, too
  driver.exec(`CREATE TABLE changed_row (of TEXT NOT NULL, k1, k2, k3, k4,
    whole INTEGER NOT NULL, PRIMARY KEY (of, k1, k2, k3, k4)) WITHOUT ROWID`);
  for (const { name, key } of tables)
    for (const [act, which, whole] of [
      ['INSERT', ['NEW'], 1],
      ['DELETE', ['OLD'], 1],
      ['UPDATE', ['NEW'], 0],
    ] as const)
      for (const row of which) {
        const keys = [0, 1, 2, 3].map((i) => (key[i] ? `${row}.${key[i]}` : `''`)).join(', ');
        driver.exec(`CREATE TRIGGER "${act} of ${name.replaceAll('"', '')}" AFTER ${act} ON ${name}
          BEGIN INSERT INTO changed_row VALUES ('${name}', ${keys}, ${whole})
            ON CONFLICT DO UPDATE SET whole = max(whole, excluded.whole); END`);
      }
}
