import type { Command } from 'commander';
import { openDatabase, problemOf } from '@/server/db/connection.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { dataFolder } from '@/server/process/data-folder.ts';
import { type Exit, printJson } from './output.ts';

/** `bontel save FOLDER`: writes the whole site as the files of a site folder. */
export function saveCommand(program: Command, exit: Exit): void {
  program
    .command('save')
    .description('Save the whole site, its past included, as a site folder.')
    .argument('<folder>', 'a new folder, or one that a site was saved to before')
    .option('--data <dir>', 'data folder (default: BONTEL_DATA, else ./data)')
    .option('--json', 'print the result as JSON')
    .action(async (folder: string, options: { data?: string; json?: boolean }) => {
      const [{ savedFiles }, { saveToFolder }] = await Promise.all([
        import('@/server/saving/saved-files.ts'),
        import('@/server/saving/to-folder.ts'),
      ]);
      const paths = dataFolder(options.data);
      const connection = openDatabase(paths.database, { readonly: true });
      try {
        const files = savedFiles(connection, paths.folder, COMMAND_LINE);
        const done = connection.driver.transaction(() =>
          saveToFolder(files, folder, options.json ? undefined : teller()),
        )();
        if (options.json) printJson({ saved: true, ...done });
        else
          process.stdout.write(
            `Saved ${done.files} files: ${done.written} written, ${done.removed} removed.\n`,
          );
        exit(0);
      } catch (error) {
        throw problemOf(error, paths.database);
      } finally {
        connection.close();
      }
    });
}

const TOLD_EVERY_MS = 5000;

/** Tells every few seconds how many files there are by now. */
function teller(): (count: number) => void {
  let last = Date.now();
  return (count) => {
    if (Date.now() - last < TOLD_EVERY_MS) return;
    last = Date.now();
    process.stderr.write(`${count} files …\n`);
  };
}
