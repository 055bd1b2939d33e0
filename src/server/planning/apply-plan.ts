import type { Result } from '@/core/issue.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { designsOf } from '../store/design-store.ts';
import { designsFrom } from '../store/designs-ahead.ts';
import { indexTable, memberTable, quoted } from '../store/index-columns.ts';
import { keptTable } from '../store/kept-counts.ts';
import { dropWordTables, foundTable, wordTable } from '../store/word-tables.ts';
import { ensureNewest } from '../store/newest/ensure-newest.ts';
import { noteNewest } from '../store/newest/write-newest.ts';
import { notePerson } from '../store/persons.ts';
import { languagesMade, makeTablesIn, tablesIn } from '../store/language-tables.ts';
import { statement } from '../store/statement.ts';
import { raiseBench, raisePublic, write } from '../store/write.ts';
import { type PlannedWrite, generationsOf } from './plan-write.ts';
import { type MovedInstant, movedInstants } from './own-instants.ts';
import {
  type Numbering,
  type PlannedTable,
  changedTable,
  columnsOf,
  lastNumbers,
  movedValue,
  notedKeys,
  putTable,
} from './tables.ts';

/** What was planned does not hold any more: somebody wrote, or the clock passed something. */
export class PlanOvertaken extends Error {}

/**
 * Has what was done on a copy hold in the database itself, in one transaction that copies rows and
 * works nothing out. Its instant is that of this write.
 * @throws PlanOvertaken where it has to be planned anew; nothing is changed then
 */
export function applyPlan(
  connection: Connection,
  plan: PlannedWrite,
  wallClock: Instant,
): Result<unknown> {
  const { driver } = connection;
  driver.prepare('ATTACH ? AS plan').run(plan.file);
  // The log is copied back by a later write; what rows name was there when they were planned.
  driver.pragma('wal_autocheckpoint = 0');
  driver.pragma('foreign_keys = OFF');
  try {
    return write(connection, wallClock, (at) => {
      const instants = movedInstants(plan.planned, at, plan.spans);
      check(connection, plan, instants);
      notePerson(connection, plan.actor);
      const numbers = numberings(connection, plan);
      const meanwhile = savedSince(connection, plan.copied);
      const copied = copyRows(connection, plan, { numbers, instants });
      driver.exec(UNPUBLISHED);
      tellChanges(connection, plan);
      noteMeanwhile(connection, meanwhile, at);
      for (const sql of copied) driver.exec(sql);
      return { ok: true, value: moved(plan, numbers, at) };
    });
  } catch (error) {
    designsOf(connection).forget();
    if (String((error as { code?: string }).code).startsWith('SQLITE_CONSTRAINT'))
      throw new PlanOvertaken('another write took a place that was planned for', { cause: error });
    throw error;
  } finally {
    driver.pragma('foreign_keys = ON');
    driver.pragma('wal_autocheckpoint = 1000');
    driver.exec('DETACH plan');
  }
}

/** Columns that say when something changes by the clock. */
const BOUNDS: [table: string, column: string][] = [
  ['design_version', 'starts'],
  ...['live_interval', 'address', 'by_hand'].flatMap((table): [string, string][] => [
    [table, 'starts'],
    [table, 'ends'],
  ]),
];

/** @throws PlanOvertaken */
function check(
  connection: Connection,
  { stands }: PlannedWrite,
  instants: readonly MovedInstant[],
): void {
  const now = generationsOf(connection);
  if (now.public !== stands.public || now.bench !== stands.bench)
    throw new PlanOvertaken('something was published or put on the bench meanwhile');
  if (instants.some(({ otherDay }) => otherDay))
    throw new PlanOvertaken('another day has begun meanwhile');
  const own = instants.map(({ planned }) => planned).join(', ');
  for (const schema of ['main', 'plan'])
    for (const [table, column] of BOUNDS) {
      const passed = connection.driver.prepare(`SELECT 1 FROM ${schema}.${table}
        WHERE ${column} > ? AND ${column} <= ? AND ${column} NOT IN (${own}) LIMIT 1`);
      if (instants.some(({ planned, at }) => passed.get(planned, at)))
        throw new PlanOvertaken('something changes by the clock meanwhile');
    }
}

const UNPUBLISHED = `UPDATE entry SET unpublished = NOT EXISTS (SELECT 1 FROM live_interval AS l
    WHERE l.entry = entry.id AND entry.newest IN (l.revision, l.shared_revision))
  WHERE rowid IN (SELECT k1 FROM plan.changed_row WHERE of = 'entry')`;

