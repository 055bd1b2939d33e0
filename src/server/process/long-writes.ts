import { readdirSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { type Result, refused } from '@/core/issue.ts';
import type { CommandName } from '../commands/index.ts';
import type { Actor } from '../permit.ts';
import { type PlannedWrite, dropPlan } from '../planning/plan-write.ts';
import type { FromPlanner, ToPlanner } from './planner.ts';
import type { WriterThread } from './writer-thread.ts';

/** A write that takes long, while it is worked out. */
export interface Job {
  /** Addresses worked out by now. */
  count: number;
  /** How often it is worked out anew, because somebody wrote meanwhile. */
  attempt: number;
}

/** So often a write is planned; then it is done while others wait. */
const ATTEMPTS = 3;

const CANCELLED = refused({
  code: 'cancelled',
  message: 'Cancelled; nothing was changed.',
  fix: 'Your edits are as they were.',
});

interface Running extends Job {
  cancelled: boolean;
  cancel: () => void;
}

/**
 * Writes of more than a thousand entries, one at a time: each is worked out beside the others, on a
 * copy, and then copied in. They can be watched and cancelled by the id that whoever asked gave.
 */
export class LongWrites {
  private readonly running = new Map<string, Running>();
  private last: Promise<unknown> = Promise.resolve();
  private number = 0;

  constructor(
    private readonly database: string,
    private readonly writer: WriterThread,
  ) {
    // A process that was killed leaves its plan behind.
    const folder = dirname(database);
    const plan = new RegExp(`^${basename(database).replaceAll('.', '\\.')}\\.plan-\\d+$`);
    for (const name of readdirSync(folder)) if (plan.test(name)) dropPlan(join(folder, name));
  }

  /** Has a command carried out; at once where it concerns few, else as a long write. */
  async run(name: CommandName, actor: Actor, input: string, job: string): Promise<Result<unknown>> {
    const result = await this.writer.send(name, actor, input, { few: true });
    if (result.ok || !result.issues.some(({ code }) => code === 'too-many')) return result;
    const running = { count: 0, attempt: 0, cancelled: false, cancel: () => undefined };
    this.running.set(job, running);
    const turn = this.last.then(() => this.inTurns(running, { name, actor, input }));
    this.last = turn.catch(() => undefined);
    return turn.finally(() => this.running.delete(job));
  }

  /** How far a write is; null where it is not under way. */
  job(id: string): Job | null {
    const found = this.running.get(id);
    return found ? { count: found.count, attempt: found.attempt } : null;
  }

  /** Ends a write that is being worked out, with nothing changed; false where there is none. */
  cancel(id: string): boolean {
    const found = this.running.get(id);
    if (!found) return false;
    found.cancelled = true;
    found.cancel();
    return true;
  }

  /** Ends all that is being worked out. */
  async stop(): Promise<void> {
    for (const id of this.running.keys()) this.cancel(id);
    await this.last;
  }

  private async inTurns(
    running: Running,
    command: { name: CommandName; actor: Actor; input: string },
  ): Promise<Result<unknown>> {
    const { name, actor, input } = command;
    for (let attempt = 1; attempt <= ATTEMPTS; attempt++) {
      if (running.cancelled) return CANCELLED;
      Object.assign(running, { count: 0, attempt });
      const file = `${this.database}.plan-${(this.number += 1)}`;
      try {
        const toPlan = { name, actor, input: JSON.parse(input) as unknown };
        const plan = await this.plan(running, { database: this.database, file, toPlan });
        if (!plan) return CANCELLED;
        if (!plan.ok) return plan;
        if ((toPlan.input as { dry?: boolean }).dry) return { ok: true, value: plan.value.value };
        const done = await this.writer.apply(plan.value);
        if (done.ok || !done.issues.some(({ code }) => code === 'overtaken')) return done;
      } finally {
        dropPlan(file);
      }
    }
    return this.writer.send(name, actor, input);
  }

  /** Works a write out in a thread of its own; null where it was cancelled. */
  private plan(running: Running, given: ToPlanner): Promise<Result<PlannedWrite> | null> {
    return new Promise((resolve) => {
      const worker = new Worker(new URL('./planner.js', import.meta.url), { workerData: given });
      let result: Result<PlannedWrite> | null = refused({
        code: 'not-written',
        message: 'This change was ended before it was worked out; nothing was changed.',
        fix: 'Try again in a moment.',
      });
      running.cancel = () => {
        result = null;
        void worker.terminate();
      };
      worker.on('message', (message: FromPlanner) => {
        if ('count' in message) running.count = message.count;
        else result = running.cancelled ? null : message.planned;
      });
      worker.on('error', (error) => console.error(error));
      worker.once('exit', () => resolve(result));
    });
  }
}
