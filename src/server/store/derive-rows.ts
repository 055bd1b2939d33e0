import type { AddressRow, Refusal, Timeline } from '@/core/address/model.ts';
import type { LiveInterval } from '@/core/publication/model.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { type LanguageTables, tablesIn } from './language-tables.ts';
import { statement } from './statement.ts';

/** What was known of an entry's future before it was taken away. */
interface Forgotten {
  /** The instants at which something of it had been refused. */
  refused: Instant[];
  /** Whether any of its live intervals is not as it was. */
  wasLive: boolean;
}

/** Of the site's own language it is noted with entries when they were published. */
const isOwn = (live: string): boolean => live === tablesIn(undefined).live;

/** Takes away what was derived of an entry for instants after `start`. */
export function forgetAhead(
  connection: Connection,
  id: string,
  start: Instant,
  {
    tables: { live, address, refusal },
    forgetIndexRows,
  }: { tables: LanguageTables; forgetIndexRows: (id: string) => void },
): Forgotten {
  const run = (sql: string): { changes: number } => statement(connection, sql).run(id, start);
  const refused = statement<Instant>(
    connection,
    `SELECT at FROM ${refusal} WHERE entry = ? AND at >= ? AND cancelled = 1`,
  ).pluck();
  const before = { refused: refused.all(id, start), wasLive: false };
  run(`DELETE FROM ${refusal} WHERE entry = ? AND at > ?`);
  run(`DELETE FROM ${address} WHERE entry = ? AND starts > ?`);
  run(`UPDATE ${address} SET ends = NULL WHERE entry = ? AND ends > ?`);
  forgetIndexRows(id);
  const forgotten =
    run(`DELETE FROM ${live} WHERE entry = ? AND starts > ?`).changes +
    run(`UPDATE ${live} SET ends = NULL WHERE entry = ? AND ends > ?`).changes;
  if (forgotten === 0) return before;
  if (!isOwn(live)) return { ...before, wasLive: true };
  // Until they are derived again, planned publications publish nothing.
  statement(
    connection,
    `UPDATE entry SET published = CASE WHEN published > @start THEN NULL ELSE published END,
       unpublished = NOT EXISTS (SELECT 1 FROM live_interval AS l
         WHERE l.entry = entry.id AND entry.newest IN (l.revision, l.shared_revision))
     WHERE id = @id`,
  ).run({ id, start });
  return { ...before, wasLive: true };
}

/**
 * The live intervals of the entries whose publication changed; the others' rows are as they
 * should be.
 */
export function changedRuns(
  connection: Connection,
  tables: LanguageTables,
  { touched, live }: Timeline,
): Map<string, LiveInterval[]> {
  const runs = new Map<string, LiveInterval[]>([...touched].map((id) => [id, []]));
  for (const row of live) runs.get(row.entry)?.push(row);
  const open = statement<Pick<LiveInterval, 'from' | (typeof SHOWN)[number]>>(
    connection,
    `SELECT starts AS "from", revision, shared_revision AS sharedRevision, language
       FROM ${tables.live} WHERE entry = ? AND ends IS NULL`,
  );
  for (const [id, rows] of runs) {
    const stands = open.all(id);
    const [row] = rows;
    const same =
      rows.length === 0
        ? stands.length === 0
        : rows.length === 1 &&
          stands.length === 1 &&
          row!.to === null &&
          row!.from === stands[0]!.from &&
          SHOWN.every((name) => row![name] === stands[0]![name]);
    if (same) runs.delete(id);
  }
  return runs;
}

const SHOWN = ['revision', 'sharedRevision', 'language'] as const;

/** Writes what was played through in place of what was forgotten. */
export function writeTimeline(
  connection: Connection,
  tables: LanguageTables,
  { touched, addresses, published, refusals }: Timeline,
  runs: ReadonlyMap<string, LiveInterval[]>,
): void {
  writeRuns(connection, tables, runs, published);
  writeAddresses(connection, tables, touched, addresses);
  writeRefusals(connection, tables, refusals);
}

