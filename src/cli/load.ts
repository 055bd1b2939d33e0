import type { Command } from 'commander';
import { COMMAND_LINE } from '@/server/permit.ts';
import { openDatabase, problemOf } from '@/server/db/connection.ts';
import { dataFolder } from '@/server/process/data-folder.ts';
import { type Exit, printJson, reportIssues } from './output.ts';

/** `bontel load FOLDER`: replaces the site by a folder's, all of it or nothing. */
export function loadCommand(program: Command, exit: Exit): void {
  program
    .command('load')
    .description('Replace the site by the one in a folder; all of it or nothing.')
    .argument('<folder>', 'a site folder, as described in docs/site-folder.md')
    .option('--data <dir>', 'data folder (default: BONTEL_DATA, else ./data)')
    .option('--json', 'print the result as JSON')
    .action(async (folder: string, options: { data?: string; json?: boolean }) => {
      // Loaded here, so that commands which only read start fast.
      const [{ readSite }, { loadSite }] = await Promise.all([
        import('@/server/files/read-site.ts'),
        import('@/server/commands/load-site.ts'),
      ]);
      const now = Date.now();
      const tell = (step: string): void =>
        void (options.json || process.stderr.write(`${step} …\n`));
      tell(`Reading ${folder}`);
      const { site, issues } = await readSite(folder, now);
      if (!site) return void exit(refuse(issues, options.json));
      const paths = dataFolder(options.data);
      const connection = openDatabase(paths.database);
      try {
        const result = loadSite(connection, paths.folder, COMMAND_LINE, site, now, tell);
        if (!result.ok) return void exit(refuse(result.issues, options.json));
        if (options.json) printJson({ loaded: true, ...result.value });
        else {
          process.stdout.write(
            `Loaded ${result.value.entries} entries and ${result.value.pictures} files.\n`,
          );
          reportIssues(result.value.findings);
        }
      } catch (error) {
        throw problemOf(error, paths.database);
      } finally {
        connection.close();
      }
    });
}

/** How many issues are printed as JSON. */
const MOST_ISSUES = 1000;

function refuse(issues: Parameters<typeof reportIssues>[0], json = false): number {
  if (json)
    printJson({ loaded: false, issues: issues.slice(0, MOST_ISSUES), total: issues.length });
  else {
    reportIssues(issues);
    process.stderr.write(
      `Nothing was loaded: ${issues.length} problem${issues.length === 1 ? '' : 's'}.\n`,
    );
  }
  return 1;
}
