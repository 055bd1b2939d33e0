import { onTestFinished, expect } from 'vitest';
import { join } from 'node:path';
import { loadSite } from '@/server/commands/load-site.ts';
import { type Connection, openDatabase } from '@/server/db/connection.ts';
import { readSite } from '@/server/files/read-site.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { SiteView } from '@/server/queries/site-view.ts';
import { savedFiles } from '@/server/saving/saved-files.ts';
import { saveToFolder } from '@/server/saving/to-folder.ts';
import { settledInstant } from '@/server/store/write.ts';
import { type TestSite, temporaryFolder } from './folder.ts';
import { rebuild, derivedRows } from './snapshot.ts';

type Stored = Pick<TestSite, 'connection' | 'view' | 'data'>;

/** Saves a site into a folder. */
export function saved(
  { connection, data }: Stored,
  folder = join(temporaryFolder(), 'saved'),
): string {
  saveToFolder(savedFiles(connection, data, COMMAND_LINE), folder);
  return folder;
}

/** A saved folder loaded into a database of its own, as of the last change made in it. */
export async function loaded(folder: string, now: number): Promise<Stored> {
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
    entries: all('SELECT id, type, created, author, deleted, purged FROM entry ORDER BY id'),
    starters: all('SELECT * FROM starter ORDER BY id'),
    revisions: (all('SELECT * FROM revision ORDER BY entry, number') as { values: string }[]).map(
      (row) => ({ ...row, values: JSON.parse(row.values) as object }),
    ),
    edges: all('SELECT * FROM reference_edge ORDER BY target, field, entry, revision'),
    plans: all(
      `SELECT entry, language, at, sequence, "action", revision, local, zone, person
         FROM planned_change ORDER BY entry, at, sequence`,
    ),
    byHand: all('SELECT entry, path, starts, ends FROM by_hand ORDER BY entry, starts, path, ends'),
    // Of a place it is kept who stands before whom, of those that stand for themselves.
    subjects: all(
      `SELECT "set", key, starts, ends, name, slug, description, picture, parent, merged, languages,
         author
         FROM subject ORDER BY "set", ends IS NOT NULL, merged IS NOT NULL,
           CASE WHEN ends IS NULL THEN parent END,
           CASE WHEN ends IS NULL AND merged IS NULL THEN position END, key, starts`,
    ),
    picks: all(`SELECT picks, entry, starts, ends FROM pick ORDER BY picks, position, id`),
    media: all('SELECT * FROM media ORDER BY id, starts'),
    filters: all('SELECT * FROM saved_filter ORDER BY id'),
    columns: all('SELECT * FROM chosen_columns ORDER BY person, type'),
    sources: (all('SELECT * FROM source ORDER BY id') as { mapping: string }[]).map((row) => ({
      ...row,
      mapping: JSON.parse(row.mapping) as object,
    })),
    brought: all('SELECT * FROM brought ORDER BY source, record'),
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
       UNION SELECT starts FROM subject WHERE starts > 0
       UNION SELECT starts FROM pick WHERE starts > 0
       UNION SELECT starts FROM media WHERE starts > 0
       ORDER BY 1`,
    )
    .pluck()
    .all() as number[];
  const chosen = bounds.filter((_, i) => i % Math.ceil(bounds.length / 8) === 0);
  return Object.fromEntries(
    chosen.flatMap((at) => {
      const paths = [...(view.pages(at) ?? []), ...view.formerPaths(at)];
      return paths.map(({ path }) => [`${at} ${path}`, view.render(path, at)]);
    }),
  );
}

/** That a site comes back from its folder as it was; gives its pages. */
export async function expectTheSame(site: Stored): Promise<Record<string, unknown>> {
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