/** Writes rows that were derived before and are facts by now. */
export function writeFacts(
  connection: Connection,
  tables: LanguageTables,
): (facts: { live: LiveInterval[]; held: AddressRow[]; refused: Refusal[] }) => void {
  const [addLive, addAddress] = [liveAdder(connection, tables), addressAdder(connection, tables)];
  return ({ live, held, refused }) => {
    live.forEach(addLive);
    held.forEach(addAddress);
    writeRefusals(connection, tables, refused);
  };
}

function liveAdder(connection: Connection, { live }: LanguageTables): (row: LiveInterval) => void {
  const add = statement(
    connection,
    `INSERT OR REPLACE INTO ${live}
       (entry, language, starts, ends, revision, shared_revision) VALUES (?, ?, ?, ?, ?, ?)`,
  );
  return (r) => void add.run(r.entry, r.language, r.from, r.to, r.revision, r.sharedRevision);
}

function addressAdder(
  connection: Connection,
  { address }: LanguageTables,
): (row: AddressRow) => void {
  const add = statement(
    connection,
    `INSERT OR REPLACE INTO ${address}
       (path, language, entry, starts, ends, role, base) VALUES (?, ?, ?, ?, ?, ?, ?)`,
  );
  return (r) => void add.run(r.path, r.language, r.entry, r.from, r.to, r.role, r.base);
}

function writeRuns(
  connection: Connection,
  tables: LanguageTables,
  runs: ReadonlyMap<string, LiveInterval[]>,
  published: Timeline['published'],
): void {
  const { live } = tables;
  const drop = statement(connection, `DELETE FROM ${live} WHERE entry = ? AND ends IS NULL`);
  const add = liveAdder(connection, tables);
  const mark = statement(
    connection,
    `UPDATE entry SET published = ?, unpublished = NOT EXISTS (SELECT 1 FROM live_interval AS l
       WHERE l.entry = entry.id AND entry.newest IN (l.revision, l.shared_revision)) WHERE id = ?`,
  );
  for (const [id, rows] of runs) {
    drop.run(id);
    rows.forEach(add);
    if (isOwn(live)) mark.run(published.get(id) ?? null, id);
  }
}

type OpenAddress = Pick<AddressRow, 'path' | 'from' | 'role' | 'base'> & { row: number };

/** Writes addresses in place of those that are open; where only the end is new, only that. */
function writeAddresses(
  connection: Connection,
  tables: LanguageTables,
  touched: ReadonlySet<string>,
  addresses: readonly AddressRow[],
): void {
  const open = statement<OpenAddress>(
    connection,
    `SELECT rowid AS "row", path, starts AS "from", role, base FROM ${tables.address}
       WHERE entry = ? AND ends IS NULL`,
  );
  const end = statement(connection, `UPDATE ${tables.address} SET ends = ? WHERE rowid = ?`);
  const drop = statement(connection, `DELETE FROM ${tables.address} WHERE rowid = ?`);
  const add = addressAdder(connection, tables);
  const own = new Map<string, AddressRow[]>([...touched].map((id) => [id, []]));
  for (const row of addresses) own.get(row.entry)!.push(row);
  for (const [id, rows] of own) {
    const stand = open.all(id);
    const now = rows.map((row) => stand.find((o) => isSameAddress(o, row)));
    for (const former of stand) if (!now.includes(former)) drop.run(former.row);
    rows.forEach((row, i) => {
      if (!now[i]) add(row);
      else if (row.to !== null) end.run(row.to, now[i].row);
    });
  }
}

function isSameAddress(a: OpenAddress, b: AddressRow): boolean {
  return a.path === b.path && a.from === b.from && a.role === b.role && a.base === b.base;
}

function writeRefusals(
  connection: Connection,
  { refusal }: LanguageTables,
  refusals: readonly Refusal[],
): void {
  const add = statement(
    connection,
    `INSERT OR REPLACE INTO ${refusal}
       (entry, at, code, message, fix, cancelled, base, by_hand) VALUES (?, ?, ?, ?, ?, ?, ?, ?)`,
  );
  for (const { entry, at, code, message, fix, cancelled, base, byHand } of refusals)
    add.run(entry, at, code, message, fix, cancelled ? 1 : 0, base, byHand ? 1 : 0);
}
