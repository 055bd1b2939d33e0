import type { z } from 'zod';
import type { Result } from '@/core/issue.ts';
import { changeEntries, undoChange } from './bulk/change-entries.ts';
import type { Command } from './definition.ts';
import { endByHand, setByHand } from './by-hand.ts';
import { cancelPlan } from './cancel-plan.ts';
import { deleteEntry } from './delete-entry.ts';
import { moveEntry } from './move-entry.ts';
import { planChange } from './plan-change.ts';
import { changePick } from './picks/change-pick.ts';
import { movePick } from './picks/move-pick.ts';
import { pick } from './picks/pick.ts';
import { purgeEntry } from './purge-entry.ts';
import { unpick } from './picks/unpick.ts';
import { chooseColumns } from './desk/choose-columns.ts';
import { dropFilter, keepFilter } from './desk/keep-filter.ts';
import { discardEdits, redoEdit, undoEdit } from './bench/undo-edit.ts';
import { editDesign } from './bench/edit-design.ts';
import { rebaseEdit } from './bench/rebase-edit.ts';
import { release } from './bench/release.ts';
import { undoRelease } from './bench/undo-release.ts';
import { restoreEntry } from './restore-entry.ts';
import { saveEntry } from './save-entry.ts';
import { saveWords } from './save-words.ts';
import { setReference } from './set-reference.ts';
import { deleteStarter } from './starters/delete-starter.ts';
import { makeStarter } from './starters/make-starter.ts';
import { saveStarter } from './starters/save-starter.ts';
import { addSubjects } from './subjects/add-subjects.ts';
import { bringIn } from './intake/bring-in.ts';
import { addFont } from './media/add-font.ts';
import { addMedium } from './media/add-medium.ts';
import { changeMedium } from './media/change-medium.ts';
import { deleteMedium } from './media/delete-medium.ts';
import { replaceMedium } from './media/replace-medium.ts';
import { restoreMedium } from './media/restore-medium.ts';
import { changeSubjects } from './subjects/change-subjects.ts';
import { undoSubjects } from './subjects/undo-subjects.ts';
import { startSite } from './start-site.ts';

/** Every command the writer thread carries out, by name. */
export const COMMANDS = {
  startSite,
  saveEntry,
  saveWords,
  setReference,
  moveEntry,
  planChange,
  cancelPlan,
  setByHand,
  endByHand,
  deleteEntry,
  restoreEntry,
  purgeEntry,
  changeEntries,
  undoChange,
  saveStarter,
  makeStarter,
  deleteStarter,
  chooseColumns,
  keepFilter,
  dropFilter,
  addSubjects,
  changeSubjects,
  undoSubjects,
  bringIn,
  addFont,
  addMedium,
  changeMedium,
  replaceMedium,
  deleteMedium,
  restoreMedium,
  pick,
  changePick,
  unpick,
  movePick,
  editDesign,
  undoEdit,
  redoEdit,
  discardEdits,
  rebaseEdit,
  release,
  undoRelease,
} as const;
/** The name of a command. */
export type CommandName = keyof typeof COMMANDS;
/** What a command takes. */
export type CommandInput<N extends CommandName> = z.input<(typeof COMMANDS)[N]['input']>;
/** What a command gives. */
export type CommandResult<N extends CommandName> = Result<ReturnType<(typeof COMMANDS)[N]['run']>>;

/** Whether browsers may ask for a command. */
export function isAskedFor(name: CommandName): boolean {
  return (COMMANDS[name] as Command).fromServer !== true;
}

/** Whether there is a command of a name. */
export function isCommand(name: string): name is CommandName {
  return Object.hasOwn(COMMANDS, name);
}
