import type { Block } from '../design/block.ts';
import { blocksWithin } from '../design/block-ids.ts';
import type { Template } from '../design/spec.ts';

/** The trees of blocks of a template. */
export type BlockTrees = Pick<Template, 'blocks' | 'slots'>;

/** Which properties of a kind of block hold blocks, by the kind: in one list, or in several. */
export type InnerLists = ReadonlyMap<string, readonly InnerList[]>;

/** A property of a kind of block that holds blocks. */
interface InnerList {
  name: string;
  many: boolean;
  /** Whether it says nothing of it where it is empty. */
  isQuiet?: boolean;
}

/** A list of blocks: `blocks`, `slots/foot`, and within blocks `b3/blocks`, `b3/columns/1`. */
export type ListPath = string;

/** A place in a list of blocks. */
export interface BlockPlace {
  list: ListPath;
  /** How many stand before it. */
  index: number;
}

/**
 * A block as a line of the outline. A list that holds nothing has a line without one; so has each of
 * several lists side by side, which begins with it.
 */
export interface OutlineLine extends BlockPlace {
  block: Block | null;
  /** Which of several lists it begins, from 1; null where it begins none. */
  column: number | null;
  /** What its list is called, where it is not the only one; null elsewhere. */
  called: string | null;
  depth: number;
  /** How many stand in its list. */
  count: number;
  /** As issues name it, counted from 1: `blocks/2/columns/1/3`. */
  place: string;
}

/** The blocks of a template in the order they are written, each with where it stands. */
export function outlineOf(trees: BlockTrees, inner: InnerLists): OutlineLine[] {
  const lines: OutlineLine[] = [];
  const add = (
    list: ListPath,
    blocks: readonly Block[],
    { depth, place, isQuiet = false }: { depth: number; place: string; isQuiet?: boolean },
  ): void => {
    const count = blocks.length;
    const [, name, at] = list.split('/');
    const column = at === undefined ? null : Number(at) + 1;
    const called = column === null && name !== undefined && name !== 'blocks' ? name : null;
    const isNamed = column !== null || called !== null;
    if (isNamed || (count === 0 && !isQuiet))
      lines.push({ block: null, column, called, depth, list, index: 0, count, place });
    blocks.forEach((block, index) => {
      const own = `${place}/${index + 1}`;
      const line = { depth: isNamed ? depth + 1 : depth, list, index, count };
      lines.push({ block, column: null, called: null, ...line, place: own });
      for (const { path, blocks: within, isQuiet } of listsWithin(block, inner)) {
        const [, property, nth] = path.split('/');
        const number = nth === undefined ? '' : `/${Number(nth) + 1}`;
        add(path, within, { depth: line.depth + 1, place: `${own}/${property}${number}`, isQuiet });
      }
    });
  };
  for (const [path, blocks] of topLists(trees)) add(path, blocks, { depth: 0, place: path });
  return lines;
}

/** Where a block stands; null where there is none of the id. */
export function placeOfBlock(trees: BlockTrees, inner: InnerLists, id: string): OutlineLine | null {
  return outlineOf(trees, inner).find(({ block }) => block?.id === id) ?? null;
}

/** Trees with a block put in at a place. */
export function withBlock<T extends BlockTrees>(
  trees: T,
  inner: InnerLists,
  { list, index }: BlockPlace,
  block: Block,
): T {
  return changed(trees, inner, list, (blocks) => blocks.toSpliced(index, 0, block));
}

/** Trees without a block, and what stands within it. */
export function withoutBlock<T extends BlockTrees>(trees: T, inner: InnerLists, id: string): T {
  const place = placeOfBlock(trees, inner, id);
  if (!place) return trees;
  return changed(trees, inner, place.list, (blocks) => blocks.toSpliced(place.index, 1));
}

/** Trees with another block in the place of one. */
export function withBlockChanged<T extends BlockTrees>(
  trees: T,
  inner: InnerLists,
  id: string,
  change: (block: Block) => Block,
): T {
  const place = placeOfBlock(trees, inner, id);
  if (!place) return trees;
  return changed(trees, inner, place.list, (blocks) =>
    blocks.map((block) => (block.id === id ? change(block) : block)),
  );
}

/**
 * Trees with a block moved to a place, which is counted before it leaves its own. The same ones
 * where it cannot stand there: within itself.
 */
