import { expect, test } from 'vitest';
import { runCommand } from '@/server/commands/run.ts';
import type { Actor } from '@/server/permit.ts';
import { draftsSeen } from '@/server/queries/drafts.ts';
import { freshenDerivedTables } from '@/server/store/freshen.ts';
import { settledInstant } from '@/server/store/write.ts';
import { databaseFromBeforeTheBench, pagesFromBeforeTheBench } from '../helpers/earlier.ts';
import { derivedRows, rebuild } from '../helpers/snapshot.ts';

const BUILDER: Actor = { id: 'builder', name: 'Builder', role: 'builder' };
/** The plain style of sites without one is named by its text, which is no page's own. */
const withoutStyle = (body: string): string =>
  body.replace(/(?<=href="\/style\/)[0-9a-f]+(?=\.css")/, 'plain');

/** Less what sites without a frame of their own had not then: a menu, and how headings count. */
const withoutMenu = (html: string): string =>
  html.replace(/<nav class="menu".*?<\/nav>/s, '').replaceAll(' aria-level="2"', '');

test('a database from before the bench gives the same pages at any instant', () => {
  const { view } = databaseFromBeforeTheBench();
  const pages = pagesFromBeforeTheBench();
  let count = 0;
  for (const [instant, bodies] of Object.entries(pages))
    for (const [path, body] of Object.entries(bodies)) {
      const shown = view.render(path, Number(instant))!.body;
      expect(withoutMenu(withoutStyle(shown)), `${path} at ${instant}`).toBe(withoutStyle(body));
      count += 1;
    }
  expect(count).toBeGreaterThan(30);
});

test('in it entries name their types by id, and authors are persons', () => {
  const { connection, view } = databaseFromBeforeTheBench();
  const all = (sql: string): unknown[] => connection.driver.prepare(sql).pluck().all();
  expect(all('SELECT DISTINCT type FROM entry ORDER BY 1')).toEqual(['grower', 'plant']);
  expect(all(`SELECT name FROM person WHERE id = 'builder'`)).toEqual(['Builder']);
  expect(all(`SELECT DISTINCT person FROM planned_change WHERE person <> ''`)).toEqual(['builder']);
  const at = settledInstant(connection) + 1;
  const { site } = view.at(at)!;
  expect(site.typesByKey.get('seed')!.id).toBe('plant');
  const sight = { actor: BUILDER, at, seeing: 'draft' as const };
  expect(draftsSeen(view, sight, site).map(({ values }) => values.title)).toEqual([
    'École neuve',
    'Only a draft',
    'New one',
  ]);
});

test('in it what lies ahead is derived as before, and goes on being', () => {
  const { connection, view } = databaseFromBeforeTheBench();
  const input = { id: null, type: 'plant', values: { title: 'After' }, seen: null };
  const wallClock = settledInstant(connection) + 60_000;
  const saved = runCommand(connection, 'saveEntry', BUILDER, input, { wallClock });
  expect(saved.ok).toBe(true);
  const rows = derivedRows(connection);
  rebuild(connection, view);
  expect(derivedRows(connection)).toEqual(rows);
});

test('in it derived tables of another form are made anew once, and not again', () => {
  const { connection, view } = databaseFromBeforeTheBench();
  const at = settledInstant(connection) + 1000;
  connection.driver.exec(`UPDATE meta SET value = json_set(value, '$.form', 'other')
    WHERE key LIKE 'index:%'`);
  freshenDerivedTables(connection, at);
  const rows = derivedRows(connection);
  expect(settledInstant(connection)).toBe(at);
  freshenDerivedTables(connection, at + 1000);
  expect(settledInstant(connection)).toBe(at);
  rebuild(connection, view);
  expect(derivedRows(connection)).toEqual(rows);
});

test('in it an index that listings are read by is made where it is missing', () => {
  const { connection } = databaseFromBeforeTheBench();
  const at = settledInstant(connection) + 1000;
  const indexes = (): unknown[] =>
    connection.driver
      .prepare(`SELECT name FROM sqlite_master WHERE name LIKE 'listing.%' ORDER BY name`)
      .pluck()
      .all();
  freshenDerivedTables(connection, at);
  const made = indexes();
  expect(made).not.toEqual([]);
  for (const name of made) connection.driver.exec(`DROP INDEX "${String(name)}"`);
  freshenDerivedTables(connection, at + 1000);
  expect(indexes()).toEqual(made);
});
