import { useDraggable, useDroppable } from '@dnd-kit/core';
import type { KeyboardEvent } from 'react';
import { sentence } from '@/core/design/words.ts';
import type { OutlineLine } from '@/core/template/block-tree.ts';

interface Props {
  line: OutlineLine;
  kind: string;
  words: string;
  /** Said at its end: that it gives nothing, or is to be mended. */
  note: { words: string; isWrong: boolean } | null;
  isChosen: boolean;
  /** Whether it is where the keyboard comes in. */
  isEntry: boolean;
  readOnly: boolean;
  onChoose: () => void;
  onHover: () => void;
  onKey: (event: KeyboardEvent) => void;
}

const indentOf = ({ depth }: OutlineLine): { paddingLeft: number } => ({
  paddingLeft: 8 + depth * 16,
});

/** A block as a line of the outline: chosen by a press, dragged by its grip. */
export function OutlineRow({
  line,
  kind,
  words,
  note,
  isChosen,
  isEntry,
  readOnly,
  onChoose,
  onHover,
  onKey,
}: Props) {
  const id = line.block!.id!;
  const drag = useDraggable({ id, disabled: readOnly });
  const target = useDroppable({ id, disabled: readOnly });
  const y = drag.transform?.y ?? 0;
  return (
    <li
      data-id={id}
      role="treeitem"
      ref={(element) => {
        drag.setNodeRef(element);
        target.setNodeRef(element);
      }}
      aria-level={line.depth + 1}
      aria-selected={isChosen}
      tabIndex={isEntry ? 0 : -1}
      style={{ ...indentOf(line), transform: y === 0 ? undefined : `translateY(${y}px)` }}
      className={`relative flex h-7 cursor-pointer items-center gap-2 border-t border-rule pr-2 ${isChosen ? 'ticked-line' : 'hover:bg-hover'} ${drag.isDragging ? 'z-10 bg-white opacity-80' : ''} ${target.isOver && !drag.isDragging ? 'outline outline-2 -outline-offset-2 outline-spruce' : ''}`}
      onClick={onChoose}
      onKeyDown={onKey}
      onMouseEnter={onHover}
    >
      <span
        {...drag.listeners}
        aria-hidden
        title="Drag it to another place"
        className={`cursor-grab text-muted select-none ${readOnly ? 'invisible' : ''}`}
      >
        ⠿
      </span>
      <span className="shrink-0 font-[550]">{kind}</span>
      <span className="min-w-0 flex-1 truncate font-mono text-note text-muted">{words}</span>
      {note && (
        <span className={`shrink-0 text-note ${note.isWrong ? 'text-alarm' : 'text-muted'}`}>
          {note.words}
        </span>
      )}
    </li>
  );
}

/** A list that holds nothing, or one of several side by side: blocks are dropped into it. */
export function ListRow({ line, readOnly }: { line: OutlineLine; readOnly: boolean }) {
  const { setNodeRef, isOver } = useDroppable({ id: line.list, disabled: readOnly });
  return (
    <li
      role="none"
      ref={setNodeRef}
      style={indentOf(line)}
      className={`pt-1.5 text-note text-muted ${isOver ? 'outline outline-2 -outline-offset-2 outline-spruce' : ''}`}
    >
      {listWords(line)}
    </li>
  );
}

function listWords({ column, called, depth, count }: OutlineLine): string {
  const nothing = depth === 0 ? 'No blocks yet.' : 'Nothing in it yet.';
  if (called !== null) {
    const words = depth === 0 ? `Slot “${called}”` : sentence(called);
    return count === 0 ? `${words}: nothing in it yet` : words;
  }
  if (column === null) return nothing;
  return count === 0 ? `Column ${column}: nothing in it yet` : `Column ${column}`;
}