export function withBlockMoved<T extends BlockTrees>(
  trees: T,
  inner: InnerLists,
  id: string,
  to: BlockPlace,
): T {
  const from = placeOfBlock(trees, inner, id);
  if (!from?.block) return trees;
  const own = new Set([...blocksWithin(from.block)].map((block) => block.id));
  if (own.has(to.list.split('/')[0]!)) return trees;
  const isAfter = to.list === from.list && to.index > from.index;
  const index = isAfter ? to.index - 1 : to.index;
  const without = withoutBlock(trees, inner, id);
  return withBlock(without, inner, { list: to.list, index }, from.block);
}

/** Ways in which a block is moved by keys. */
export type BlockMove = 'up' | 'down' | 'in' | 'out';

/**
 * Where a block goes by a key: past its neighbour or into the list beside its own, into the block
 * before it, or behind the one it stands in; null where it cannot.
 */
export function movedTo(
  trees: BlockTrees,
  inner: InnerLists,
  id: string,
  move: BlockMove,
): BlockPlace | null {
  const lines = outlineOf(trees, inner);
  const line = lines.find(({ block }) => block?.id === id);
  if (!line) return null;
  const { list, index, count } = line;
  if (move === 'up' && index > 0) return { list, index: index - 1 };
  if (move === 'down' && index < count - 1) return { list, index: index + 2 };
  if (move === 'up' || move === 'down') {
    const [holder, name, at] = list.split('/');
    const beside = `${holder}/${name}/${Number(at) + (move === 'up' ? -1 : 1)}`;
    const first = lines.find((other) => other.list === beside);
    return first ? { list: beside, index: move === 'up' ? first.count : 0 } : null;
  }
  if (move === 'out') {
    const holder = lines.find(({ block }) => block?.id === list.split('/')[0]);
    return holder ? { list: holder.list, index: holder.index + 1 } : null;
  }
  const before = lines.find(
    (other) => other.block && other.list === list && other.index === index - 1,
  )?.block;
  const lists = before ? listsWithin(before, inner) : [];
  const into = lists.find(({ path }) => path.endsWith('/blocks')) ?? lists.at(-1);
  return into ? { list: into.path, index: into.blocks.length } : null;
}

/** A block with new ids on it and on all within it. */
export function copyOfBlock(block: Block, newId: () => string): Block {
  const copy = structuredClone(block);
  for (const own of blocksWithin(copy)) own.id = newId();
  return copy;
}

/** A list of blocks within a block. */
export interface InnerBlocks {
  path: ListPath;
  blocks: readonly Block[];
  isQuiet: boolean;
}

/** The lists of blocks that stand in a block. */
export function listsWithin(block: Block, inner: InnerLists): InnerBlocks[] {
  return (inner.get(block.block) ?? []).flatMap(({ name, many, isQuiet = false }) => {
    const value = (block[name] ?? []) as Block[] | Block[][];
    const path = `${block.id}/${name}`;
    if (!many) return [{ path, blocks: value as Block[], isQuiet }];
    return (value as Block[][]).map((own, i) => ({ path: `${path}/${i}`, blocks: own, isQuiet }));
  });
}

function topLists({ blocks, slots }: BlockTrees): [ListPath, readonly Block[]][] {
  return [
    ['blocks', blocks],
    ...Object.entries(slots).map(([name, own]): [ListPath, Block[]] => [`slots/${name}`, own]),
  ];
}

type Change = (blocks: readonly Block[]) => Block[];

/** Trees with one list changed; everything beside the way to it is the same. */
function changed<T extends BlockTrees>(
  trees: T,
  inner: InnerLists,
  list: ListPath,
  change: Change,
): T {
  const [holder, name, at] = list.split('/');
  if (list === 'blocks') return { ...trees, blocks: change(trees.blocks) };
  if (holder === 'slots')
    return { ...trees, slots: { ...trees.slots, [name!]: change(trees.slots[name!] ?? []) } };
  const place = placeOfBlock(trees, inner, holder!);
  if (!place) return trees;
  return changed(trees, inner, place.list, (blocks) =>
    blocks.map((block) => {
      if (block.id !== holder) return block;
      const value = (block[name!] ?? []) as Block[] | Block[][];
      const next =
        at === undefined
          ? change(value as Block[])
          : (value as Block[][]).map((own, i) => (i === Number(at) ? change(own) : own));
      return { ...block, [name!]: next };
    }),
  );
}
