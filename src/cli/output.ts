import type { Issue } from '@/core/issue.ts';
import { parseInstant } from '@/core/time/parse.ts';
import type { Instant } from '@/core/time/interval.ts';
import { openDatabase } from '@/server/db/connection.ts';
import { dataFolder } from '@/server/process/data-folder.ts';
import { SiteView } from '@/server/queries/site-view.ts';

/** The command was written wrongly; the message says how to write it. */
export class WrongUse extends Error {}

/** Sets the exit code. */
export type Exit = (code: number) => void;

/** Options that commands which read a site share. */
export interface ReadOptions {
  data?: string;
  at?: string;
  json?: boolean;
}

const MOST_SHOWN = 100;
const MOST_WORDS = 600;

/** Prints issues to stderr, one or two lines each: place, message, remedy. */
export function reportIssues(issues: Issue[]): void {
  for (const { path, line, message: whole, fix } of issues.slice(0, MOST_SHOWN)) {
    const message = whole.length > MOST_WORDS ? `${whole.slice(0, MOST_WORDS)}…` : whole;
    const place = path === undefined ? '' : `${path}${line === undefined ? '' : `:${line}`}: `;
    process.stderr.write(`${place}${message}${fix === undefined ? '' : `\n    ${fix}`}\n`);
  }
  if (issues.length > MOST_SHOWN)
    process.stderr.write(`… and ${issues.length - MOST_SHOWN} more.\n`);
}

/** Prints one JSON value, indented. */
export function printJson(value: unknown): void {
  process.stdout.write(`${JSON.stringify(value, null, 2)}\n`);
}

/** Opens the site for reading and runs a query as of the instant asked for. */
export function withSite<T>(options: ReadOptions, query: (view: SiteView, at: Instant) => T): T {
  const connection = openDatabase(dataFolder(options.data).database, { readonly: true });
  try {
    const view = new SiteView(connection);
    const now = Date.now();
    const zone = view.at(now)?.site.design.site.zone;
    if (zone === undefined)
      throw new WrongUse(
        'There is no site in the data folder. Load one first: npx bontel load FOLDER',
      );
    const at = options.at === undefined ? now : parseInstant(options.at, zone);
    if (at === null)
      throw new WrongUse(
        `"${options.at}" is no instant. Write ISO 8601, such as 2026-03-12T08:00:00Z, 2026-03-12T08:00 (in ${zone}) or 2026-03-12.`,
      );
    return query(view, at);
  } finally {
    connection.close();
  }
}