/** Numbers that rows have by now, by the names of tables. */
type Numberings = ReadonlyMap<string, Numbering>;

/** What is not the same in the database as it is in the plan. */
interface Moves {
  numbers: Numberings;
  instants: readonly MovedInstant[];
}

/** Whoever wrote meanwhile has taken numbers that rows of the plan have, too: those are moved. */
function numberings(connection: Connection, { tables, lasts }: PlannedWrite): Numberings {
  const now = lastNumbers(connection, tables);
  return new Map(
    [...lasts].map(([name, last]) => [
      name,
      { last, moved: Math.max(0, (now.get(name) ?? 0) - last) },
    ]),
  );
}

/** Copies what changed; gives the statements that make the indexes of tables made anew. */
function copyRows(connection: Connection, plan: PlannedWrite, moves: Moves): string[] {
  const { driver } = connection;
  const anew = madeAnew(connection);
  const made = new Set(anew.flatMap(({ tables }) => tables.map(({ name }) => name)));
  for (const table of plan.tables)
    if (!made.has(table.name)) for (const run of changesOf(connection, table, moves)) run();
  copyLanguages(connection, moves);
  for (const { drop, make, tables } of anew) {
    driver.exec(`${drop}; ${make}`);
    for (const table of tables) insert(connection, table, table.name, moves)();
  }
  for (const kind of ['index:%', 'newest:%'])
    driver.exec(`DELETE FROM main.meta WHERE key LIKE '${kind}';
      INSERT INTO main.meta SELECT key, value FROM plan.meta WHERE key LIKE '${kind}'`);
  return indexChanges(connection);
}

/** Copies what was derived in languages that are new in the copy. */
function copyLanguages(connection: Connection, moves: Moves): void {
  const there = languagesMade(connection);
  const planned = connection.driver
    .prepare<unknown[], string>(
      `SELECT substr(name, 15) FROM plan.sqlite_master
         WHERE type = 'table' AND name GLOB 'live_interval:*'`,
    )
    .pluck()
    .all();
  for (const language of planned.filter((id) => !there.includes(id))) {
    makeTablesIn(connection, language);
    const { live, address, refusal } = tablesIn(language);
    for (const name of [live, address, refusal])
      insert(connection, { name, key: [], changes: [] }, name, moves)();
  }
}

/** A type's derived tables as they were made anew in the copy. */
interface MadeAnew {
  /** The statements that take away those there were, and that make the new ones. */
  drop: string;
  make: string;
  tables: PlannedTable[];
}

/** The types whose derived tables were made anew in the copy. */
function madeAnew({ driver }: Connection): MadeAnew[] {
  const types = driver
    .prepare<unknown[], string>(
      `SELECT substr(p.key, 7) FROM plan.meta AS p LEFT JOIN main.meta AS m ON m.key = p.key
         WHERE p.key LIKE 'index:%' AND m.value IS NOT p.value`,
    )
    .pluck()
    .all();
  const sql = driver
    .prepare<unknown[], string>(
      `SELECT sql FROM plan.sqlite_master WHERE name = @name AND type = 'table' OR
         tbl_name = @name AND type = 'trigger' AND (name GLOB 'words.*' OR name GLOB 'kept.*')
         ORDER BY type`,
    )
    .pluck();
  return types.map((id) => {
    const [index, member, words] = [indexTable({ id }), memberTable({ id }), wordTable({ id })];
    const kept = keptTable({ id });
    const statements = [index, member, words, foundTable({ id }), kept].map((name) =>
      sql.all({ name: bare(name) }),
    );
    const isSearched = statements[2]!.length > 0;
    const tables = [index, member].map((name) => ({ name, key: [], changes: [] }));
    const searched = { name: words, key: [], changes: [], isNumbered: true };
    // Triggers name tables that others make.
    const [made, triggers] = [
      statements.flatMap(([table]) => table ?? []),
      statements.flatMap((all) => all.slice(1)),
    ];
    return {
      drop: [
        ...[index, member, kept].map((name) => `DROP TABLE IF EXISTS main.${name}`),
        dropWordTables({ id }),
      ].join(';'),
      make: [...made, ...triggers].join(';'),
      tables: isSearched ? [...tables, searched] : tables,
    };
  });
}

const bare = (name: string): string => name.slice(1, -1).replaceAll('""', '"');

