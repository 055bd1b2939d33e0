import type { Connection } from '../db/connection.ts';
import type { AddressHistory, HeldFact } from '@/core/address/model.ts';
import { statement } from './statement.ts';

/** A fact that does not agree with the rest of what was loaded. */
export interface Contradiction {
  entry: string;
  fact: HeldFact;
}

/**
 * The facts that the stored addresses do not bear out: the entry was not live then, or somebody
 * else held the path. Addresses that adjoin count as one.
 */
export function contradictions(
  connection: Connection,
  histories: ReadonlyMap<string, AddressHistory>,
): Contradiction[] {
  const rows = statement<Stretch>(
    connection,
    `SELECT path, starts AS "from", ends AS "to" FROM address
       WHERE entry = ? AND role = 'current' AND starts < ? ORDER BY starts`,
  );
  const found: Contradiction[] = [];
  for (const [entry, { until, held }] of histories) {
    const stored = joined(rows.all(entry, until), until);
    for (const fact of joined(held, until)) {
      const isStored = stored.some(
        (row) => row.path === fact.path && row.from === fact.from && row.to === fact.to,
      );
      if (!isStored) found.push({ entry, fact: held.find(({ from }) => from === fact.from)! });
    }
  }
  return found;
}

type Stretch = Pick<HeldFact, 'path' | 'from' | 'to'>;

/** Stretches up to an instant, those of one path that adjoin made one. */
function joined(stretches: readonly Stretch[], until: number): Stretch[] {
  const all: Stretch[] = [];
  for (const { path, from, to } of stretches) {
    const end = Math.min(to ?? until, until);
    const last = all.at(-1);
    if (last?.path === path && last.to === from) last.to = end;
    else all.push({ path, from, to: end });
  }
  return all;
}
