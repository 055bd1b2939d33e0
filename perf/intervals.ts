import assert from 'node:assert/strict';
import { existsSync, mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { COMMAND_LINE } from '@/server/permit.ts';
import { loadSite } from '@/server/commands/load-site.ts';
import { openDatabase } from '@/server/db/connection.ts';
import { readSite } from '@/server/files/read-site.ts';
import { freshenDerivedTables } from '@/server/store/freshen.ts';
import { SiteView } from '@/server/queries/site-view.ts';
import { Validity } from '@/core/time/interval.ts';
import { type PerfRow, row, share } from './measure.ts';

const DAY = 86_400_000;
const ENTRIES = 10_000;
const INTERVALS = 20;
const SIZE = 10;
const OFFSET = 36 * SIZE;

/** A numbered sequence that looks random and is the same every time. */
function sequence(): () => number {
  let state = 1;
  return () => (state = (state * 1_103_515_245 + 12_345) % 2_147_483_648) / 2_147_483_648;
}

function csv(from: number): string {
  const next = sequence();
  const day = (n: number): string =>
    new Date(from + Math.floor(n) * DAY).toISOString().slice(0, 10);
  const lines = Array.from({ length: ENTRIES }, (_, i) => {
    const live = Array.from(
      { length: INTERVALS },
      (_, k) => `${day(k * 20 + next() * 5)}/${day(k * 20 + 8 + next() * 10)}`,
    ).join(';');
    const traits = ['t0', 't1', 't2', 't3', 't4'].filter(() => next() < 0.4).join(';');
    return `e${i},${live},Name ${Math.floor(next() * 1e6).toString(36)} ${i},${Math.floor(next() * 10)},${traits}`;
  });
  return `entry.id,entry.live,title,stock,traits\n${lines.join('\n')}\n`;
}

async function prepare(folder: string, data: string): Promise<void> {
  if (existsSync(join(data, 'loaded'))) return;
  console.log(
    `Making and loading a site of ${ENTRIES} entries with ${INTERVALS} intervals each (once) …`,
  );
  const files: Record<string, string> = {
    'site.yaml':
      'name: Intervals\nurl: https://intervals.example\nzone: Europe/Dublin\nlanguage: en\n',
    'subjects/traits.yaml': `key: traits\nkind: tags\nsubjects: [${[0, 1, 2, 3, 4].map((i) => `{ key: t${i}, name: T${i} }`).join(', ')}]\n`,
    'types/n.yaml':
      'key: n\naddress: /n/{title}\nfields:\n  - { key: title, kind: text }\n  - { key: stock, kind: number }\n  - { key: traits, kind: tags, set: traits }\n',
    'listings/tagged.yaml': `key: tagged\ntype: n\npageSize: ${SIZE}\nwhere: { all: [{ field: traits, op: is, value: t3 }, { field: stock, op: more-than, value: 2 }] }\nsort: [title]\n`,
    'entries/n.csv': csv(Date.now() - 200 * DAY),
  };
  for (const [file, text] of Object.entries(files)) {
    mkdirSync(join(folder, file, '..'), { recursive: true });
    writeFileSync(join(folder, file), text);
  }
  const { site, issues } = await readSite(folder, Date.now());
  if (!site) throw new Error(JSON.stringify(issues.slice(0, 5)));
  const connection = openDatabase(join(data, 'site.db'));
  const result = loadSite(connection, data, COMMAND_LINE, site, Date.now());
  if (!result.ok) throw new Error(JSON.stringify(result.issues.slice(0, 5)));
  connection.close();
  writeFileSync(join(data, 'loaded'), '');
}

/**
 * Page 37 with total of a list by one tag and a number, sorted by text, of entries with many
 * intervals, against SQLite by hand.
 */
export async function measureIntervals(cache: string): Promise<PerfRow> {
  const data = join(cache, 'intervals-data');
  await prepare(join(cache, 'intervals-site'), data);
  const connection = openDatabase(join(data, 'site.db'));
  freshenDerivedTables(connection, Date.now());
  const { driver } = connection;
  const now = Date.now();
  const view = new SiteView(connection);
  const { site } = view.at(now)!;
  const plan = site.listings.get('tagged')!;
  driver.exec(
    `CREATE TEMP TABLE hand AS SELECT m.key, r.s_title AS title, r.created, r.entry, r.c_stock AS stock, r.starts, r.ends FROM index_n AS r JOIN member_n AS m ON m.entry = r.entry AND m.starts = r.starts WHERE m.field = 'traits' AND r.ends > ${now}`,
  );
  driver.exec(
    'CREATE INDEX temp.hand_order ON hand (key, title, created, entry, starts, ends, stock)',
  );
  const where = `key = 't3' AND starts <= ? AND (ends IS NULL OR ends > ?) AND stock > 2`;
  const page = driver
    .prepare(
      `SELECT entry FROM hand WHERE ${where} ORDER BY title, created, entry LIMIT ${SIZE} OFFSET ${OFFSET}`,
    )
    .pluck();
  const count = driver.prepare(`SELECT count(*) FROM hand WHERE ${where}`).pluck();
  const byHand = (): unknown => ({ ids: page.all(now, now), total: count.get(now, now) });
  const ours = (): unknown => view.readerOf(site).listing(plan, new Validity(now), OFFSET, SIZE);
  assert.deepEqual(ours(), byHand());
  const times = (make: () => unknown) => (): void => {
    for (let i = 0; i < 10; i++) make();
  };
  const ratio = share(times(ours), times(byHand));
  connection.close();
  return row(
    `page 37 with total by one tag, text sort, ${ENTRIES.toLocaleString('en')} entries with ${INTERVALS} intervals each, against SQL by hand (time)`,
    ratio,
    '≤',
    1.25,
  );
}
