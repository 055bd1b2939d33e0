import { compareCodePoints } from '../text.ts';
import type { Block } from './block.ts';

/** All blocks of a tree, those within others after them, in the order they are written. */
export function* blocksWithin(value: unknown): Generator<Block> {
  if (Array.isArray(value)) for (const item of value) yield* blocksWithin(item);
  else if (typeof value === 'object' && value !== null) {
    if (typeof (value as Block).block === 'string') yield value as Block;
    for (const inner of Object.values(value)) yield* blocksWithin(inner);
  }
}

/**
 * The same parts with an id on every one: a letter and a number for those that have none, in their
 * order. Once stored, an id stays with its part wherever that is moved.
 */
export function withIds<T extends { id?: string | undefined }>(
  parts: readonly T[],
  letter: string,
): (T & { id: string })[] {
  const used = new Set(parts.map(({ id }) => id));
  let next = 1;
  return parts.map((part) => {
    if (part.id !== undefined) return part as T & { id: string };
    while (used.has(`${letter}${next}`)) next++;
    return { id: `${letter}${next++}`, ...part };
  });
}

/**
 * The same trees with an id on every block, `b1`, `b2`, …, and its properties in one order, so that
 * equal trees are written alike.
 */
export function withBlockIds<T>(trees: T): T {
  const ids = withIds([...blocksWithin(trees)], 'b').map(({ id }) => id);
  let next = 0;
  const copy = (value: unknown): unknown => {
    if (Array.isArray(value)) return value.map(copy);
    if (typeof value !== 'object' || value === null) return value;
    const isBlock = typeof (value as Block).block === 'string';
    const { block, id: _, ...rest } = value as Block;
    // Ids are given in the order in which blocks are written: before the properties are put in
    // order, and within them as they stand.
    const own = isBlock ? { block, id: ids[next++] } : {};
    const inner = Object.entries(isBlock ? rest : value).map(([k, v]) => [k, copy(v)] as const);
    const order = isBlock ? [...inner].sort(([a], [b]) => compareCodePoints(a, b)) : inner;
    return { ...own, ...Object.fromEntries(order) };
  };
  return copy(trees) as T;
}

/** Ids that several blocks of a tree share. */
export function doubledBlockIds(trees: unknown): string[] {
  const seen = new Set<string>();
  const again = new Set<string>();
  for (const { id } of blocksWithin(trees)) {
    if (id === undefined) continue;
    if (seen.has(id)) again.add(id);
    seen.add(id);
  }
  return [...again];
}
