import { DndContext, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { SortableContext, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { useState } from 'react';
import type { Clock } from '@/server/queries/clock.ts';
import type { PickLine } from '@/server/queries/picks.ts';
import { SILENT } from '@/ui/primitives/drag.ts';
import { entryHref } from '../format.ts';
import { ClockLink } from '../shell/clock-link.tsx';
import { Moves } from '@/ui/primitives/moves.tsx';
import { PickTimes } from './pick-times.tsx';
import type { Picking } from './picking.ts';
import { stretchWords } from './stretch-words.ts';

interface Props {
  lines: readonly PickLine[];
  /** The id of the one behind the last line; null where that is the last of all. */
  beyond: number | null;
  clock: Clock;
  readOnly: boolean;
  busy: boolean;
  picking: Picking;
}

/** Who stands in picks, in their order: arranged by dragging or by keys. */
export function PickList(props: Props) {
  const { lines, beyond, readOnly, picking } = props;
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }));
  const [open, setOpen] = useState<number | null>(null);
  /** Puts one where another stands, or right after the one behind it. */
  const move = (from: number, to: number): void =>
    picking.move(lines[from]!, lines[to > from ? to + 1 : to]?.id ?? beyond);
  const indexOf = (id: unknown): number => lines.findIndex((line) => line.id === id);
  return (
    <DndContext
      accessibility={SILENT}
      sensors={sensors}
      onDragEnd={({ active, over }) => {
        const [from, to] = [indexOf(active.id), indexOf(over?.id)];
        if (from >= 0 && to >= 0 && from !== to) move(from, to);
      }}
    >
      <SortableContext items={lines.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
        <ol aria-label="In their order">
          {lines.map((line, i) => (
            <Row
              key={nthOf(lines, i)}
              {...props}
              line={line}
              isFirst={i === 0}
              isLast={i === lines.length - 1}
              isOpen={open === line.id && !readOnly}
              onToggle={() => setOpen(open === line.id ? null : line.id)}
              onMove={(by) => move(i, i + by)}
            />
          ))}
        </ol>
      </SortableContext>
    </DndContext>
  );
}

/** What a line is known by while it moves: its entry, and which of that entry's lines it is. */
function nthOf(lines: readonly PickLine[], i: number): string {
  const { entry } = lines[i]!;
  return `${entry} ${lines.slice(0, i).filter((line) => line.entry === entry).length}`;
}

type RowProps = Props & {
  line: PickLine;
  isFirst: boolean;
  isLast: boolean;
  isOpen: boolean;
  onToggle: () => void;
  onMove: (by: -1 | 1) => void;
};

function Row({
  line,
  clock,
  readOnly,
  busy,
  picking,
  isFirst,
  isLast,
  isOpen,
  onToggle,
  onMove,
}: RowProps) {
  const { name, entry, type, isIn, isDeleted } = line;
  const sortable = useSortable({ id: line.id, disabled: readOnly || busy });
  const { setNodeRef, listeners, isDragging, transform, transition } = sortable;
  const y = transform?.y ?? 0;
  const set = async (times: Parameters<Picking['setTimes']>[1]): Promise<void> => {
    if (await picking.setTimes(line, times)) onToggle();
  };
  return (
    <li
      ref={setNodeRef}
      className={`relative border-t border-rule ${isDragging ? 'z-10 bg-white opacity-80' : ''}`}
      style={{ transform: y === 0 ? undefined : `translateY(${y}px)`, transition }}
    >
      <div className="flex items-center gap-x-2 py-1">
        <span
          {...listeners}
          aria-hidden
          title="Drag it to another place"
          className={`cursor-grab px-1 text-muted select-none ${readOnly ? 'invisible' : ''}`}
        >
          ⠿
        </span>
        <span className="min-w-0 flex-1">
          {isDeleted ? (
            <span className="text-muted">{name}</span>
          ) : (
            <ClockLink className="link font-[550] break-words" href={entryHref(entry)}>
              {name}
            </ClockLink>
          )}
          <span className="text-note text-muted">{` ${type}${stateWords(line)}`}</span>
          <span className={`block text-note ${isIn ? 'text-muted' : 'text-amber-text'}`}>
            {stretchWords(line, clock)}
          </span>
        </span>
        {!readOnly && (
          <Acts {...{ line, busy, picking, isFirst, isLast, isOpen, onToggle, onMove }} />
        )}
      </div>
      {isOpen && <PickTimes {...{ line, clock, busy }} onSet={(times) => void set(times)} />}
    </li>
  );
}

/** What can be done with a line. */
function Acts({
  line,
  busy,
  picking,
  isFirst,
  isLast,
  isOpen,
  onToggle,
  onMove,
}: Omit<RowProps, 'lines' | 'beyond' | 'clock' | 'readOnly'>) {
  const { name } = line;
  return (
    <>
      <Moves of={name} {...{ isFirst, isLast, onMove }} />
      <button
        type="button"
        className="button-quiet"
        aria-expanded={isOpen}
        aria-label={`When ${name} is in`}
        onClick={onToggle}
      >
        When
      </button>
      <button
        type="button"
        className="button-quiet"
        disabled={busy}
        aria-label={`Take ${name} out`}
        onClick={() => picking.takeOut(line)}
      >
        Take out
      </button>
    </>
  );
}

function stateWords({ isLive, isDeleted }: PickLine): string {
  if (isDeleted) return ' · deleted';
  return isLive ? '' : ' · not live, so not shown';
}
