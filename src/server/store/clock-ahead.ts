import { readKey } from '@/core/forecast/read-set.ts';
import type { Instant } from '@/core/time/interval.ts';
import { DatabaseProblem } from '../db/problem.ts';
import type { Connection } from '../db/connection.ts';
import { designsOf } from './design-store.ts';
import { derive } from './derive.ts';
import { statement } from './statement.ts';
import { raisePublic, settledInstant } from './write.ts';

/** What was written while the machine's clock stood ahead of an instant. */
export interface WrittenAhead {
  /** Instant of the last write, ms UTC. */
  last: Instant;
  revisions: { entry: string; name: string; saved: Instant }[];
  /** Publications and retirements done at once then. */
  acts: { entry: string; action: string; at: Instant }[];
  designs: number;
}

/** What is dated later than an instant although it was done at once. */
export function writtenAhead(connection: Connection, now: Instant): WrittenAhead {
  const all = <Row>(sql: string): Row[] => statement<Row>(connection, sql).all(now);
  return {
    last: settledInstant(connection),
    revisions: all<WrittenAhead['revisions'][number]>(
      'SELECT entry, name, saved FROM revision WHERE saved > ? ORDER BY saved',
    ),
    acts: all<WrittenAhead['acts'][number]>(
      "SELECT entry, action, at FROM planned_change WHERE at > ? AND local IS NULL AND person <> '' ORDER BY at",
    ),
    designs: all('SELECT id FROM design_version WHERE saved > ?').length,
  };
}

/** The instants that are dated anew, by table and column. */
const MOVED = [
  ['revision', 'saved'],
  ['planned_change', 'at'],
  ['design_version', 'saved'],
  ['design_version', 'starts'],
  ['entry', 'created'],
  ['entry', 'deleted'],
  ['subject', 'starts'],
  ['subject', 'ends'],
] as const;

/**
 * Dates what was written ahead of an instant to that instant, in the order in which it was done,
 * and works out anew what follows from it. What was planned for later stays planned.
 */
export function moveToNow(connection: Connection, now: Instant): void {
  const { driver } = connection;
  const last = settledInstant(connection);
  const move = driver.transaction(() => {
    const ahead = writtenAhead(connection, now);
    const gone = statement<{ entry: string }>(
      connection,
      'SELECT id AS entry FROM entry WHERE deleted > ? OR created > ?',
    );
    const touched = new Set(
      [...ahead.revisions, ...ahead.acts, ...gone.all(now, now)].map((r) => r.entry),
    );
    const instants = driver
      .prepare<unknown[], Instant>(
        `SELECT saved AS t FROM revision WHERE saved > @now UNION SELECT at FROM planned_change WHERE at > @now AND at <= @last AND local IS NULL UNION SELECT saved FROM design_version WHERE saved > @now UNION SELECT created FROM entry WHERE created > @now UNION SELECT deleted FROM entry WHERE deleted > @now UNION SELECT starts FROM subject WHERE starts > @now UNION SELECT ends FROM subject WHERE ends > @now ORDER BY t`,
      )
      .pluck()
      .all({ now, last });
    const places = new Map(instants.map((t, i) => [t, now - instants.length + 1 + i]));
    for (const [table, column] of MOVED) {
      const own = table === 'planned_change' ? 'AND local IS NULL' : '';
      const set = driver.prepare(`UPDATE ${table} SET ${column} = ? WHERE ${column} = ? ${own}`);
      for (const [from, to] of places) set.run(to, from);
    }
    statement(connection, `UPDATE meta SET value = ? WHERE key = 'settled'`).run(
      String(now - instants.length),
    );
    const released = designsOf(connection).at(now);
    if (!released) throw new DatabaseProblem('There is no site yet.', 'Load one first.');
    for (const at of [...new Set(places.values())]) {
      derive(connection, { site: released.site, settled: at, touched, everybody: true });
      statement(connection, `UPDATE meta SET value = ? WHERE key = 'settled'`).run(String(at));
    }
    raisePublic(connection, [readKey.design, readKey.everything]);
  });
  move.immediate();
}
