import type { SavedHistory } from '../../files/read-history.ts';

/** One of a set by the set's id; those of now, which have no end, in the order of the folder. */
interface Placed {
  set: string;
  key: string;
  to: number | null;
  parent: string | null;
  merged: string | null;
}

/**
 * The place of each subject among all that were ever in its set, by `nameOf`: as the history says,
 * unless the folder has those of now in another order. Then its order counts, and those that were
 * come behind.
 */
export function subjectPlaces(
  all: readonly Placed[],
  orders: SavedHistory['subjectOrder'],
): Map<string, number> {
  const told = new Map(
    orders.flatMap(({ set, keys }) => keys.map((key, i) => [nameOf({ set, key }), i] as const)),
  );
  const names = [...new Set(all.map(nameOf))];
  const byFolder = new Map(names.map((name, i) => [name, i]));
  const changed = setsInOtherOrder(all, told);
  return new Map(
    all.map((one) => {
      const name = nameOf(one);
      return [name, (changed.has(one.set) ? undefined : told.get(name)) ?? byFolder.get(name)!];
    }),
  );
}

/** What a subject is called among those of all sets. */
export const nameOf = ({ set, key }: { set: string; key: string }): string =>
  JSON.stringify([set, key]);

function setsInOtherOrder(
  all: readonly Placed[],
  told: ReadonlyMap<string, number>,
): ReadonlySet<string> {
  const last = new Map<string, number>();
  const changed = new Set<string>();
  for (const one of all) {
    if (one.to !== null || one.merged !== null) continue;
    const siblings = JSON.stringify([one.set, one.parent]);
    const place = told.get(nameOf(one)) ?? -1;
    if (place <= (last.get(siblings) ?? -1)) changed.add(one.set);
    last.set(siblings, place);
  }
  return changed;
}
