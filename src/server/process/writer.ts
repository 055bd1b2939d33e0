import { workerData } from 'node:worker_threads';
import { z } from 'zod';
import { type Result, refused } from '@/core/issue.ts';
import { isCommand } from '../commands/index.ts';
import { runCommand } from '../commands/run.ts';
import { openDatabase, problemOf } from '../db/connection.ts';
import { PlanOvertaken, applyPlan } from '../planning/apply-plan.ts';
import type { PlannedWrite } from '../planning/plan-write.ts';
import { freshenDerivedTables } from '../store/freshen.ts';
import { TooManyForOneWrite } from '../store/too-many.ts';
import { answerQuestions } from './answering.ts';
import { parseInput } from './json-input.ts';
import { inWords } from './words-of-faults.ts';

const actor = z.strictObject({
  id: z.string(),
  name: z.string(),
  role: z.enum(['builder', 'editor', 'visitor']),
});
const question = z.strictObject({
  name: z.string().refine(isCommand),
  actor,
  /** The command's input as JSON. */
  input: z.string(),
  /** Whether it is to be given back as `too-many` where it concerns more than a few entries. */
  few: z.boolean(),
});
/** A command for the writer thread, or one that was planned beside it. */
export type WriterQuestion = z.input<typeof question> | { apply: PlannedWrite };

/** More entries than these are worked out beside other writes. */
const FEW = 1000;

const { database } = workerData as { database: string };
const connection = openDatabase(database);
// What an earlier version made otherwise is made anew before the first write, and beside readers.
setImmediate(() => {
  try {
    freshenDerivedTables(connection, Date.now());
  } catch (error) {
    console.error(problemOf(error, database)); // the next write does it, or says why it cannot
  }
});

answerQuestions<WriterQuestion, Result<unknown>>(answer, () => {
  connection.driver.pragma('wal_checkpoint(TRUNCATE)');
  connection.close();
});

function answer(asked: WriterQuestion, step: () => void): Result<unknown> {
  try {
    if ('apply' in asked) return applyPlan(connection, asked.apply, Date.now());
    const { name, actor: who, input, few } = question.parse(asked);
    const read = parseInput(input);
    if (!read.ok) return read;
    const most = few ? { most: FEW } : {};
    const options = { wallClock: Date.now(), step, ...most };
    const result: Result<unknown> = runCommand(connection, name as never, who, read.value, options);
    // What was written before stands in the log until it is cut.
    if (name === 'purgeEntry') connection.driver.pragma('wal_checkpoint(TRUNCATE)');
    return result;
  } catch (error) {
    if (error instanceof TooManyForOneWrite) return refused({ code: 'too-many', message: '' });
    if (error instanceof PlanOvertaken)
      return refused({ code: 'overtaken', message: error.message });
    return refused({ code: 'not-written', ...inWords(error, database) });
  }
}
