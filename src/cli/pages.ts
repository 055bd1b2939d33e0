import type { Command } from 'commander';
import { type Exit, type ReadOptions, printJson, withSite } from './output.ts';

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
        const pages = (view.pages(at) ?? []).map((p) => ({
          path: p.path,
          kind: p.kind as string,
          title: p.title,
          type: p.type,
          entry: p.entry,
          listing: p.listing,
          page: p.page,
          status: 200,
          location: null as string | null,
        }));
        const former = options.all ? view.formerPaths(at).lines : [];
        const rows = [
          ...pages,
          ...former.map(({ path, page }) => ({
            path,
            kind: page.kind as string,
            title: '',
            type: null,
            entry: null,
            listing: null,
            page: null,
            status: page.status,
            location: page.headers.location ?? null,
          })),
        ];
        rows.sort((a, b) => (a.path < b.path ? -1 : a.path > b.path ? 1 : 0));
        if (options.json)
          printJson(options.all ? rows : rows.map(({ status: _, location: __, ...row }) => row));
        else
          for (const row of rows)
            process.stdout.write(
              `${row.status}  ${row.path}  ${row.location === null ? row.title : `→ ${row.location}`}\n`,
            );
      });
      exit(0);
    });
}
