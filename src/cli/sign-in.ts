import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Command } from 'commander';
import { dataFolder } from '@/server/process/data-folder.ts';
import { readSettings } from '@/server/process/settings.ts';
import { type Exit, WrongUse } from './output.ts';

/** `bontel sign-in`: a new one-time link, for a site that runs or that will be started. */
export function signInCommand(program: Command, exit: Exit): void {
  program
    .command('sign-in')
    .description('Print a new one-time link that signs in to the builder.')
    .option('--data <dir>', 'data folder (default: BONTEL_DATA, else ./data)')
    .action(async (options: { data?: string }) => {
      const data = dataFolder(options.data);
      if (!existsSync(data.database))
        throw new WrongUse('There is no site in the data folder. Load one first.');
      const { startAuth } = await import('@/server/process/auth.ts');
      const auth = await startAuth(
        data,
        servingAt(data.folder) ?? readSettings(process.env).baseUrl,
      );
      process.stdout.write(`${await auth.signInLink()}\n`);
      process.stderr.write('The link signs in once, within 15 minutes.\n');
      exit(0);
    });
}

/** Where a server that works with the folder is used; null where none says so. */
function servingAt(folder: string): string | null {
  try {
    return (JSON.parse(readFileSync(join(folder, 'serving.json'), 'utf8')) as { url: string }).url;
  } catch {
    return null;
  }
}
