import { parentPort, workerData } from 'node:worker_threads';
import { openDatabase, problemOf } from './db/connection.ts';
import { DatabaseProblem } from './db/problem.ts';
import { type CommandName, runCommand } from './commands/index.ts';
import { NotPermitted, type Actor } from './commands/permit.ts';

/** A command for the writer thread. */
export interface WriterRequest {
  id: number;
  name: CommandName;
  actor: Actor;
  input: unknown;
}

/** Its answer: a result, or a problem in plain words. */
export type WriterReply = { id: number; result: unknown } | { id: number; problem: { message: string; fix: string } } | { ready: true };

const { database } = workerData as { database: string };
const port = parentPort!;
const connection = openDatabase(database);

port.on('message', (message: WriterRequest | 'stop') => {
  if (message === 'stop') {
    connection.driver.pragma('wal_checkpoint(TRUNCATE)');
    connection.close();
    port.close();
    return;
  }
  const { id, name, actor, input } = message;
  try {
    port.postMessage({ id, result: runCommand(connection, name, actor, input as never, Date.now()) } satisfies WriterReply);
  } catch (error) {
    port.postMessage({ id, problem: inWords(problemOf(error, database)) } satisfies WriterReply);
  }
});
port.postMessage({ ready: true } satisfies WriterReply);

function inWords(error: unknown): { message: string; fix: string } {
  if (error instanceof DatabaseProblem) return { message: error.message, fix: error.fix };
  if (error instanceof NotPermitted) return { message: error.message, fix: 'Sign in again.' };
  console.error(error);
  return { message: 'This change failed because of a fault in the program; nothing was changed.', fix: 'The server’s log has the details. Your words are still in the form.' };
}
