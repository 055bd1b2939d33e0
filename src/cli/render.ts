import type { Command } from 'commander';
import { publicHeaders } from '@/server/delivery/etag.ts';
import { type Exit, type ReadOptions, printJson, withSite } from './output.ts';

/** `bontel render PATH`: what a path answers as of an instant. */
export function renderCommand(program: Command, exit: Exit): void {
  program
    .command('render')
    .description('Print what a path answers as of an instant.')
    .argument('<path>', 'such as / or /varieties/blue-pea')
    .option('--data <dir>', 'data folder (default: BONTEL_DATA, else ./data)')
    .option(
      '--at <instant>',
      'ISO 8601; a bare date is its start in the site’s zone (default: now)',
    )
    .option('--json', 'print status, headers, html and validUntil as JSON')
    .action((path: string, options: ReadOptions) => {
      const page = withSite(options, (view, at) => view.render(path, at))!;
      const validUntil = page.validUntil === null ? null : new Date(page.validUntil).toISOString();
      if (options.json)
        printJson({
          status: page.status,
          headers: publicHeaders(page),
          html: page.body,
          validUntil,
        });
      else process.stdout.write(page.body);
      exit(0);
    });
}
