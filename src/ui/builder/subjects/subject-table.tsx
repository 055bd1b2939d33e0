'use client';

import { DndContext, type DragEndEvent, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef, useState } from 'react';
import type { SubjectsDetail } from '@/server/queries/subjects.ts';
import { SILENT } from '@/ui/primitives/drag.ts';
import { SubjectRow } from './subject-row.tsx';
import { type Line, placeOf, steps } from './places.ts';
import type { Change } from './use-change.ts';

const ROW_PX = 32;

/** The subjects of a set as rows, of which those in sight are drawn; a tree is arranged here. */
export function SubjectTable({
  set,
  lines,
  all,
  readOnly,
  chosen,
  change,
  onChoose,
}: {
  set: SubjectsDetail['set'];
  /** Those shown. */
  lines: readonly Line[];
  /** All of the set, in their order. */
  all: readonly Line[];
  readOnly: boolean;
  chosen: ReadonlySet<string>;
  change: Change;
  onChoose: (key: string, isChosen: boolean) => void;
}) {
  const body = useRef<HTMLDivElement>(null);
  const rows = useRows(body, lines.length);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }));
  const isTree = set.kind === 'tree';
  const move = (key: string, to: { parent: string | null; before: string | null }): void =>
    void change({ do: 'move', key, ...to });
  const drop = ({ active, over, delta, activatorEvent }: DragEndEvent): void => {
    if (!over || active.id === over.id) return;
    const y = (activatorEvent as PointerEvent).clientY + delta.y - over.rect.top;
    const to = placeOf(all, String(over.id), y < over.rect.height / 3 ? 'before' : 'below');
    move(String(active.id), to);
  };
  return (
    <DndContext accessibility={SILENT} sensors={sensors} onDragEnd={drop}>
      <div role="table" aria-label={set.label} aria-rowcount={lines.length + 1} className="mt-2">
        <Heads {...{ isTree, readOnly }} />
        <div ref={body} role="rowgroup" className="relative" style={{ height: rows.height }}>
          {rows.shown.map(({ index, start }) => {
            const line = lines[index];
            if (!line) return null;
            return (
              <SubjectRow
                key={line.key}
                {...{ set, line, index, readOnly }}
                top={start}
                height={ROW_PX}
                isChosen={chosen.has(line.key)}
                steps={isTree && !readOnly ? steps(all, line) : null}
                onChoose={(is) => onChoose(line.key, is)}
                onMove={(to) => move(line.key, to)}
              />
            );
          })}
        </div>
      </div>
    </DndContext>
  );
}

function Heads({ isTree, readOnly }: { isTree: boolean; readOnly: boolean }) {
  return (
    <div
      role="row"
      className={`subject-row ${isTree ? '' : 'of-tags'} border-b border-rule text-note text-muted`}
    >
      <span role="columnheader">
        <span className="sr-only">Chosen</span>
      </span>
      <span role="columnheader">Name</span>
      <span role="columnheader">In addresses</span>
      <span role="columnheader" className="text-right">
        Live entries
      </span>
      <span role="columnheader" className="text-right">
        {isTree ? 'With those below' : <span className="sr-only">In use</span>}
      </span>
      <span role="columnheader" className={isTree ? '' : 'hidden'}>
        <span className="sr-only">{isTree && !readOnly ? 'Move' : ''}</span>
      </span>
    </div>
  );
}

/** Which rows are in sight of the pane that scrolls. */
function useRows(body: React.RefObject<HTMLDivElement | null>, count: number) {
  const [pane, setPane] = useState<HTMLElement | null>(null);
  const [above, setAbove] = useState(0);
  useEffect(() => {
    const found = body.current?.closest<HTMLElement>('[data-area]') ?? null;
    setPane(found);
    if (found && body.current)
      setAbove(
        body.current.getBoundingClientRect().top -
          found.getBoundingClientRect().top +
          found.scrollTop,
      );
  }, [body, count]);
  // eslint-disable-next-line react-hooks/incompatible-library -- what it gives is read here alone
  const virtual = useVirtualizer({
    count,
    getScrollElement: () => pane,
    estimateSize: () => ROW_PX,
    overscan: 12,
    scrollMargin: above,
    initialRect: { width: 600, height: 800 },
  });
  const shown = virtual
    .getVirtualItems()
    .map(({ index, start }) => ({ index, start: start - above }));
  return { height: virtual.getTotalSize(), shown };
}
