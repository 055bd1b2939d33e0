'use client';

import { type KeyboardEvent, useRef } from 'react';
import type { BlockMove, OutlineLine } from '@/core/template/block-tree.ts';
import type { BlockOffer } from '@/core/template/offers.ts';
import { blockWords } from './block-words.ts';
import type { Outline } from './use-outline.ts';

interface Props {
  outline: Outline;
  offers: readonly BlockOffer[];
  /** Ids of blocks that give something for what they are shown for. */
  drawn: Readonly<Record<string, string>>;
  /** Places of blocks that have something wrong. */
  wrong: readonly string[];
  readOnly: boolean;
  onHover: (id: string | null) => void;
}

const MOVES: Record<string, BlockMove> = {
  ArrowUp: 'up',
  ArrowDown: 'down',
  ArrowLeft: 'out',
  ArrowRight: 'in',
};

/** The blocks of a template as a tree, walked by arrows and moved by Alt with them. */
export function OutlineList({ outline, offers, drawn, wrong, readOnly, onHover }: Props) {
  const list = useRef<HTMLUListElement>(null);
  const { lines, chosen, choose } = outline;
  const blocks = lines.filter(({ block }) => block);
  const first = chosen?.block?.id ?? blocks[0]?.block?.id;
  const press = (event: KeyboardEvent, { block }: OutlineLine): void => {
    const id = block!.id!;
    const move = MOVES[event.key];
    if (event.altKey && move && !readOnly) outline.move(id, move);
    else if (event.key === 'Delete' && !readOnly) outline.remove(id);
    else if (event.key === 'Enter' || event.key === ' ') choose(id);
    else if (move === 'up' || move === 'down') {
      const at = blocks.findIndex((line) => line.block?.id === id);
      const next = blocks[at + (move === 'up' ? -1 : 1)];
      if (!next) return;
      choose(next.block!.id!);
      list.current?.querySelector<HTMLElement>(`[data-id="${next.block!.id}"]`)?.focus();
    } else return;
    event.preventDefault();
  };
  return (
    <ul role="tree" aria-label="Blocks" ref={list} onMouseLeave={() => onHover(null)}>
      {lines.map((line) => {
        const { block, depth, list: path, place } = line;
        const indent = { paddingLeft: 8 + depth * 16 };
        if (!block)
          return (
            <li key={path} role="none" style={indent} className="pt-1.5 text-note text-muted">
              {emptyWords(line)}
            </li>
          );
        const id = block.id!;
        const isChosen = chosen?.block?.id === id;
        const isWrong = wrong.some((at) => at === place || at.startsWith(`${place}/`));
        const { kind, words } = blockWords(block, offers);
        return (
          <li
            key={id}
            data-id={id}
            role="treeitem"
            aria-level={depth + 1}
            aria-selected={isChosen}
            tabIndex={id === first ? 0 : -1}
            style={indent}
            className={`flex h-7 cursor-pointer items-center gap-2 border-t border-rule pr-2 ${isChosen ? 'ticked-line' : 'hover:bg-hover'}`}
            onClick={() => choose(id)}
            onKeyDown={(event) => press(event, line)}
            onMouseEnter={() => onHover(id)}
          >
            <span className="shrink-0 font-[550]">{kind}</span>
            <span className="min-w-0 flex-1 truncate font-mono text-note text-muted">{words}</span>
            {isWrong ? (
              <span className="shrink-0 text-note text-alarm">to mend</span>
            ) : (
              drawn[id] === undefined && (
                <span className="shrink-0 text-note text-muted">gives nothing</span>
              )
            )}
          </li>
        );
      })}
    </ul>
  );
}

function emptyWords({ column, depth, count }: OutlineLine): string {
  const nothing = depth === 0 ? 'No blocks yet.' : 'Nothing in it yet.';
  if (column === null) return nothing;
  return count === 0 ? `Column ${column}: nothing in it yet` : `Column ${column}`;
}
