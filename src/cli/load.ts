import type { Command } from 'commander';
import { COMMAND_LINE } from '@/server/permit.ts';
import { openDatabase, problemOf } from '@/server/db/connection.ts';
import type { SiteToLoad } from '@/server/files/read-site.ts';
import { dataFolder } from '@/server/process/data-folder.ts';
import { type Exit, printJson, reportIssues } from './output.ts';

/** `bontel load FOLDER`: replaces the site by a folder's, all of it or nothing. */
export function loadCommand(program: Command, exit: Exit): void {
  program
    .command('load')
    .description('Replace the site by the one in a folder; all of it or nothing.')
    .argument(
      '<folder>',
      'a site folder, as described in docs/site-folder.md; with --as a folder or file of records',
    )
    .option('--data <dir>', 'data folder (default: BONTEL_DATA, else ./data)')
    .option('--dry-run', 'tell what it would do, and do nothing')
    .option('--as <type>', 'add what other tools made as entries of a type, and keep the rest')
    .option('--map <file>', 'which key becomes which field (docs/bringing-in.md); guessed without')
    .option('--json', 'print the result as JSON')
    .action(async (folder: string, options: LoadOptions) => {
      const isFromElsewhere = options.as !== undefined || options.map !== undefined;
      const bring = isFromElsewhere ? (await import('./bring-in.ts')).bringInFolder : loadWhole;
      exit(await bring(folder, options));
    });
}

/** Puts a site folder in place of what is there. */
async function loadWhole(folder: string, options: LoadOptions): Promise<number> {
  // Loaded here, so that commands which only read start fast.
  const [{ readSite }, { loadSite }] = await Promise.all([
    import('@/server/files/read-site.ts'),
    import('@/server/commands/load-site.ts'),
  ]);
  const now = Date.now();
  tell(`Reading ${folder}`);
  const { site, issues } = await readSite(folder, now);
  if (!site) return refuse(issues, options.json);
  const paths = dataFolder(options.data);
  if (options.dryRun) return dryRun(paths.database, site, now, options);
  const connection = openDatabase(paths.database);
  try {
    const result = loadSite(connection, paths.folder, COMMAND_LINE, site, now, tell);
    if (!result.ok) return refuse(result.issues, options.json);
    if (options.json) printJson({ loaded: true, ...result.value });
    else {
      process.stdout.write(
        `Loaded ${result.value.entries} entries and ${result.value.pictures} files.\n`,
      );
      reportIssues(result.value.findings);
    }
    return 0;
  } catch (error) {
    throw problemOf(error, paths.database);
  } finally {
    connection.close();
  }
}

interface LoadOptions {
  data?: string;
  as?: string;
  map?: string;
  json?: boolean;
  dryRun?: boolean;
}

/** Steps are told beside the result, which is all that stands on standard output. */
function tell(step: string): void {
  process.stderr.write(`${step} …\n`);
}

/** Tells what a load would do; ends as the load would. */
async function dryRun(
  database: string,
  site: SiteToLoad,
  now: number,
  { json }: LoadOptions,
): Promise<number> {
  const { tryLoad } = await import('@/server/commands/load/trial.ts');
  const trial = tryLoad(database, COMMAND_LINE, site, now, tell);
  if (!trial.ok) return refuse(trial.issues, json);
  if (json) printJson({ tried: true, ...trial.value });
  else {
    for (const sort of ['types', 'listings', 'entries', 'pictures'] as const) {
      const { created, changed, gone } = trial.value[sort];
      process.stdout.write(`${sort}: ${created} created, ${changed} changed, ${gone} gone\n`);
    }
    reportIssues(trial.value.findings);
  }
  return 0;
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
