'use client';

import { useMemo, useState } from 'react';
import type { Block } from '@/core/design/block.ts';
import type { Template } from '@/core/design/spec.ts';
import {
  type BlockMove,
  type BlockPlace,
  type OutlineLine,
  copyOfBlock,
  movedTo,
  outlineOf,
  withBlock,
  withBlockChanged,
  withBlockMoved,
  withoutBlock,
} from '@/core/template/block-tree.ts';
import type { BlockOffer } from '@/core/template/offers.ts';
import type { TemplateDetail } from '@/server/queries/template.ts';
import { newId } from '../design-steps.ts';
import { keepBlock, keptBlock } from './kept-block.ts';
import type { Edits } from '../use-edits.ts';

/** A template's blocks as they are edited: which is chosen, and what is done with it. */
export interface Outline {
  lines: OutlineLine[];
  /** The line of the block that is chosen; null where none is. */
  chosen: OutlineLine | null;
  choose: (id: string | null) => void;
  change: (id: string, block: Block) => void;
  /** Puts a block after the chosen one, or within it where it holds blocks and is empty. */
  add: (block: Block) => void;
  /** Puts a block into a list that holds nothing. */
  addTo: (place: BlockPlace, block: Block) => void;
  move: (id: string, move: BlockMove) => void;
  moveTo: (id: string, to: BlockPlace) => void;
  canMove: (id: string, move: BlockMove) => boolean;
  duplicate: (id: string) => void;
  /** Puts a group around a block, or takes a group away and leaves what stands in it. */
  wrap: (id: string) => void;
  unwrap: (id: string) => void;
  remove: (id: string) => void;
  /** Keeps a block for any template of this browser, and puts the one that is kept in. */
  copy: (id: string) => void;
  paste: () => void;
  /** Takes back the last change that is not saved; null where there is none. */
  undo: (() => void) | null;
}

/** Keeps the outline of a template over its unsaved changes. */
export function useOutline(
  edits: Edits<Template>,
  { offers, slots }: Pick<TemplateDetail, 'offers' | 'slots'>,
): Outline {
  const { write, undo } = useWriting(edits);
  const spec = useMemo(() => withSlots(edits.spec, slots), [edits.spec, slots]);
  const inner = useMemo(() => innerLists(offers), [offers]);
  const [id, choose] = useState<string | null>(null);
  const lines = outlineOf(spec, inner);
  const lineOf = (own: string): OutlineLine | undefined =>
    lines.find(({ block }) => block?.id === own);
  const put = (place: BlockPlace, block: Block): void => {
    const own = copyOfBlock(block, newId);
    write(withBlock(spec, inner, place, own));
    choose(own.id!);
  };
  const chosen = (id === null ? undefined : lineOf(id)) ?? null;
  const unwrap = (own: string): void => {
    const line = lineOf(own)!;
    const within = (line.block!.blocks ?? []) as Block[];
    const at = { list: line.list, index: line.index };
    const without = withoutBlock(spec, inner, own);
    write(within.toReversed().reduce((all, block) => withBlock(all, inner, at, block), without));
    choose(within[0]?.id ?? null);
  };
  return {
    lines,
    chosen,
    choose,
    change: (own, block) =>
      write(
        withBlockChanged(spec, inner, own, () => block),
        own,
      ),
    add: (block) => put(placeAfter(chosen, lines), block),
    addTo: put,
    move: (own, move) => {
      const to = movedTo(spec, inner, own, move);
      if (to) write(withBlockMoved(spec, inner, own, to));
    },
    moveTo: (own, to) => write(withBlockMoved(spec, inner, own, to)),
    canMove: (own, move) => movedTo(spec, inner, own, move) !== null,
    duplicate: (own) => {
      const { list, index, block } = lineOf(own)!;
      put({ list, index: index + 1 }, block!);
    },
    wrap: (own) => {
      const group = (block: Block): Block => ({
        ...{ block: 'group', id: newId(), as: 'div', blocks: [block] },
      });
      write(withBlockChanged(spec, inner, own, group));
    },
    unwrap,
    remove: (own) => {
      const { list, index } = lineOf(own)!;
      const next = lines.filter((line) => line.list === list && line.block?.id !== own);
      choose(next[Math.min(index, next.length - 1)]?.block?.id ?? null);
      write(withoutBlock(spec, inner, own));
    },
    copy: (own) => keepBlock(lineOf(own)!.block!),
    paste: () => {
      const kept = keptBlock();
      if (kept) put(placeAfter(chosen, lines), kept);
    },
    undo,
  };
}

/** How many changes can be taken back one by one. */
const MOST_UNDONE = 100;

/**
 * Writes changes, and takes them back one by one: what is written into one block in a row together,
 * what is saved not at all.
 */
function useWriting({ spec, change, changed }: Edits<Template>): {
  write: (next: Template, within?: string) => void;
  undo: Outline['undo'];
} {
  const [before, setBefore] = useState<Template[]>([]);
  const [last, setLast] = useState<string | undefined>();
  const unsaved = changed ? before : [];
  return {
    write: (next, within) => {
      if (next === spec) return;
      const goesOn = within !== undefined && within === last && unsaved.length > 0;
      if (!goesOn) setBefore([...unsaved, spec].slice(-MOST_UNDONE));
      setLast(within);
      change(withoutEmptySlots(next, spec));
    },
    undo:
      unsaved.length === 0
        ? null
        : () => {
            setLast(undefined);
            change(unsaved.at(-1)!);
            setBefore(unsaved.slice(0, -1));
          },
  };
}

/** A template with every slot that it may fill. */
function withSlots(spec: Template, names: readonly string[]): Template {
  const missing = names.filter((name) => !Object.hasOwn(spec.slots, name));
  if (missing.length === 0) return spec;
  return { ...spec, slots: { ...spec.slots, ...Object.fromEntries(missing.map((n) => [n, []])) } };
}

/** Without slots that hold nothing and were not there before. */
function withoutEmptySlots(next: Template, before: Template): Template {
  const kept = Object.entries(next.slots).filter(
    ([name, blocks]) => blocks.length > 0 || Object.hasOwn(before.slots, name),
  );
  if (kept.length === Object.keys(next.slots).length) return next;
  return { ...next, slots: Object.fromEntries(kept) };
}

function innerLists(offers: readonly BlockOffer[]) {
  return new Map(
    offers.map(({ block, panel }) => [
      block,
      panel.flatMap(({ name, many, control, required }) =>
        control === 'blocks' ? [{ name, many, isQuiet: !required && name === 'blocks' }] : [],
      ),
    ]),
  );
}

/** Where a new block goes: behind the chosen one, within it where that is empty, else at the end. */
function placeAfter(chosen: OutlineLine | null, lines: readonly OutlineLine[]): BlockPlace {
  if (!chosen) return { list: 'blocks', index: lines.filter((l) => l.list === 'blocks').length };
  const within = lines.find(
    ({ block, list, count }) => !block && count === 0 && list.startsWith(`${chosen.block!.id}/`),
  );
  return within ?? { list: chosen.list, index: chosen.index + 1 };
}
