import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Block } from '../design/block.ts';
import { blocksWithin } from '../design/block-ids.ts';
import {
  type BlockMove,
  type BlockTrees,
  type InnerLists,
  copyOfBlock,
  movedTo,
  outlineOf,
  placeOfBlock,
  withBlock,
  withBlockChanged,
  withBlockMoved,
  withoutBlock,
} from './block-tree.ts';

const INNER: InnerLists = new Map([
  ['group', [{ name: 'blocks', many: false }]],
  ['columns', [{ name: 'columns', many: true }]],
]);
const MOVES: BlockMove[] = ['up', 'down', 'in', 'out'];

const { block } = fc.letrec<{ block: Block }>((tie) => {
  const blocks = fc.array(tie('block'), { maxLength: 3 });
  return {
    block: fc.oneof(
      { maxDepth: 3, depthIdentifier: 'blocks' },
      fc.record({ block: fc.constant('text'), text: fc.constantFrom('a', 'b') }),
      fc.record({ block: fc.constant('group'), blocks }),
      fc.record({
        block: fc.constant('columns'),
        columns: fc.array(blocks, { minLength: 1, maxLength: 3 }),
      }),
    ) as fc.Arbitrary<Block>,
  };
});
const trees: fc.Arbitrary<BlockTrees> = fc
  .record({
    blocks: fc.array(block, { maxLength: 4 }),
    slots: fc.dictionary(fc.constantFrom('foot', 'side'), fc.array(block, { maxLength: 2 })),
  })
  .map((own) => {
    let next = 0;
    for (const one of blocksWithin(own)) one.id = `b${++next}`;
    return own;
  });
const idsOf = (own: BlockTrees): string[] => [...blocksWithin(own)].map(({ id }) => id!);
const sorted = (ids: string[]): string[] => ids.toSorted();
const some = <T>(all: readonly T[], n: number): T | undefined => all[n % all.length];

test('the outline has every block once, in the order in which they are written', () => {
  fc.assert(
    fc.property(trees, (own) => {
      const lines = outlineOf(own, INNER).filter((line) => line.block);
      expect(lines.map((line) => line.block!.id)).toEqual(idsOf(own));
      for (const { block: one, place } of lines) {
        const found = place.split('/').reduce<unknown>((value, name) => {
          const key = Array.isArray(value) ? Number(name) - 1 : name;
          return (value as Record<string, unknown>)[key];
        }, slotsBeside(own));
        expect((found as Block).id).toBe(one!.id);
      }
    }),
  );
});

/** Trees as places name them: slots are no list. */
function slotsBeside({ blocks, slots }: BlockTrees): object {
  return { blocks, slots };
}

describe('a change of the blocks', () => {
  test('moves one and what stands in it, loses none, and is taken back by the way back', () => {
    const moved = new Set<BlockMove>();
    fc.assert(
      fc.property(trees, fc.nat(), fc.constantFrom(...MOVES), (own, n, move) => {
        const id = some(idsOf(own), n);
        const to = id === undefined ? null : movedTo(own, INNER, id, move);
        if (id === undefined || !to) return;
        const from = placeOfBlock(own, INNER, id)!;
        const next = withBlockMoved(own, INNER, id, to);
        expect(sorted(idsOf(next))).toEqual(sorted(idsOf(own)));
        expect(next).not.toEqual(own);
        expect(placeOfBlock(next, INNER, id)!.block).toEqual(from.block);
        const now = placeOfBlock(next, INNER, id)!;
        const isAfter = now.list === from.list && now.index < from.index;
        const back = { list: from.list, index: from.index + (isAfter ? 1 : 0) };
        expect(withBlockMoved(next, INNER, id, back)).toEqual(own);
        moved.add(move);
      }),
      { numRuns: 500 },
    );
    expect(sorted([...moved])).toEqual(sorted(MOVES));
  });

  test('never puts a block into itself', () => {
    const inside = { block: 'group', id: 'b2', blocks: [] };
    const own = { blocks: [{ block: 'group', id: 'b1', blocks: [inside] }], slots: {} };
    for (const list of ['b1/blocks', 'b2/blocks'])
      expect(withBlockMoved(own, INNER, 'b1', { list, index: 0 })).toBe(own);
  });

  test('puts in, changes and takes out one, and leaves the others as they are', () => {
    fc.assert(
      fc.property(trees, block, fc.nat(), (own, more, n) => {
        const { list, index } = some(outlineOf(own, INNER), n) ?? { list: 'blocks', index: 0 };
        let next = 0;
        const added = copyOfBlock(more, () => `n${++next}`);
        const longer = withBlock(own, INNER, { list, index }, added);
        expect(placeOfBlock(longer, INNER, 'n1')).toMatchObject({ list, index, block: added });
        expect(withoutBlock(longer, INNER, 'n1')).toEqual(own);
        const changed = withBlockChanged(longer, INNER, 'n1', (one) => ({ ...one, style: 'wide' }));
        expect(placeOfBlock(changed, INNER, 'n1')!.block).toEqual({ ...added, style: 'wide' });
        expect(withoutBlock(changed, INNER, 'n1')).toEqual(own);
      }),
    );
  });

  test('goes by keys from one column to the next and back', () => {
    const text = (id: string): Block => ({ block: 'text', id, text: 'x' });
    const columns = [[text('a')], [text('b')]];
    const own = { blocks: [{ block: 'columns', id: 'c', columns }], slots: {} };
    expect(movedTo(own, INNER, 'a', 'down')).toEqual({ list: 'c/columns/1', index: 0 });
    expect(movedTo(own, INNER, 'b', 'up')).toEqual({ list: 'c/columns/0', index: 1 });
    expect(movedTo(own, INNER, 'b', 'down')).toBeNull();
    expect(movedTo(own, INNER, 'a', 'out')).toEqual({ list: 'blocks', index: 1 });
  });
});
