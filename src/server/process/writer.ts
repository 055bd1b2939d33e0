import { workerData } from 'node:worker_threads';
import { z } from 'zod';
import { type Issue, type Result, refused } from '@/core/issue.ts';
import { isCommand } from '../commands/index.ts';
import { runCommand } from '../commands/run.ts';
import { openDatabase, problemOf } from '../db/connection.ts';
import { DatabaseProblem } from '../db/problem.ts';
import { NotPermitted } from '../permit.ts';
import { answerQuestions } from './answering.ts';
import { parseInput } from './json-input.ts';

const actor = z.strictObject({
  id: z.string(),
  name: z.string(),
  role: z.enum(['builder', 'visitor']),
});
const question = z.strictObject({
  name: z.string().refine(isCommand),
  actor,
  /** The command's input as JSON. */
  input: z.string(),
});
/** A command for the writer thread. */
export type WriterQuestion = z.input<typeof question>;

const { database } = workerData as { database: string };
const connection = openDatabase(database);

answerQuestions<WriterQuestion, Result<unknown>>(answer, () => {
  connection.driver.pragma('wal_checkpoint(TRUNCATE)');
  connection.close();
});

function answer(asked: WriterQuestion, step: () => void): Result<unknown> {
  try {
    const { name, actor: who, input } = question.parse(asked);
    const read = parseInput(input);
    if (!read.ok) return read;
    return runCommand(connection, name as never, who, read.value, { wallClock: Date.now(), step });
  } catch (error) {
    return refused({ code: 'not-written', ...inWords(problemOf(error, database)) });
  }
}

function inWords(error: unknown): Pick<Issue, 'message' | 'fix'> {
  if (error instanceof DatabaseProblem) return { message: error.message, fix: error.fix };
  if (error instanceof NotPermitted) return { message: error.message, fix: 'Sign in again.' };
  console.error(error);
  return {
    message: 'This change failed because of a fault in the program; nothing was changed.',
    fix: 'The server’s log has the details. Your words are still in the form.',
  };
}
