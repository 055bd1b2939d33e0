import type { Command } from 'commander';
import { type Exit, type ReadOptions, printJson, withSite } from './output.ts';

/** `bontel trace PATH`: the steps from a path to its outcome. */
export function traceCommand(program: Command, exit: Exit): void {
  program
    .command('trace')
    .description('Say step by step why a path leads where it leads.')
    .argument('<path>')
    .option('--data <dir>', 'data folder (default: BONTEL_DATA, else ./data)')
    .option(
      '--at <instant>',
      'ISO 8601; a bare date is its start in the site’s zone (default: now)',
    )
    .option('--json', 'print JSON')
    .action((path: string, options: ReadOptions) => {
      const { steps, drawn, page } = withSite(options, (view, at) => view.trace(path, at))!;
      const outcome = {
        status: page.status,
        location: page.headers.location ?? null,
        kind: page.kind,
        entry: page.entry,
        listing: page.listing,
        page: page.page,
        drawn,
      };
      if (options.json) printJson({ path, steps, outcome });
      else {
        for (const { step, matched, words } of steps)
          process.stdout.write(`${matched ? '→' : ' '} ${step}: ${words}\n`);
        process.stdout.write(
          `${outcome.status}${outcome.location === null ? '' : ` to ${outcome.location}`}\n`,
        );
        if (drawn !== null) process.stdout.write(`${drawn}\n`);
      }
      exit(0);
    });
}
