import type { Issue } from './issue.ts';

/** How many names are compared with one that was not found. */
const LOOKED_AT = 1000;

/**
 * The name nearest to a given one by edit distance, where near enough to be meant; else
 * undefined.
 */
export function nearest(name: string, names: Iterable<string>): string | undefined {
  const wanted = name.toLowerCase().slice(0, 200);
  let limit = Math.max(1, Math.floor(wanted.length / 3));
  let best: string | undefined;
  let looked = 0;
  for (const candidate of names) {
    if (looked++ === LOOKED_AT) break;
    if (Math.abs(candidate.length - wanted.length) > limit) continue;
    const distance = editDistance(wanted, candidate.toLowerCase(), limit);
    if (distance > limit) continue;
    best = candidate;
    if (distance === 0) break;
    limit = distance - 1;
  }
  return best;
}

/**
 * Edit distance where a swap of neighbours counts one (optimal string alignment); any number
 * above
 * `limit` where it is more than that.
 */
export function editDistance(a: string, b: string, limit = Infinity): number {
  let [start, aEnd, bEnd] = [0, a.length, b.length];
  while (start < aEnd && start < bEnd && a[start] === b[start]) start += 1;
  while (aEnd > start && bEnd > start && a[aEnd - 1] === b[bEnd - 1])
    [aEnd, bEnd] = [aEnd - 1, bEnd - 1];
  return distanceOf(a.slice(start, aEnd), b.slice(start, bEnd), limit);
}

/** Of texts that neither begin nor end alike. */
function distanceOf(a: string, b: string, limit: number): number {
  if (a.length === 0 || b.length === 0) return Math.max(a.length, b.length);
  let [before, row]: [number[], number[]] = [[], Array.from({ length: b.length + 1 }, (_, j) => j)];
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    let least = i;
    for (let j = 1; j <= b.length; j++) {
      const same = a[i - 1] === b[j - 1] ? 0 : 1;
      let cost = Math.min(row[j]! + 1, next[j - 1]! + 1, row[j - 1]! + same);
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
        cost = Math.min(cost, before[j - 2]! + 1);
      next.push(cost);
      least = Math.min(least, cost);
    }
    if (least > limit) return least;
    [before, row] = [row, next];
  }
  return row[b.length]!;
}

/** What to do about a name that was not found: the one that may be meant, else as said. */
export function didYouMean(name: string, names: Iterable<string>, otherwise: string): string {
  const near = nearest(name, names);
  return near === undefined ? otherwise : `Did you mean "${near}"?`;
}

/** An issue about a name that leads nowhere, with the one that may be meant. */
export function unknownName(
  path: string,
  message: string,
  name: string,
  known: readonly string[],
): Issue {
  const otherwise =
    known.length > 0 ? `There are: ${known.slice(0, 10).join(', ')}.` : 'Add it first.';
  return { code: 'unknown-name', path, message, fix: didYouMean(name, known, otherwise) };
}
