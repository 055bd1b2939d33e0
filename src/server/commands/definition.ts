import type { z } from 'zod';
import type { Issue } from '@/core/issue.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import type { Actor, Deed, DeedObject } from '../permit.ts';

/** What a command works with, inside its transaction. */
export interface CommandContext {
  connection: Connection;
  actor: Actor;
  /** The write's instant, ms UTC. */
  at: Instant;
  /** The design released as of that instant. */
  site: CompiledSite;
  /** Shows that long work goes on; a command that shows nothing for a minute is ended. */
  step: () => void;
  /** How many entries may be worked out while others wait; null where nobody does. */
  most: number | null;
}

/** One write use case: who may, what it takes, and what it does in one transaction. */
export interface Command<S extends z.ZodType = z.ZodType, R = unknown> {
  deed: Deed;
  input: S;
  /** Whether the server alone says what it takes, after looking at a file; no browser may. */
  fromServer?: true;
  /** Whether it is done where there is no site yet; what it then works with has no types. */
  beforeSite?: true;
  /** What it is done to, where that is not the site as a whole. */
  about?: (input: z.output<S>) => DeedObject[];
  /** Gives what came of it. @throws Refused, which leaves no trace */
  run: (context: CommandContext, input: z.output<S>) => R;
}

/** A command with the types of its input and result kept. */
export function command<S extends z.ZodType, R>(definition: Command<S, R>): Command<S, R> {
  return definition;
}

/** Leaves the transaction without a trace, with what stands in the way. */
export class Refused extends Error {
  readonly issues: Issue[];

  constructor(...issues: Issue[]) {
    super('refused');
    this.name = 'Refused';
    this.issues = issues;
  }
}

/** Leaves the transaction without a trace, with what would have come of it. */
export class TriedOnly extends Error {
  constructor(readonly result: unknown) {
    super('tried only');
    this.name = 'TriedOnly';
  }
}
