'use client';

import { useEffect, useState } from 'react';
import type { ContentRow } from '@/server/queries/content.ts';

/** Rows that something is done to: some, or all that match. */
export interface Chosen {
  /** All that match, however many. */
  all: boolean;
  ids: ReadonlySet<string>;
  count: number;
  isChosen: (row: ContentRow) => boolean;
  /** Chooses one or not; with Shift, all between it and the last one as well. */
  choose: (index: number, is: boolean, through: boolean) => void;
  /** All that match, or none. */
  chooseAll: (is: boolean) => void;
}

/** What is chosen of a list; another list begins with nothing chosen. */
export function useChosen(
  listKey: string,
  { total, rowAt }: { total: number; rowAt: (index: number) => ContentRow | undefined },
): Chosen {
  const [all, setAll] = useState(false);
  const [ids, setIds] = useState<ReadonlySet<string>>(new Set());
  const [last, setLast] = useState<number | null>(null);
  useEffect(() => {
    setAll(false);
    setIds(new Set());
    setLast(null);
  }, [listKey]);
  return {
    all,
    ids,
    count: all ? total : ids.size,
    isChosen: ({ id }) => all || ids.has(id),
    choose: (index, is, through) => {
      const [from, to] =
        through && last !== null ? [last, index].sort((a, b) => a - b) : [index, index];
      const next = new Set(ids);
      for (let i = from!; i <= to!; i++) {
        const row = rowAt(i);
        if (row && is) next.add(row.id);
        else if (row) next.delete(row.id);
      }
      setAll(false);
      setIds(next);
      setLast(index);
    },
    chooseAll: (is) => {
      setAll(is);
      setIds(new Set());
    },
  };
}
