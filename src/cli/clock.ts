import type { Command } from 'commander';
import { openDatabase, problemOf } from '@/server/db/connection.ts';
import { dataFolder } from '@/server/process/data-folder.ts';
import { moveToNow, writtenAhead } from '@/server/store/clock-ahead.ts';
import type { Exit } from './output.ts';

/** `bontel clock`: what was written while this machine's clock stood ahead, and a way back. */
export function clockCommand(program: Command, exit: Exit): void {
  program
    .command('clock')
    .description(
      'Show what was written while the clock stood ahead; --move-to-now dates it to now.',
    )
    .option('--data <dir>', 'data folder (default: BONTEL_DATA, else ./data)')
    .option('--move-to-now', 'date what was written ahead to now; what is planned stays planned')
    .action((options: { data?: string; moveToNow?: boolean }) => {
      const { database } = dataFolder(options.data);
      const connection = openDatabase(database);
      try {
        const now = Date.now();
        const ahead = writtenAhead(connection, now);
        process.stdout.write(
          `Now            ${iso(now)}\nLast written   ${iso(ahead.last)}\n${wordsOf(ahead)}`,
        );
        if (ahead.last <= now) process.stdout.write('Nothing stands in the way of writing.\n');
        else if (options.moveToNow) {
          moveToNow(connection, now);
          process.stdout.write('All of this is dated to now; writing goes on.\n');
        } else
          process.stdout.write(
            'Nothing can be written until then. To date this to now: npx bontel clock --move-to-now\n',
          );
        exit(0);
      } catch (error) {
        throw problemOf(error, database);
      } finally {
        connection.close();
      }
    });
}

const iso = (at: number): string => new Date(at).toISOString();

function wordsOf({ revisions, acts, designs }: ReturnType<typeof writtenAhead>): string {
  return [
    ...revisions.map((r) => `  saved ${iso(r.saved)}  ${r.name} (${r.entry})\n`),
    ...acts.map((a) => `  ${a.action} ${iso(a.at)}  ${a.entry}\n`),
    ...(designs > 0 ? [`  ${designs} released design${designs === 1 ? '' : 's'}\n`] : []),
  ].join('');
}
