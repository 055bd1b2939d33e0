import assert from 'node:assert/strict';
import { listingSpec } from '@/core/design/listing-spec.ts';
import { planListing } from '@/core/listing/planner.ts';
import { Validity } from '@/core/time/interval.ts';
import type { SiteView } from '@/server/queries/site-view.ts';
import { type PerfRow, row, share } from './measure.ts';

const SIZE = 12;
const OFFSET = 36 * SIZE;

/**
 * Page 37 with total of a filtered listing sorted by two keys, and path → entry, against SQLite
 * by hand.
 */
export function measureQueries(view: SiteView): PerfRow[] {
  return [measureListing(view), measureAddress(view)];
}

function measureListing(view: SiteView): PerfRow {
  const now = Date.now();
  const { site } = view.at(now)!;
  const { plan } = planListing(listingSpec.parse(MEASURED), site.design);
  const { driver } = view.connection;
  const byHand = listingByHand(driver, now);
  const ours = (): { ids: string[]; total: number } =>
    view.readerOf(site).listing(plan!, new Validity(now), OFFSET, SIZE);
  assert.deepEqual(ours(), byHand());
  const times = (make: () => unknown) => (): void => {
    for (let i = 0; i < 15; i++) make();
  };
  const ratio = share(times(ours), times(byHand));
  return row(
    'page 37 with total, filtered, two sort keys, 100,000 entries, against SQL by hand (time)',
    ratio,
    '≤',
    1.15,
  );
}

/** The same listing over a table and an index made for it alone. */
function listingByHand(
  driver: SiteView['connection']['driver'],
  now: number,
): () => { ids: string[]; total: number } {
  fillByHand(driver);
  const live = `FROM hand WHERE difficulty = 'easy' AND starts <= ? AND (ends IS NULL OR ends > ?)`;
  const order = `ORDER BY stock DESC, title, created, entry LIMIT ${SIZE} OFFSET ${OFFSET}`;
  const page = driver.prepare(`SELECT entry ${live} ${order}`).pluck();
  const count = driver.prepare(`SELECT count(*) ${live}`).pluck();
  return () => ({
    ids: page.all(now, now) as string[],
    total: count.get(now, now) as number,
  });
}

function fillByHand(driver: SiteView['connection']['driver']): void {
  driver.exec(`CREATE TEMP TABLE hand (stock INTEGER NOT NULL, title TEXT NOT NULL,
    created INTEGER NOT NULL, entry TEXT NOT NULL, difficulty TEXT NOT NULL,
    starts INTEGER NOT NULL, ends INTEGER)`);
  const rows = driver
    .prepare(
      `SELECT c_stock AS stock, s_title AS title, created, entry, c_difficulty AS difficulty,
         starts, ends FROM index_variety WHERE open = 1`,
    )
    .all() as { title: string; stock: number | null }[];
  assert.ok(rows.length > 100_000 && rows.every((r) => r.stock !== null && r.title !== ''));
  const insert = driver.prepare(
    'INSERT INTO hand VALUES (@stock, @title, @created, @entry, @difficulty, @starts, @ends)',
  );
  driver.transaction(() => rows.forEach((r) => insert.run(r)))();
  driver.exec(`CREATE INDEX temp.hand_order
    ON hand (difficulty, stock DESC, title, created, entry, starts, ends)`);
}

/** The listing measured; the measured site has it, so that it has its index. */
export const MEASURED = {
  key: 'measured',
  type: 'variety',
  pageSize: SIZE,
  where: { field: 'difficulty', op: 'is', value: 'easy' },
  sort: ['-stock', 'title'],
};

function measureAddress(view: SiteView): PerfRow {
  const now = Date.now();
  const { reader } = view.at(now)!;
  const { driver } = view.connection;
  const rows = driver
    .prepare(
      `SELECT path, entry FROM address WHERE role = 'current' AND starts <= ? AND (ends IS NULL OR ends > ?)`,
    )
    .all(now, now) as { path: string; entry: string }[];
  driver.exec(
    'DROP TABLE IF EXISTS perf_bare; CREATE TABLE perf_bare (path TEXT PRIMARY KEY, entry TEXT NOT NULL) WITHOUT ROWID',
  );
  const insert = driver.prepare('INSERT INTO perf_bare VALUES (@path, @entry)');
  driver.transaction(() => rows.forEach((r) => insert.run(r)))();
  const bare = driver.prepare('SELECT entry FROM perf_bare WHERE path = ?').pluck();
  const sample = rows.filter((_, i) => i % 5 === 0).map((r) => r.path);
  for (const path of sample.slice(0, 500))
    assert.equal(reader.holders(path, new Validity(now)).current!.entry, bare.get(path));
  const validity = new Validity(now);
  const ratio = share(
    () => sample.forEach((path) => reader.holders(path, validity)),
    () => sample.forEach((path) => bare.get(path)),
  );
  return row(
    'path → entry as of an instant, against a bare primary-key lookup (time)',
    ratio,
    '≤',
    1.3,
  );
}
