import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { plansBeside } from '@/core/listing/fan-out.ts';
import { partsOf } from '@/core/listing/parts.ts';
import { type ListingPlan, namedBy } from '@/core/listing/plan.ts';
import { Validity } from '@/core/time/interval.ts';
import { type Connection, openDatabase } from '@/server/db/connection.ts';
import { loadSite } from '@/server/commands/load-site.ts';
import { readSite } from '@/server/files/read-site.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { SiteView } from '@/server/queries/site-view.ts';

const NOW = Date.parse('2026-11-24T12:00:00Z');
let connection: Connection;
let view: SiteView;
let folder: string;

beforeAll(async () => {
  const data = (folder = mkdtempSync(join(tmpdir(), 'bontel-plans-')));
  connection = openDatabase(join(data, 'site.db'));
  const { site } = await readSite('demo/site', NOW);
  const loaded = loadSite(connection, data, COMMAND_LINE, site!, NOW);
  expect(loaded.ok).toBe(true);
  view = new SiteView(connection);
});
afterAll(() => {
  connection.close();
  rmSync(folder, { recursive: true, force: true });
});

/** The statements that something has SQLite read entries of lists by. */
function statementsOf(act: () => void, { driver }: Connection = connection): string[] {
  const prepare = driver.prepare.bind(driver);
  const found: string[] = [];
  driver.prepare = ((sql: string) => {
    found.push(sql);
    return prepare(sql);
  }) as typeof driver.prepare;
  try {
    act();
  } finally {
    driver.prepare = prepare;
  }
  return found.filter((sql) => sql.includes(' AS r ') && /LIMIT|count\(\*\)/.test(sql));
}

function planOf(sql: string): string[] {
  const blanks = sql.replace(/'[^']*'/g, '').match(/\?/g) ?? [];
  return connection.driver
    .prepare(`EXPLAIN QUERY PLAN ${sql}`)
    .all(...blanks.map(() => null))
    .map((row) => (row as { detail: string }).detail);
}

/** Each listing of the demo, in each order that it is read in, by what it is called. */
const everyPlan = (): [string, ListingPlan][] =>
  [...view.at(NOW)!.site.listings.values()].flatMap((plan) =>
    [plan, ...plansBeside(plan)].map((one): [string, ListingPlan] => [one.listing.id, one]),
  );

test('every listing of the demo is read by its index, never by a scan, and in its order', () => {
  const { reader } = view.at(NOW)!;
  let looked = 0;
  for (const [name, plan] of everyPlan()) {
    const isNamed = partsOf(plan).some((part) => namedBy(part.filter) !== null);
    const isSorted = isNamed || plan.also.length > 0 || plan.sort.some(({ from }) => from);
    const read = statementsOf(() => reader.listing(plan, new Validity(NOW), 12, 12));
    for (const sql of read) {
      const details = planOf(sql);
      const ofEntries = details.filter((detail) => /\b[SR]\w+ r\b/.test(detail));
      expect({ name, sql, ofEntries: ofEntries.length > 0 }).toMatchObject({ ofEntries: true });
      for (const detail of ofEntries)
        expect({ name, detail }).toEqual({
          name,
          detail: expect.stringMatching(/INDEX|PRIMARY KEY/),
        });
      const sorts = details.filter((detail) => detail.includes('TEMP B-TREE FOR ORDER BY'));
      if (!isSorted) expect({ name, sorts }).toEqual({ name, sorts: [] });
      looked += 1;
    }
  }
  expect(looked).toBeGreaterThan(20);
});

test('how many a list has is not counted one by one where it asks for one key at most', () => {
  const another = openDatabase(join(folder, 'site.db')); // which has read nothing so far
  try {
    const { site, reader } = new SiteView(another).at(NOW)!;
    const isCounted = (name: string): boolean => {
      const plan = site.listings.get(name)!;
      const read = statementsOf(() => reader.listing(plan, new Validity(NOW), 0, 1), another);
      expect(read.length).toBeGreaterThan(1);
      return read.some((sql) => sql.startsWith('SELECT count(*)'));
    };
    const counted = ['all-varieties', 'growers', 'latest-notices', 'search', 'coming-up'].filter(
      isCounted,
    );
    expect(counted).toEqual(['coming-up']);
  } finally {
    another.close();
  }
});
