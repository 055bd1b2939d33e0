import { parentPort, workerData } from 'node:worker_threads';
import { openDatabase, problemOf } from './db/connection.ts';
import { DatabaseProblem } from './db/problem.ts';
import { type CommandName, runCommand } from './commands/index.ts';
import { NotPermitted, type Actor } from './commands/permit.ts';
import type { FromThread, ToThread } from './worker-thread.ts';
import { type Result, refused } from '@/core/issue.ts';

/** A command for the writer thread. */
export interface WriterQuestion {
  name: CommandName;
  actor: Actor;
  input: unknown;
}

const { database } = workerData as { database: string };
const port = parentPort!;
const connection = openDatabase(database);

port.on('message', (message: ToThread<WriterQuestion>) => {
  if (message === 'stop') {
    connection.driver.pragma('wal_checkpoint(TRUNCATE)');
    connection.close();
    port.close();
    return;
  }
  port.postMessage({
    id: message.id,
    answer: answer(message.question),
  } satisfies FromThread<unknown>);
});
port.postMessage({ ready: true } satisfies FromThread<unknown>);

function answer({ name, actor, input }: WriterQuestion): Result<unknown> {
  try {
    return runCommand(connection, name, actor, input as never, Date.now());
  } catch (error) {
    return refused({ code: 'not-written', ...inWords(problemOf(error, database)) });
  }
}

function inWords(error: unknown): { message: string; fix: string } {
  if (error instanceof DatabaseProblem) return { message: error.message, fix: error.fix };
  if (error instanceof NotPermitted) return { message: error.message, fix: 'Sign in again.' };
  console.error(error);
  return {
    message: 'This change failed because of a fault in the program; nothing was changed.',
    fix: 'The server’s log has the details. Your words are still in the form.',
  };
}
