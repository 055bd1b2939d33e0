import { parentPort, workerData } from 'node:worker_threads';
import { type Result, refused } from '@/core/issue.ts';
import { openDatabase } from '../db/connection.ts';
import { type PlannedWrite, type ToPlan, planWrite } from '../planning/plan-write.ts';
import { inWords } from './words-of-faults.ts';

/** What the thread that plans a write is given. */
export interface ToPlanner {
  database: string;
  /** Where the copy goes. */
  file: string;
  toPlan: Omit<ToPlan, 'wallClock'>;
}

/** What it says: how many addresses are worked out by now, and at last the plan. */
export type FromPlanner = { count: number } | { planned: Result<PlannedWrite> };

const TOLD_EVERY_MS = 200;

const { database, file, toPlan } = workerData as ToPlanner;
const say = (message: FromPlanner): void => parentPort!.postMessage(message);
say({ planned: plan() });

function plan(): Result<PlannedWrite> {
  try {
    const connection = openDatabase(database, { readonly: true });
    try {
      return planWrite(connection, file, { ...toPlan, wallClock: Date.now() }, teller());
    } finally {
      connection.close();
    }
  } catch (error) {
    return refused({ code: 'not-written', ...inWords(error, database) });
  }
}

function teller(): () => void {
  let [count, last] = [0, 0];
  return () => {
    count += 1;
    const now = count % 100 === 0 ? Date.now() : last;
    if (now - last < TOLD_EVERY_MS) return;
    last = now;
    say({ count });
  };
}
