import type { Connection } from '../db/connection.ts';
import type { Actor } from './permit.ts';
import { cancelPlan, planChange } from './plan-change.ts';
import { releaseEdit } from './release-design.ts';
import { saveEntry } from './write-entry.ts';

/** Every command the writer thread carries out, by name. */
export const COMMANDS = { saveEntry, planChange, cancelPlan, releaseEdit } as const;
export type CommandName = keyof typeof COMMANDS;
/** What a command takes. */
export type CommandInput<N extends CommandName> = Parameters<(typeof COMMANDS)[N]>[2];
/** What a command gives. */
export type CommandResult<N extends CommandName> = ReturnType<(typeof COMMANDS)[N]>;

/** Carries out a command by name. */
export function runCommand<N extends CommandName>(
  connection: Connection,
  name: N,
  actor: Actor,
  input: CommandInput<N>,
  wallClock: number,
): CommandResult<N> {
  const command = COMMANDS[name] as (
    c: Connection,
    a: Actor,
    i: CommandInput<N>,
    w: number,
  ) => CommandResult<N>;
  return command(connection, actor, input, wallClock);
}
