import { useSortable } from '@dnd-kit/sortable';
import type { Issue } from '@/core/issue.ts';
import type { Field } from '@/core/design/field.ts';
import { kindOf } from '@/core/design/kinds/index.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { TypeDetail } from '@/server/queries/type.ts';
import { FieldPanel } from './field-panel.tsx';
import { Moves } from '@/ui/primitives/moves.tsx';

interface Props {
  /** What it is known by while it is dragged. */
  slot: string;
  field: Field;
  detail: TypeDetail;
  /** The other fields of the type. */
  others: Field[];
  /** What it holds of the specimen. */
  value: string;
  issues: Issue[];
  /** The field as the working design has it; undefined for a new one. */
  stored: Field | undefined;
  clock: Clock;
  isOpen: boolean;
  isFirst: boolean;
  isLast: boolean;
  readOnly: boolean;
  onToggle: () => void;
  onMove: (by: -1 | 1) => void;
  onChange: (field: Field) => void;
  /** Gives a field of the working design another key, at once. */
  onRename: (part: string, was: string, now: string) => void;
  onRemove: () => void;
}

/** A field as one line; opened, all that is set of it. */
export function FieldLine(props: Props) {
  const { field, value, issues, stored, isOpen, readOnly, onToggle } = props;
  const { label, many, required, key } = field;
  const sortable = useSortable({ id: props.slot, disabled: readOnly });
  const { setNodeRef, listeners, isDragging, transform, transition } = sortable;
  const y = transform?.y ?? 0;
  const marks = [
    kindOf(field).label.toLowerCase(),
    many && !kindOf(field).alwaysMany ? 'several' : '',
    required ? 'required' : '',
    stored ? '' : 'new',
  ];
  return (
    <li
      ref={setNodeRef}
      className={`relative border-t border-rule ${isDragging ? 'z-10 bg-white opacity-80' : ''}`}
      style={{ transform: y === 0 ? undefined : `translateY(${y}px)`, transition }}
    >
      <div className="grid grid-cols-[auto_minmax(0,1fr)_auto] items-center gap-x-2">
        <span
          {...listeners}
          aria-hidden
          title="Drag it to another place"
          className={`cursor-grab px-1 text-muted select-none ${readOnly ? 'invisible' : ''}`}
        >
          ⠿
        </span>
        <button
          type="button"
          aria-expanded={isOpen}
          onClick={onToggle}
          className="grid min-w-0 grid-cols-[minmax(0,8fr)_minmax(0,5fr)_minmax(0,5fr)] items-baseline gap-x-3 py-1.5 text-left hover:bg-hover"
        >
          <span className="font-[550] break-words" title={`${label} (${key})`}>
            {label}
          </span>{' '}
          <span className={`truncate ${issues.length > 0 ? 'text-alarm' : 'text-muted'}`}>
            {issues.length > 0 ? 'to mend' : marks.filter(Boolean).join(', ')}
          </span>{' '}
          <span className="truncate text-muted" title={value}>
            {value}
          </span>
        </button>
        {!readOnly && <Moves of={label} {...props} />}
      </div>
      {isOpen && (
        <FieldPanel
          {...props}
          part={stored ? `types/${props.detail.spec.id}/fields/${stored.id}` : null}
        />
      )}
    </li>
  );
}
