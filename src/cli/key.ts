import { existsSync } from 'node:fs';
import type { Command } from 'commander';
import { dataFolder } from '@/server/process/data-folder.ts';
import { type Exit, WrongUse } from './output.ts';

/** `bontel key`: makes, lists and ends the keys that programs sign in with. */
export function keyCommand(program: Command, exit: Exit): void {
  program
    .command('key [name]')
    .description('Make a key for a program, under a name; without one, list the keys.')
    .option('--end <id>', 'end a key')
    .option('--data <dir>', 'data folder (default: BONTEL_DATA, else ./data)')
    .action(async (name: string | undefined, options: { end?: string; data?: string }) => {
      const data = dataFolder(options.data);
      if (!existsSync(data.database))
        throw new WrongUse('There is no site in the data folder. Load one first.');
      const { Keys } = await import('@/server/db/keys.ts');
      const keys = new Keys(data.operations);
      try {
        if (options.end !== undefined) {
          if (!keys.end(options.end)) throw new WrongUse(`There is no key "${options.end}".`);
        } else if (name !== undefined) process.stdout.write(`${keys.make(name, Date.now())}\n`);
        else
          for (const { id, name: called, made } of keys.all())
            process.stdout.write(`${id}  ${new Date(made).toISOString()}  ${called}\n`);
      } finally {
        keys.close();
      }
      exit(0);
    });
}
