import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { languagesMade, tablesIn } from '../store/language-tables.ts';
import { statement } from '../store/statement.ts';
import { iso } from './history-files.ts';

interface Tombstone {
  id: string;
  type: string;
  created: Instant;
  deleted: Instant;
  purged: Instant;
}

type Held = { path: string; starts: Instant; ends: Instant; language: string };

/** What history.yaml says of entries of which nothing is left: which addresses they held. */
export function purgedEntries(connection: Connection, language: string): object {
  const all = statement<Tombstone>(
    connection,
    'SELECT id, type, created, deleted, purged FROM entry WHERE purged IS NOT NULL ORDER BY id',
  ).all();
  const addresses = [undefined, ...languagesMade(connection)].map((id) => tablesIn(id).address);
  const held = statement<Held>(
    connection,
    `SELECT path, starts, ends, language FROM
       (${addresses.map((table) => `SELECT * FROM ${table}`).join(' UNION ALL ')})
       WHERE entry = ? ORDER BY starts, path, language`,
  );
  const purged = all.map(({ id, type, created, deleted, purged: at }) => ({
    ...{ id, type, created: iso(created) },
    ...(deleted === at ? {} : { deleted: iso(deleted) }),
    purged: iso(at),
    held: held.all(id).map(({ path, starts, ends, language: own }) => ({
      ...{ path, from: iso(starts), to: iso(ends) },
      ...(own === language ? {} : { language: own }),
    })),
  }));
  return purged.length > 0 ? { purged } : {};
}
