import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Command } from 'commander';
import { ROLES } from '@/core/design/roles.ts';
import { type Account, OWNER, type People } from '@/server/db/people.ts';
import { OWNER_STAYS, accountSpec } from '@/server/process/accounts.ts';
import { dataFolder } from '@/server/process/data-folder.ts';
import { readSettings } from '@/server/process/settings.ts';
import { type Exit, WrongUse } from './output.ts';

interface Options {
  data?: string;
  name?: string;
  role?: string;
  remove?: boolean;
}

const ROLE_NAMES = ROLES.map(({ role }) => role);

/** `bontel sign-in`: a new one-time link, for a site that runs or that will be started. */
export function signInCommand(program: Command, exit: Exit): void {
  program
    .command('sign-in [person]')
    .description(
      'Print a new one-time link that signs in to the builder, or lets somebody else in.',
    )
    .option('--name <name>', 'what they are called (default: as before, else the id)')
    .option(
      '--role <role>',
      `what they may do: ${ROLE_NAMES.join(' or ')} (default: as before, else editor)`,
    )
    .option('--remove', 'let them in no more')
    .option('--data <dir>', 'data folder (default: BONTEL_DATA, else ./data)')
    .action(async (person: string | undefined, options: Options) => {
      const data = dataFolder(options.data);
      if (!existsSync(data.database))
        throw new WrongUse('There is no site in the data folder. Load one first.');
      const { People } = await import('@/server/db/people.ts');
      const people = new People(data.operations);
      if (person !== undefined && options.remove) {
        removed(people, person);
        return exit(0);
      }
      const account = person === undefined ? undefined : asked(people, person, options);
      const { startAuth } = await import('@/server/process/auth.ts');
      const url = servingAt(data.folder) ?? readSettings(process.env).baseUrl;
      const auth = await startAuth(data, url, people);
      process.stdout.write(`${await auth.signInLink(account)}\n`);
      process.stderr.write('The link signs in once, within 15 minutes.\n');
      exit(0);
    });
}

/** Somebody as asked for, let in where they are not yet. @throws WrongUse */
function asked(people: People, id: string, { name, role }: Options): Account {
  const known = people.find(id);
  const parsed = accountSpec.safeParse({
    id,
    name: name ?? known?.name ?? id,
    role: role ?? known?.role ?? 'editor',
  });
  if (!parsed.success) throw new WrongUse(parsed.error.issues[0]!.message);
  const { data: account } = parsed;
  if (id === OWNER && account.role !== 'builder') throw new WrongUse(OWNER_STAYS);
  people.put(account);
  return account;
}

function removed(people: People, id: string): void {
  if (id === OWNER) throw new WrongUse(OWNER_STAYS);
  if (!people.remove(id)) throw new WrongUse(`Nobody is called "${id}" here.`);
}

/** Where a server that works with the folder is used; null where none says so. */
function servingAt(folder: string): string | null {
  try {
    return (JSON.parse(readFileSync(join(folder, 'serving.json'), 'utf8')) as { url: string }).url;
  } catch {
    return null;
  }
}
