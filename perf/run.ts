// npm run perf: ratios within one run, and some waits, printed as a table and written to
// perf/results.json.
import { existsSync, mkdirSync, writeFileSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { COMMAND_LINE } from '@/server/permit.ts';
import { loadSite } from '@/server/commands/load-site.ts';
import { openDatabase } from '@/server/db/connection.ts';
import { readSite } from '@/server/files/read-site.ts';
import { freshenDerivedTables } from '@/server/store/freshen.ts';
import { SiteView } from '@/server/queries/site-view.ts';
import { buildOnce } from '../scripts/shared.mjs';
import { measureBundled } from './bundled.ts';
import { measureContent } from './content.ts';
import { measureHttp } from './http.ts';
import { measureIntervals } from './intervals.ts';
import { measureKeystroke } from './keystroke.ts';
import { measureMoving } from './moving.ts';
import { LISTS, measureGrowth, measureLists } from './lists.ts';
import { MEASURED, measureQueries } from './queries.ts';
import { measureReach } from './reach.ts';
import { measureSaving } from './saving.ts';
import { measureWrites } from './writes.ts';

const root = fileURLToPath(new URL('..', import.meta.url));
const cache = join(root, 'perf/.cache');
const folder = join(cache, 'site');
const data = join(cache, 'data');

/** A site of 100,000 varieties, made and loaded once. */
async function prepare(): Promise<void> {
  if (existsSync(join(data, 'loaded'))) return;
  mkdirSync(cache, { recursive: true });
  console.log('Making and loading a site of 100,000 varieties (once) …');
  const made = spawnSync(
    process.execPath,
    ['--import', 'tsx', 'demo/generator/main.ts', '--varieties', '100000', '--out', folder],
    { cwd: root, stdio: 'inherit' },
  );
  if (made.status !== 0) throw new Error('The generator failed.');
  writeFileSync(join(folder, 'listings/measured.json'), JSON.stringify(MEASURED));
  for (const [key, list] of Object.entries(LISTS)) {
    const spec = { key: `measured-${key}`, ...list };
    writeFileSync(join(folder, `listings/measured-${key}.json`), JSON.stringify(spec));
  }
  const { site, issues } = await readSite(folder, Date.now());
  if (!site) throw new Error(JSON.stringify(issues.slice(0, 5)));
  const connection = openDatabase(join(data, 'site.db'));
  const started = Date.now();
  const result = loadSite(connection, data, COMMAND_LINE, site, Date.now());
  if (!result.ok) throw new Error(JSON.stringify(result.issues.slice(0, 5)));
  connection.close();
  console.log(`Loaded in ${Math.round((Date.now() - started) / 1000)} s.`);
  writeFileSync(join(data, 'loaded'), '');
}

await buildOnce();
await prepare();
const connection = openDatabase(join(data, 'site.db'));
freshenDerivedTables(connection, Date.now());
const rows = [
  ...(await measureBundled(root)),
  await measureHttp(data),
  ...measureQueries(new SiteView(connection)),
  ...measureLists(new SiteView(connection)),
  ...measureContent(new SiteView(connection)),
  measureKeystroke(new SiteView(connection)),
  await measureIntervals(cache),
];
// A site of 1,000,000 entries takes long to load: it is measured where one is named.
const million = process.env['BONTEL_MILLION'];
if (million) {
  const large = new SiteView(openDatabase(join(million, 'site.db')));
  rows.push(...measureGrowth(new SiteView(connection), large));
}
connection.close();
rows.push(
  ...(await measureWrites(data, cache)),
  ...(await measureMoving(data, cache)),
  ...measureReach(data, cache),
  ...(await measureSaving(data, cache)),
);
writeFileSync(join(root, 'perf/results.json'), `${JSON.stringify(rows, null, 2)}\n`);
for (const { name, value, target, met } of rows)
  console.log(
    `${target === 'reported' ? '      ' : met ? 'met   ' : 'MISSED'}  ${String(value).padStart(7)}  ${target.padEnd(7)}  ${name}`,
  );