/** Rows that went or came, and rows that were changed in place. */
function changesOf(connection: Connection, table: PlannedTable, moves: Moves): (() => void)[] {
  const { name, key, changes, numbersOf } = table;
  const whole = notedKeys(table, 'plan', 1);
  // A number above the last is that of somebody else's row here.
  const known = key[0] === 'rowid' ? ['rowid', name] : ['id', numbersOf];
  const last = moves.numbers.get(known[1] ?? '')?.last;
  const there = last === undefined ? '' : `AND ${known[0]} <= ${last}`;
  const drop = `DELETE FROM main.${name} WHERE (${key.join(', ')}) IN (${whole}) ${there}`;
  const runs = [
    () => void connection.driver.prepare(drop).run(),
    insert(connection, table, putTable(table), moves),
  ];
  if (changes.length === 0) return runs;
  const sets = changes.map((column) => `${column} = ${movedValue(column, moves.instants)}`);
  const same = key.map((column, i) => `p.k${i + 1} = t.${column}`).join(' AND ');
  const update = `UPDATE main.${name} AS t SET ${sets.join(', ')} FROM plan.${changedTable(table)} AS p
    WHERE ${same}`;
  return [...runs, () => void connection.driver.prepare(update).run()];
}

/** Puts all rows in that stand in a table of the plan. */
function insert(
  connection: Connection,
  { name, numbersOf, isNumbered }: PlannedTable,
  from: string,
  { numbers, instants }: Moves,
): () => void {
  const all = columnsOf(connection, 'plan', name);
  const columns = isNumbered ? all.filter((column) => column !== 'id') : all;
  const numbering = numbers.get(numbersOf ?? '');
  const values = columns.map((column) =>
    numbering && column === 'id' ? movedNumber(numbering) : movedValue(column, instants),
  );
  const sql = `INSERT INTO main.${name} (${columns.map(quoted).join(', ')})
    SELECT ${values.join(', ')} FROM plan.${from} AS p`;
  return () => void connection.driver.prepare(sql).run();
}

function movedNumber({ last, moved: by }: Numbering): string {
  return `CASE WHEN p.id > ${last} THEN p.id + ${by} ELSE p.id END`;
}

/** Indexes of derived tables that the copy has and the database does not, or the other way. */
function indexChanges({ driver }: Connection): string[] {
  const indexes = (schema: string): Map<string, string> =>
    new Map(
      driver
        .prepare<unknown[], [string, string]>(
          `SELECT name, sql FROM ${schema}.sqlite_master WHERE type = 'index' AND sql IS NOT NULL
             AND (tbl_name LIKE 'index\\_%' ESCAPE '\\' OR tbl_name LIKE 'member\\_%' ESCAPE '\\')`,
        )
        .raw()
        .all(),
    );
  const [now, wanted] = [indexes('main'), indexes('plan')];
  return [
    ...[...now.keys()].filter((name) => !wanted.has(name)).map((n) => `DROP INDEX ${quoted(n)}`),
    ...[...wanted].flatMap(([name, sql]) => (now.has(name) ? [] : [sql])),
  ];
}

/** Entries that others saved since an instant. */
function savedSince(connection: Connection, copied: Instant): string[] {
  const sql = 'SELECT DISTINCT entry FROM revision WHERE saved > ?';
  return statement<string>(connection, sql).pluck().all(copied);
}

/** Notes what was saved since the copy was made: what is noted there is of an earlier revision. */
function noteMeanwhile(connection: Connection, saved: readonly string[], at: Instant): void {
  const released = designsOf(connection).at(at);
  if (saved.length === 0 || !released) return;
  const { by } = ensureNewest(connection, designsFrom(connection, at, released.site));
  const note = noteNewest(connection, by);
  for (const id of saved) note(id);
}

/** Raises the counters that the write raised in the copy, with what it told of its changes. */
function tellChanges(connection: Connection, { stands }: PlannedWrite): void {
  const { driver } = connection;
  const told = driver
    .prepare<unknown[], string>('SELECT key FROM plan.public_change WHERE generation > ?')
    .pluck();
  raisePublic(connection, told.all(stands.public));
  const bench = driver
    .prepare<unknown[], number>(`SELECT generation FROM plan.site_change WHERE scope = 'bench'`)
    .pluck()
    .get();
  if ((bench ?? 0) > stands.bench) raiseBench(connection);
}

/** A result with the instant of the write in place of the planned one, and numbers as they are. */
function moved({ value, planned }: PlannedWrite, numbers: Numberings, at: Instant): unknown {
  if (typeof value !== 'object' || value === null) return value;
  const own = { ...value };
  if ('at' in own && own.at === planned) own.at = at;
  if ('change' in own && typeof own.change === 'number')
    own.change += numbers.get('bulk_change')?.moved ?? 0;
  return own;
}
