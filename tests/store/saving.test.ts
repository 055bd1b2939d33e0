import { join } from 'node:path';
import { onTestFinished, expect, test } from 'vitest';
import fc from 'fast-check';
import { loadSite } from '@/server/commands/load-site.ts';
import { type Connection, openDatabase } from '@/server/db/connection.ts';
import { readSite } from '@/server/files/read-site.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { SiteView } from '@/server/queries/site-view.ts';
import { savedFiles } from '@/server/saving/saved-files.ts';
import { saveToFolder } from '@/server/saving/to-folder.ts';
import { settledInstant } from '@/server/store/write.ts';
import { type TestSite, loadFiles, temporaryFolder } from '../helpers/folder.ts';
import { LivedSite, randomWrites } from '../helpers/random-writes.ts';
import { randomSite } from '../helpers/random-site.ts';
import { derivedRows, rebuild } from '../helpers/snapshot.ts';

type Stored = Pick<TestSite, 'connection' | 'view' | 'data'>;

/** Saves a site into a folder. */
function saved({ connection, data }: Stored, folder = join(temporaryFolder(), 'saved')): string {
  saveToFolder(savedFiles(connection, data, COMMAND_LINE), folder);
  return folder;
}

/** A saved folder loaded into a database of its own, as of the last change made in it. */
async function loaded(folder: string, now: number): Promise<Stored> {
  const data = temporaryFolder();
  const connection = openDatabase(join(data, 'site.db'));
  onTestFinished(() => connection.close());
  const { site, issues } = await readSite(folder, now);
  expect(issues).toEqual([]);
  expect(loadSite(connection, data, COMMAND_LINE, site!, now)).toMatchObject({ ok: true });
  return { connection, data, view: new SiteView(connection) };
}

/** What is stored and not derived, but for the numbers of rows. */
function storedRows({ driver }: Connection): Record<string, unknown[]> {
  const all = (sql: string): unknown[] => driver.prepare(sql).all();
  return {
    entries: all('SELECT id, type, created, author, deleted FROM entry ORDER BY id'),
    revisions: all('SELECT * FROM revision ORDER BY entry, number'),
    edges: all('SELECT * FROM reference_edge ORDER BY target, field, entry, revision'),
    plans: all(
      `SELECT entry, language, at, sequence, "action", revision, local, zone, person
         FROM planned_change ORDER BY entry, at, sequence`,
    ),
    byHand: all('SELECT entry, path, starts, ends FROM by_hand ORDER BY entry, starts, path, ends'),
    subjects: all('SELECT * FROM subject ORDER BY position'),
    media: all('SELECT * FROM media ORDER BY id'),
    designs: all('SELECT * FROM design_version ORDER BY starts, id'),
    bench: all(`SELECT person, made, edit FROM design_edit WHERE state = 'open' ORDER BY id`),
    settled: all(`SELECT value FROM meta WHERE key = 'settled'`),
  };
}

/** Every page at instants around which something changes, before and after the last change. */
function pagesOf({ connection, view }: Stored): Record<string, unknown> {
  const bounds = connection.driver
    .prepare(
      `SELECT starts FROM live_interval UNION SELECT ends FROM live_interval WHERE ends IS NOT NULL
       UNION SELECT starts FROM address UNION SELECT starts FROM design_version WHERE starts > 0
       ORDER BY 1`,
    )
    .pluck()
    .all() as number[];
  const chosen = bounds.filter((_, i) => i % Math.ceil(bounds.length / 8) === 0);
  return Object.fromEntries(
    chosen.flatMap((at) => {
      const paths = [...(view.pages(at) ?? []), ...view.formerPaths(at).lines];
      return paths.map(({ path }) => [`${at} ${path}`, view.render(path, at)]);
    }),
  );
}

/** That a site comes back from its folder as it was; gives its pages. */
async function expectTheSame(site: Stored): Promise<Record<string, unknown>> {
  const { connection, view } = site;
  const now = settledInstant(connection) + 1000;
  const folder = saved(site);
  const again = await loaded(folder, now);
  expect(storedRows(again.connection)).toEqual(storedRows(connection));
  rebuild(connection, view);
  expect(derivedRows(again.connection)).toEqual(derivedRows(connection));
  const pages = pagesOf(site);
  expect(pagesOf(again)).toEqual(pages);
  expect(
    saveToFolder(savedFiles(again.connection, again.data, COMMAND_LINE), folder),
  ).toMatchObject({
    written: 0,
    removed: 0,
  });
  return pages;
}

test('a site that was written on comes back from its folder with the same rows and pages', async () => {
  let [count, planned] = [0, 0];
  await fc.assert(
    fc.asyncProperty(randomSite, randomWrites, async (files, steps) => {
      const { result, ...site } = await loadFiles(files);
      if (!result.ok) return;
      const lived = new LivedSite(site.connection, site.view, Date.parse('2026-07-01T12:00:00Z'));
      for (const [what, pause] of steps) {
        lived.wall += pause * 60_000 + 1;
        lived.write(what);
      }
      count += Object.keys(await expectTheSame(site)).length;
      planned += lived.done.get('release') ?? 0;
    }),
    { numRuns: Number(process.env.LONG ?? 25) },
  );
  expect(count).toBeGreaterThan(200);
  expect(planned).toBeGreaterThan(5);
}, 240_000);
