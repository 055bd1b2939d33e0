'use client';

import { useMemo, useState } from 'react';
import { searchKey } from '@/core/text.ts';
import type { SubjectLine, SubjectsDetail } from '@/server/queries/subjects.ts';
import { counted } from '../format.ts';
import { DeleteDialog } from './delete-dialog.tsx';
import { MergeDialog } from './merge-dialog.tsx';
import { SubjectTable } from './subject-table.tsx';
import type { Change } from './use-change.ts';

type Order = 'set' | 'name' | 'uses';

/** The subjects of a set: found, put in an order, and several of them merged or deleted. */
export function SubjectList({
  detail: { set, subjects },
  readOnly,
  change,
}: {
  detail: SubjectsDetail;
  readOnly: boolean;
  change: Change;
}) {
  const [words, setWords] = useState('');
  const [order, setOrder] = useState<Order>('set');
  const [onlyUnused, setOnlyUnused] = useState(false);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const isWhole = words.trim() === '' && order === 'set' && !onlyUnused;
  const lines = useMemo(
    () => ordered(found(subjects, words, onlyUnused), order),
    [subjects, words, onlyUnused, order],
  );
  const shown = isWhole ? lines : lines.map((line) => ({ ...line, depth: 0 }));
  const choose = (key: string, isChosen: boolean): void => {
    const next = new Set(chosen);
    if (isChosen) next.add(key);
    else next.delete(key);
    setChosen(next);
  };
  if (subjects.length === 0)
    return (
      <p className="border-t border-rule py-3 text-muted">
        Nothing in it yet. Write the first ones above; tags are also made while writing an entry.
      </p>
    );
  return (
    <div>
      <Finding
        {...{ words, order, onlyUnused }}
        kind={set.kind}
        onWords={setWords}
        onOrder={setOrder}
        onOnlyUnused={setOnlyUnused}
      />
      {!readOnly && (
        <ChosenBar
          {...{ set: set.id, subjects, change }}
          lines={subjects.filter(({ key }) => chosen.has(key))}
          shown={lines}
          onChosen={(keys) => setChosen(new Set(keys))}
        />
      )}
      <SubjectTable
        {...{ set, readOnly, chosen, change }}
        lines={shown}
        all={subjects}
        onChoose={choose}
      />
      {lines.length === 0 && <p className="py-3 text-muted">None is called that.</p>}
    </div>
  );
}

/** Which of a set are shown, and in which order. */
function Finding({
  words,
  order,
  onlyUnused,
  kind,
  onWords,
  onOrder,
  onOnlyUnused,
}: {
  words: string;
  order: Order;
  onlyUnused: boolean;
  kind: 'tags' | 'tree';
  onWords: (words: string) => void;
  onOrder: (order: Order) => void;
  onOnlyUnused: (only: boolean) => void;
}) {
  return (
    <div className="flex flex-wrap items-center gap-3">
      <input
        className="control min-w-40 flex-1"
        aria-label="Find a subject"
        placeholder="Find by name"
        value={words}
        onChange={(e) => onWords(e.target.value)}
      />
      <label className="flex items-center gap-2 text-muted">
        Order
        <select
          className="control w-36"
          value={order}
          onChange={(e) => onOrder(e.target.value as Order)}
        >
          <option value="set">{kind === 'tree' ? 'As arranged' : 'As made'}</option>
          <option value="name">By name</option>
          <option value="uses">Most used first</option>
        </select>
      </label>
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          checked={onlyUnused}
          onChange={(e) => onOnlyUnused(e.target.checked)}
        />
        Without an entry
      </label>
    </div>
  );
}

/** What can be done with those that are chosen. */
function ChosenBar({
  set,
  subjects,
  lines,
  shown,
  change,
  onChosen,
}: {
  set: string;
  subjects: readonly SubjectLine[];
  lines: SubjectLine[];
  shown: readonly SubjectLine[];
  change: Change;
  onChosen: (keys: string[]) => void;
}) {
  const [asking, setAsking] = useState<'merge' | 'delete' | null>(null);
  const close = (done: boolean): void => {
    setAsking(null);
    if (done) onChosen([]);
  };
  const none = lines.length === 0;
  return (
    <div className="mt-2 flex h-8 items-center gap-3">
      <span className="text-muted" role="status">
        {none ? 'None chosen' : `${counted(lines.length, 'subject')} chosen`}
      </span>
      <button
        type="button"
        className="button-quiet"
        onClick={() => onChosen(none ? shown.map(({ key }) => key) : [])}
      >
        {none ? 'Choose all shown' : 'Choose none'}
      </button>
      <button
        type="button"
        className="button-quiet"
        disabled={none}
        onClick={() => setAsking('merge')}
      >
        Merge …
      </button>
      <button
        type="button"
        className={`button-quiet ${none ? '' : 'text-alarm'}`}
        disabled={none}
        onClick={() => setAsking('delete')}
      >
        Delete …
      </button>
      {asking === 'merge' && <MergeDialog {...{ set, lines, subjects, change }} onClose={close} />}
      {asking === 'delete' && (
        <DeleteDialog {...{ set, lines, subjects, change }} onClose={close} />
      )}
    </div>
  );
}

function found(
  subjects: readonly SubjectLine[],
  words: string,
  onlyUnused: boolean,
): readonly SubjectLine[] {
  const wanted = searchKey(words.trim());
  if (wanted === '' && !onlyUnused) return subjects;
  return subjects.filter(
    ({ name, unused }) => (!onlyUnused || unused) && searchKey(name).includes(wanted),
  );
}

function ordered(lines: readonly SubjectLine[], order: Order): readonly SubjectLine[] {
  if (order === 'set') return lines;
  const byName = (a: SubjectLine, b: SubjectLine): number => a.name.localeCompare(b.name);
  return lines.toSorted((a, b) => (order === 'uses' && b.used - a.used) || byName(a, b));
}
