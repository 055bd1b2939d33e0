import { targetOf } from '@/core/design/field-values.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { type DesignsAhead, designsIn, languagesAhead, sitesOf } from './designs-ahead.ts';
import { isManyValued, memberTable, quoted, stored } from './index-columns.ts';
import { ensureIndexTables } from './index-tables.ts';
import { statement } from './statement.ts';
import { subjectAt } from './subject-store.ts';

interface Moved {
  key: string;
  into: string;
}

/**
 * Puts the members of derived tables that have some keys of a set, by its id, under the keys that
 * they count as from an instant on; their own stay beside it.
 */
export function restand(
  connection: Connection,
  asked: { designs: DesignsAhead; set: string; keys: Iterable<string>; at: Instant },
): void {
  const { designs, set, keys, at } = asked;
  const standsFor = (key: string, then: Instant): string =>
    subjectAt(connection, set, key, then)?.key ?? key;
  const left = [...keys].map((key) => ({ key, into: standsFor(key, at - 1) }));
  const merged = statement<string>(
    connection,
    'SELECT key FROM subject WHERE "set" = ? AND merged IS NOT NULL AND ends IS NULL',
  ).pluck();
  const concerned = new Set(left.flatMap(({ key, into }) => [into, standsFor(key, at)]));
  const now = merged.all(set).map((key) => ({ key, into: standsFor(key, at) }));
  const put = now.filter(({ into }) => concerned.has(into));
  const further = languagesAhead(designs).map((language) => designsIn(designs, language));
  for (const read of [designs, ...further])
    for (const { table, field } of membersOf(connection, read, set))
      moveMembers(connection, { table, field, left, put });
}

/** The member tables that hold subjects of a set, and the ids of their fields. */
function membersOf(
  connection: Connection,
  designs: DesignsAhead,
  set: string,
): { table: string; field: string }[] {
  const keys = new Set(
    sitesOf(designs).flatMap(({ setIds }) =>
      [...setIds].flatMap(([key, id]) => (id === set ? [key] : [])),
    ),
  );
  return [...ensureIndexTables(connection, designs).types.values()].flatMap((type) =>
    stored(type)
      .filter(isManyValued)
      .flatMap(({ field }) => {
        const target = targetOf(field!);
        const isOfSet = target?.of === 'subjects' && keys.has(target.set);
        return isOfSet ? [{ table: memberTable(type), field: field!.id }] : [];
      }),
  );
}

/** Takes members away from the keys they counted as, and puts them under those they count as now. */
function moveMembers(
  connection: Connection,
  { table, field, left, put }: { table: string; field: string; left: Moved[]; put: Moved[] },
): void {
  const columns = statement<string>(connection, 'SELECT name FROM pragma_table_info(?)')
    .pluck()
    .all(table.slice(1, -1));
  const rest = columns.filter((name) => name !== 'key' && name !== 'own').map(quoted);
  const drop = statement(
    connection,
    `DELETE FROM ${table} WHERE field = @field AND key = @into AND own = 0 AND (entry, starts) IN
       (SELECT entry, starts FROM ${table} WHERE field = @field AND key = @key AND own = 1)`,
  );
  const add = statement(
    connection,
    `INSERT INTO ${table} (key, own, ${rest.join(', ')})
       SELECT @into, 0, ${rest.join(', ')} FROM ${table}
       WHERE field = @field AND key = @key AND own = 1 ON CONFLICT DO NOTHING`,
  );
  for (const { key, into } of left) if (into !== key) drop.run({ field, key, into });
  for (const { key, into } of put) if (into !== key) add.run({ field, key, into });
}
