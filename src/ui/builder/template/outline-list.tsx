'use client';

import { DndContext, type DragEndEvent, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { type KeyboardEvent, useEffect, useRef } from 'react';
import type { BlockMove, BlockPlace, OutlineLine } from '@/core/template/block-tree.ts';
import type { TemplateDetail } from '@/server/queries/template.ts';
import { SILENT } from '@/ui/primitives/drag.ts';
import { blockWords } from './block-words.ts';
import { ListRow, OutlineRow } from './outline-row.tsx';
import type { Outline } from './use-outline.ts';

interface Props {
  outline: Outline;
  detail: TemplateDetail;
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

/** The blocks of a template as a tree: walked by arrows, moved by Alt with them or by dragging. */
export function OutlineList({ outline, detail, drawn, wrong, readOnly, onHover }: Props) {
  const list = useRef<HTMLUListElement>(null);
  /** Whether the chosen line is to have the focus: keys moved it, or took another one away. */
  const byKey = useRef(false);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }));
  const { lines, chosen, choose } = outline;
  const blocks = lines.filter(({ block }) => block);
  const entry = chosen?.block?.id ?? blocks[0]?.block?.id;
  useEffect(() => {
    if (!byKey.current || entry === undefined) return;
    byKey.current = false;
    list.current?.querySelector<HTMLElement>(`[data-id="${CSS.escape(entry)}"]`)?.focus();
  });
  const press = (event: KeyboardEvent, id: string): void => {
    const move = MOVES[event.key];
    if (event.altKey && move && !readOnly) {
      choose(id);
      outline.move(id, move);
    } else if (event.key === 'Delete' && !readOnly) outline.remove(id);
    else if (event.key === 'Enter' || event.key === ' ') choose(id);
    else if (move === 'up' || move === 'down') {
      const at = blocks.findIndex(({ block }) => block?.id === id);
      const next = blocks[at + (move === 'up' ? -1 : 1)]?.block?.id;
      if (next === undefined) return;
      choose(next);
    } else return;
    byKey.current = true;
    event.preventDefault();
  };
  const noteOf = ({ block, place }: OutlineLine): { words: string; isWrong: boolean } | null => {
    if (wrong.some((at) => at.startsWith(`${place}/`))) return { words: 'to mend', isWrong: true };
    const isDrawn = drawn[block!.id!] !== undefined;
    return isDrawn ? null : { words: 'gives nothing', isWrong: false };
  };
  const drop = (event: DragEndEvent): void => {
    const to = placeOf(event, lines);
    if (to) outline.moveTo(String(event.active.id), to);
  };
  return (
    <DndContext accessibility={SILENT} sensors={sensors} onDragEnd={drop}>
      <ul role="tree" aria-label="Blocks" ref={list} onMouseLeave={() => onHover(null)}>
        {lines.map((line) => {
          const id = line.block?.id;
          if (id === undefined)
            return <ListRow key={`list ${line.list}`} {...{ line, readOnly }} />;
          return (
            <OutlineRow
              key={id}
              {...{ line, readOnly }}
              {...blockWords(line.block!, detail)}
              note={noteOf(line)}
              isChosen={chosen?.block?.id === id}
              isEntry={id === entry}
              onChoose={() => choose(id)}
              onHover={() => onHover(id)}
              onKey={(event) => press(event, id)}
            />
          );
        })}
      </ul>
    </DndContext>
  );
}

/** Where something is dropped: before or behind a block, by which half it is over, or in a list. */
function placeOf({ active, over }: DragEndEvent, lines: readonly OutlineLine[]): BlockPlace | null {
  if (!over || over.id === active.id) return null;
  const line = lines.find(({ block, list }) => (block ? block.id : list) === over.id);
  if (!line) return null;
  const { list, index, block } = line;
  if (!block) return { list, index: 0 };
  const dragged = active.rect.current.translated;
  const isBelow =
    dragged !== null && dragged.top + dragged.height / 2 > over.rect.top + over.rect.height / 2;
  return { list, index: isBelow ? index + 1 : index };
}
