import { useDraggable, useDroppable } from '@dnd-kit/core';
import type { SubjectsDetail } from '@/server/queries/subjects.ts';
import { Menu } from '@/ui/primitives/menu.tsx';
import { ClockLink } from '../shell/clock-link.tsx';
import type { Line, Place, Steps } from './places.ts';

/** Keys that move a category while its row has the focus, with Alt. */
const KEYS: Record<string, keyof Steps> = {
  ArrowUp: 'up',
  ArrowDown: 'down',
  ArrowRight: 'in',
  ArrowLeft: 'out',
};

const WORDS: Record<keyof Steps, [label: string, note: string]> = {
  up: ['Up', 'Alt and arrow up'],
  down: ['Down', 'Alt and arrow down'],
  in: ['Below the one above', 'Alt and arrow right'],
  out: ['One level out', 'Alt and arrow left'],
};

interface RowProps {
  set: SubjectsDetail['set'];
  line: Line;
  index: number;
  /** Where it stands among the rows, px. */
  top: number;
  height: number;
  readOnly: boolean;
  isChosen: boolean;
  /** Null where it cannot be moved. */
  steps: Steps | null;
  onChoose: (isChosen: boolean) => void;
  onMove: (to: Place) => void;
}

/** A subject in its set: chosen, opened, and in a tree moved. */
export function SubjectRow({
  set,
  line,
  index,
  top,
  height,
  readOnly,
  isChosen,
  steps,
  onChoose,
  onMove,
}: RowProps) {
  const { key } = line;
  const disabled = steps === null;
  const drag = useDraggable({ id: key, disabled });
  const target = useDroppable({ id: key, disabled });
  const dragged = drag.transform ? { transform: `translateY(${drag.transform.y}px)` } : {};
  return (
    <div
      role="row"
      aria-rowindex={index + 2}
      ref={(element) => {
        drag.setNodeRef(element);
        target.setNodeRef(element);
      }}
      className={`subject-row ${set.kind === 'tags' ? 'of-tags' : ''} absolute inset-x-0 border-b border-rule hover:bg-hover ${drag.isDragging ? 'z-10 bg-white opacity-80' : ''} ${target.isOver && !drag.isDragging ? 'bg-hover outline outline-2 -outline-offset-2 outline-spruce' : ''} ${isChosen ? 'shadow-[inset_3px_0_0_var(--color-spruce)]' : ''}`}
      style={{ top, height, ...dragged }}
      onKeyDown={(event) => {
        const step = event.altKey ? KEYS[event.key] : undefined;
        const to = step && steps?.[step];
        if (!to) return;
        event.preventDefault();
        onMove(to);
      }}
    >
      <Cells
        {...{ set, line, readOnly, isChosen, steps, onChoose, onMove }}
        grip={drag.listeners}
      />
    </div>
  );
}

function Cells({
  set,
  line,
  readOnly,
  isChosen,
  steps,
  grip,
  onChoose,
  onMove,
}: Omit<RowProps, 'index' | 'top' | 'height'> & {
  grip: ReturnType<typeof useDraggable>['listeners'];
}) {
  const { key, name, slug, depth } = line;
  return (
    <>
      <span role="cell">
        {!readOnly && (
          <input
            type="checkbox"
            aria-label={`Choose ${name}`}
            checked={isChosen}
            onChange={(e) => onChoose(e.target.checked)}
          />
        )}
      </span>
      <span role="cell" className="flex min-w-0 items-center" style={{ paddingLeft: depth * 16 }}>
        {steps && (
          <span
            {...grip}
            aria-hidden
            title="Drag it: onto another one, or just above it"
            className="mr-1 cursor-grab px-1 text-muted select-none"
          >
            ⠿
          </span>
        )}
        <ClockLink
          className="link truncate font-[550]"
          href={`/build/settings/subjects/${set.key}?subject=${encodeURIComponent(key)}`}
        >
          {name}
        </ClockLink>
      </span>
      <span role="cell" className="truncate font-mono text-note" title={slug}>
        {slug}
      </span>
      <span role="cell" className="text-right text-muted tabular-nums">
        {line.own.toLocaleString('en')}
      </span>
      <span role="cell" className="text-right text-muted tabular-nums">
        {set.kind === 'tree' && line.used.toLocaleString('en')}
        {set.kind === 'tags' && line.unused && 'unused'}
      </span>
      <span role="cell" className={set.kind === 'tags' ? 'hidden' : 'text-right'}>
        {steps && (
          <Menu
            label="Move"
            className="button-quiet"
            items={(Object.keys(WORDS) as (keyof Steps)[]).flatMap((step) => {
              const to = steps[step];
              const [label, note] = WORDS[step];
              return to ? [{ key: step, label, note, onPick: () => onMove(to) }] : [];
            })}
          />
        )}
      </span>
    </>
  );
}
