import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { type Connection, openDatabase } from '@/server/db/connection.ts';
import { SiteView } from '@/server/queries/site-view.ts';
import { temporaryFolder } from './folder.ts';

const fixture = (name: string): Buffer =>
  gunzipSync(
    readFileSync(new URL(`../fixtures/site-before-the-bench.${name}.gz`, import.meta.url)),
  );

/** A database that was written before designs had a bench, opened by this version. */
export function databaseFromBeforeTheBench(): {
  connection: Connection;
  view: SiteView;
  data: string;
} {
  const data = temporaryFolder();
  writeFileSync(join(data, 'site.db'), fixture('db'));
  const connection = openDatabase(join(data, 'site.db'));
  return { connection, view: new SiteView(connection), data };
}

/** Its pages as the version that wrote it showed them, by instant (ms) and path. */
export function pagesFromBeforeTheBench(): Record<string, Record<string, string>> {
  return JSON.parse(fixture('pages.json').toString()) as Record<string, Record<string, string>>;
}
