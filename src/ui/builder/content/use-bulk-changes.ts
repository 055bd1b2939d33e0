'use client';

import type { CommandInput, CommandResult } from '@/server/commands/index.ts';
import { counted } from '../format.ts';
import { command } from '../send.ts';
import { type Attempts, type Said, useAttempts } from '../use-attempts.ts';
import type { BulkResult } from './bulk-dialog.tsx';
import type { SaveCell } from './edit-cell.tsx';

/** What was done to rows of the table, told and taken back. */
export interface BulkChanges extends Attempts {
  /** Tells what came of something that was done; `did` is what the entries are by it. */
  tell: (result: BulkResult, did: string) => void;
  saveCell: SaveCell;
  /** The same in a further language, by its id; null for the site's own. */
  saveWord: (language: string | null, ...cell: Parameters<SaveCell>) => Promise<boolean>;
  /** Takes one off the site now. */
  retire: (entry: { id: string; name: string }) => Promise<boolean>;
  /** Puts an entry before another one by a field; behind all where that is null. */
  move: (entry: string, field: string, before: string | null) => void;
}

/** Has rows of the table changed, tells what came of it, and takes it back. */
export function useBulkChanges(): BulkChanges {
  const attempts = useAttempts();
  const { attempt } = attempts;
  const undo = (change: number): void =>
    void attempt((job) => command('undoChange', { change }, job), undone);
  const said = (words: string, change: number | null) => ({
    words,
    undo: change === null ? undefined : { label: 'Undo', run: () => undo(change) },
  });
  const saveWord: BulkChanges['saveWord'] = (language, row, field, value) => {
    const spoken = language === null ? {} : { language };
    return attempt(
      () => changeOne(row.id, { do: 'setValue', field: field.id, value, ...spoken }),
      ({ change }) =>
        said(`${field.label} of “${row.name}” is saved; not public until it is published.`, change),
    );
  };
  return {
    ...attempts,
    tell: (result, did) =>
      void attempt(
        () => Promise.resolve({ ok: true, value: result }),
        (value) => said(wordsOf(value, did), value.change),
      ),
    move: (entry, field, before) => {
      if (entry === before) return;
      void attempt(
        () => command('moveEntry', { entry, field, before }),
        () => ({ words: 'Moved; not public until it is published.' }),
      );
    },
    retire: ({ id, name }) =>
      attempt(
        () => changeOne(id, { do: 'retire', at: null }),
        ({ change }) => said(`“${name}” is off the site.`, change),
      ),
    saveCell: (...cell) => saveWord(null, ...cell),
    saveWord,
  };
}

/** Changes one entry; a refusal of it is one of the whole. */
async function changeOne(
  id: string,
  what: CommandInput<'changeEntries'>['what'],
): Promise<CommandResult<'changeEntries'>> {
  const result = await command('changeEntries', { what, which: { ids: [id] } });
  if (!result.ok) return result;
  const [refused] = result.value.refused;
  if (!refused) return result;
  const { message, fix } = refused;
  return { ok: false, issues: [{ code: 'refused', message, fix }] };
}

/** What came of taking something back. */
export function undone({ done, same }: Pick<BulkResult, 'done' | 'same'>): Said {
  const stay =
    same > 0
      ? `; ${counted(same, 'was', 'were')} changed since and ${same === 1 ? 'stays' : 'stay'}`
      : '';
  return { words: `${counted(done, 'entry is', 'entries are')} as before${stay}.` };
}

/** "12 entries published; 3 were so already; 2 left as they were: Summary is blank. (2)" */
function wordsOf({ done, same, refused }: BulkResult, did: string): string {
  const left = refused.reduce((sum, { count }) => sum + count, 0);
  const reasons = refused.map(({ message, count }) => `${message} (${count})`).join(' ');
  const parts = [
    `${counted(done, 'entry', 'entries')} ${did}`,
    ...(same > 0 ? [`${counted(same, 'was', 'were')} so already`] : []),
    ...(left > 0 ? [`${left.toLocaleString('en')} left as they were: ${reasons}`] : []),
  ];
  return `${parts.join('; ')}${left > 0 ? '' : '.'}`;
}
