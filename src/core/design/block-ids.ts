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
 * The same trees with an id on every block: `b1`, `b2`, … for those that have none, in the order
 * they are written. Once stored, an id stays with its block wherever that is moved.
 */
export function withBlockIds<T>(trees: T): T {
  const copy = structuredClone(trees);
  const used = new Set<string>();
  for (const { id } of blocksWithin(copy)) if (id !== undefined) used.add(id);
  let next = 1;
  for (const block of blocksWithin(copy)) {
    if (block.id !== undefined) continue;
    while (used.has(`b${next}`)) next++;
    block.id = `b${next++}`;
  }
  return copy;
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
