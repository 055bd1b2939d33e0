import type { Command } from 'commander';
import type { SiteView } from '@/server/queries/site-view.ts';
import { type Exit, type ReadOptions, printJson, withSite } from './output.ts';

/** A path with what it answers. */
interface Row {
  path: string;
  kind: string;
  title: string;
  type: string | null;
  entry: string | null;
  listing: string | null;
  page: number | null;
  status: number;
  location: string | null;
}

/** `bontel pages`: every path that answers 200 with HTML, by path. */
export function pagesCommand(program: Command, exit: Exit): void {
  program
    .command('pages')
    .description('List every page of the site as of an instant.')
    .option('--data <dir>', 'data folder (default: BONTEL_DATA, else ./data)')
    .option(
      '--at <instant>',
      'ISO 8601; a bare date is its start in the site’s zone (default: now)',
    )
    .option('--all', 'also list redirects and paths that are gone')
    .option('--json', 'print JSON')
    .action((options: ReadOptions & { all?: boolean }) => {
      withSite(options, (view, at) => {
        const rows = [...pageRows(view, at), ...(options.all ? formerRows(view, at) : [])];
        rows.sort((a, b) => (a.path < b.path ? -1 : a.path > b.path ? 1 : 0));
        if (!options.json) process.stdout.write(rows.map(lineOf).join(''));
        else printJson(options.all ? rows : rows.map(({ status: _, location: __, ...row }) => row));
      });
      exit(0);
    });
}

function pageRows(view: SiteView, at: number): Row[] {
  return (view.pages(at) ?? []).map(({ path, kind, title, type, entry, listing, page }) => ({
    path,
    kind,
    title,
    type,
    entry,
    listing,
    page,
    status: 200,
    location: null,
  }));
}

function formerRows(view: SiteView, at: number): Row[] {
  return view.formerPaths(at).map(({ path, page }) => ({
    path,
    kind: page.kind,
    title: '',
    type: null,
    entry: null,
    listing: null,
    page: null,
    status: page.status,
    location: page.headers.location ?? null,
  }));
}

function lineOf({ status, path, title, location }: Row): string {
  return `${status}  ${path}  ${location === null ? title : `→ ${location}`}\n`;
}
