'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import { ask } from './send.ts';

/** So many rows are asked for at once, as the server gives them. */
const AT_ONCE = 100;

type Pages<Row> = ReadonlyMap<number, readonly Row[]>;

/** Rows of a long table that have been seen so far, and how many there are. */
export interface Rows<Row> {
  total: number;
  rowAt: (index: number) => Row | undefined;
  /** Asks for those in sight. */
  see: (from: number, to: number) => void;
  problem: string | null;
}

/**
 * Rows by their places: the first are there, the others are asked for as they come into sight. When
 * the table is drawn anew, what was seen stays until it is there anew.
 */
export function useRows<Row>(
  /** The outcome that is asked for rows. */
  what: string,
  table: { rows: readonly Row[]; total: number },
  /** What is asked besides from which place on. */
  asked: object,
): Rows<Row> {
  const [pages, setPages] = useState<Pages<Row>>(new Map([[0, table.rows]]));
  const [total, setTotal] = useState(table.total);
  const [problem, setProblem] = useState<string | null>(null);
  const sight = useRef<[number, number]>([0, 0]);
  const fresh = useRef(new Set([0]));
  const body = JSON.stringify(asked);
  const see = useCallback(
    (from: number, to: number) => {
      sight.current = [from, to];
      for (let page = Math.floor(from / AT_ONCE); page <= Math.floor(to / AT_ONCE); page++) {
        if (fresh.current.has(page)) continue;
        fresh.current.add(page);
        const all = fresh.current;
        const input = { ...(JSON.parse(body) as object), from: page * AT_ONCE };
        void ask<{ rows: Row[]; total: number }>(what, input).then((answer) => {
          if (all !== fresh.current) return;
          setProblem('value' in answer ? null : answer.problem);
          if (!('value' in answer)) return void all.delete(page);
          setPages((before) => new Map(before).set(page, answer.value.rows));
          setTotal(answer.value.total);
        });
      }
    },
    [body, what],
  );
  useEffect(() => {
    fresh.current = new Set([0]);
    setPages((before) => new Map(before).set(0, table.rows));
    setTotal(table.total);
    see(...sight.current);
  }, [table, see]);
  return {
    total,
    problem,
    see,
    rowAt: (index) => pages.get(Math.floor(index / AT_ONCE))?.[index % AT_ONCE],
  };
}
