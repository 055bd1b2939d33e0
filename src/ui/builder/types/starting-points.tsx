import { STARTING_POINTS } from '@/core/outline/starting-points.ts';

/** Lines that many sites begin with, to be changed in the outline. */
export function StartingPoints({ onPick }: { onPick: (line: string) => void }) {
  return (
    <p className="mt-1 flex flex-wrap items-center gap-x-3 text-note text-muted">
      Begin with
      {STARTING_POINTS.map(({ label, doc, line }) => (
        <button
          key={label}
          type="button"
          className="text-spruce hover:underline"
          title={doc}
          onClick={() => onPick(line)}
        >
          {label.toLowerCase()}
        </button>
      ))}
    </p>
  );
}
