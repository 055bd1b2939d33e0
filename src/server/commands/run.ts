import { type Issue, type Result, ok, refused } from '@/core/issue.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { designsOf } from '../store/design-store.ts';
import { closeSettled } from '../store/derive-index.ts';
import { NO_SITE, designsFrom } from '../store/designs-ahead.ts';
import { notePerson } from '../store/persons.ts';
import { write } from '../store/write.ts';
import { type Command, Refused, TriedOnly } from './definition.ts';
import { COMMANDS, type CommandName, type CommandResult } from './index.ts';

/** What a run may be told. */
export interface RunOptions {
  wallClock: Instant;
  step?: () => void;
  /** How many entries may be worked out while others wait; as many as there are where left out. */
  most?: number;
}

/**
 * The one shell of all commands: right, form of the input, one transaction with its instant, in
 * which what has ended by then is settled first. What is refused comes back as issues and leaves
 * no trace.
 * @throws NotPermitted, DatabaseProblem, TooManyForOneWrite, and whatever a fault of the program throws
 */
export function runCommand<N extends CommandName>(
  connection: Connection,
  name: N,
  actor: Actor,
  input: unknown,
  { wallClock, step = () => undefined, most }: RunOptions,
): CommandResult<N> {
  const command: Command = COMMANDS[name];
  permit(actor, command.deed, SITE);
  const parsed = command.input.safeParse(input);
  if (!parsed.success) return refused(...parsed.error.issues.slice(0, 20).map(wrongForm)) as never;
  for (const object of command.about?.(parsed.data) ?? []) permit(actor, command.deed, object);
  const run = (): unknown =>
    kept(connection, wallClock, (at) => {
      notePerson(connection, actor);
      const site = designsOf(connection).at(at)?.site ?? (command.beforeSite ? NO_SITE : null);
      if (!site)
        throw new Refused({
          code: 'no-site',
          message: 'There is no site yet.',
          fix: 'Start one, or load a site folder.',
        });
      if (site !== NO_SITE) closeSettled(connection, designsFrom(connection, at, site), at);
      return command.run({ connection, actor, at, site, step, most: most ?? null }, parsed.data);
    });
  return inWords(run) as CommandResult<N>;
}

/** A write; where nothing of it is kept, what was remembered of its designs goes as well. */
function kept<T>(connection: Connection, wallClock: Instant, change: (at: Instant) => T): T {
  try {
    return write(connection, wallClock, change);
  } catch (error) {
    designsOf(connection).forget();
    throw error;
  }
}

/** A result, or what stands in its way: refusals are data, everything else is thrown on. */
export function inWords<T>(run: () => T): Result<T> {
  try {
    return ok(run());
  } catch (error) {
    if (error instanceof Refused) return refused(...error.issues);
    if (error instanceof TriedOnly) return ok(error.result as T);
    throw error;
  }
}

function wrongForm({ path, message }: { path: PropertyKey[]; message: string }): Issue {
  return {
    code: 'wrong-form',
    path: path.map(String).join('/'),
    message: `${path.length > 0 ? `${path.map(String).join('.')}: ` : ''}${message}`,
    fix: 'Reload the page and try again.',
  };
}
