import { editDistance } from '../did-you-mean.ts';
import { compareCodePoints } from '../text.ts';
import { likeness } from './names.ts';

/** So many pairs are found, and so many compared: past them it is not looked on. */
const [MOST_FOUND, MOST_COMPARED] = [1000, 100_000];
/** From so many names on, one letter is taken out rather than two. */
const MANY = 3000;
/** Letters in a name from which on one of them, and then two, may be another. */
const [ONE_OFF, TWO_OFF] = [4, 7];

/**
 * The pairs of names that are nearly the same, as `nearNames` has it, nearest first. Names are
 * compared only where they share what is left when some letters are taken out, so that ten thousand
 * are looked through at once; of that many, those two letters off are not all found.
 */
export function lookAlikes<T extends { name: string }>(
  names: readonly T[],
  language: string,
): [T, T][] {
  const folded = names.map(({ name }) => likeness(name, language));
  const groups = new Map<string, number[]>();
  folded.forEach((text, i) => {
    for (const left of lettersLeft(text, names.length > MANY ? 1 : 2)) {
      const known = groups.get(left);
      if (known) known.push(i);
      else groups.set(left, [i]);
    }
  });
  const found = new Map<string, { distance: number; pair: [T, T] }>();
  for (const [a, b] of pairsIn(groups)) {
    if (found.size >= MOST_FOUND) break;
    const id = `${a} ${b}`;
    if (found.has(id)) continue;
    const limit = offBy(Math.max(folded[a]!.length, folded[b]!.length));
    const distance = editDistance(folded[a]!, folded[b]!, limit);
    if (distance <= limit) found.set(id, { distance, pair: [names[a]!, names[b]!] });
  }
  return [...found.values()]
    .sort((a, b) => a.distance - b.distance || compareCodePoints(a.pair[0].name, b.pair[0].name))
    .map(({ pair }) => pair);
}

function* pairsIn(groups: ReadonlyMap<string, number[]>): Generator<[number, number]> {
  let count = 0;
  for (const group of groups.values())
    for (const [i, a] of group.entries())
      for (let j = i + 1; j < group.length; j++) {
        if ((count += 1) > MOST_COMPARED) return;
        yield [a, group[j]!];
      }
}

function offBy(length: number): number {
  return length < ONE_OFF ? 0 : length < TWO_OFF ? 1 : 2;
}

/** A text, and what is left of it without one letter, or without two where so many may be other. */
function lettersLeft(text: string, most: number): Set<string> {
  let level = new Set([text]);
  const all = new Set(level);
  for (let i = 0; i < Math.min(most, offBy(text.length)); i++) {
    level = new Set([...level].flatMap(withoutOne));
    for (const left of level) all.add(left);
  }
  return all;
}

function withoutOne(text: string): string[] {
  return Array.from({ length: text.length }, (_, i) => text.slice(0, i) + text.slice(i + 1));
}
