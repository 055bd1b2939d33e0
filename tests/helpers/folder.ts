import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { onTestFinished } from 'vitest';
import { type Connection, openDatabase } from '@/server/db/connection.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { type Loaded, loadSite } from '@/server/commands/load-site.ts';
import { readSite } from '@/server/files/read-site.ts';
import { SiteView } from '@/server/queries/site-view.ts';
import type { Issue, Result } from '@/core/issue.ts';

/** A folder for one test, gone when it ends. */
export function temporaryFolder(): string {
  const folder = mkdtempSync(join(tmpdir(), 'bontel-'));
  onTestFinished(() => rmSync(folder, { recursive: true, force: true }));
  return folder;
}

/** Files of a site folder by path; objects are written as JSON. */
export type Files = Record<string, string | object>;

/** Writes files below a folder. */
export function writeFiles(folder: string, files: Files): string {
  for (const [path, content] of Object.entries(files)) {
    mkdirSync(dirname(join(folder, path)), { recursive: true });
    writeFileSync(
      join(folder, path),
      typeof content === 'string' ? content : JSON.stringify(content),
    );
  }
  return folder;
}

export const SITE = {
  name: 'Test site',
  url: 'https://test.example',
  zone: 'Europe/Dublin',
  language: 'en',
};

/** A site loaded into a database file of its own. */
export interface TestSite {
  connection: Connection;
  view: SiteView;
  data: string;
  result: Result<Loaded>;
  issues: Issue[];
}

/** Reads and loads a site folder given as files, through the real importer, as of an instant. */
export async function loadFiles(
  files: Files,
  now = Date.parse('2026-07-01T12:00:00Z'),
): Promise<TestSite> {
  const folder = writeFiles(temporaryFolder(), { 'site.yaml': SITE, ...files });
  const data = temporaryFolder();
  const connection = openDatabase(join(data, 'site.db'));
  onTestFinished(() => connection.close());
  const { site, issues } = await readSite(folder, now);
  const result: Result<Loaded> = site
    ? loadSite(connection, data, COMMAND_LINE, site, now)
    : { ok: false, issues };
  return {
    connection,
    view: new SiteView(connection),
    data,
    result,
    issues: result.ok ? [] : result.issues,
  };
}

/** Milliseconds UTC of an ISO instant. */
export const at = (iso: string): number => Date.parse(iso.length === 10 ? `${iso}T00:00:00Z` : iso);
