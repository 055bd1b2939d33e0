import type { z } from 'zod';
import type { Result } from '@/core/issue.ts';
import { cancelPlan } from './cancel-plan.ts';
import { deleteEntry } from './delete-entry.ts';
import { planChange } from './plan-change.ts';
import { releaseEdit } from './release-design.ts';
import { restoreEntry } from './restore-entry.ts';
import { saveEntry } from './save-entry.ts';

/** Every command the writer thread carries out, by name. */
export const COMMANDS = {
  saveEntry,
  planChange,
  cancelPlan,
  deleteEntry,
  restoreEntry,
  releaseEdit,
} as const;
/** The name of a command. */
export type CommandName = keyof typeof COMMANDS;
/** What a command takes. */
export type CommandInput<N extends CommandName> = z.input<(typeof COMMANDS)[N]['input']>;
/** What a command gives. */
export type CommandResult<N extends CommandName> = Result<ReturnType<(typeof COMMANDS)[N]['run']>>;

/** Whether there is a command of a name. */
export function isCommand(name: string): name is CommandName {
  return Object.hasOwn(COMMANDS, name);
}
