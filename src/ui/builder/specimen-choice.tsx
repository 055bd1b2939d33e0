import { STAND_INS } from '@/core/design/stand-in.ts';
import type { Specimen } from '@/server/queries/specimens.ts';

/** Which entry a type, or what draws it, is shown for. */
export function SpecimenChoice({
  specimens,
  chosen,
  id = 'specimen',
  isNarrow = false,
  onChoose,
}: {
  id?: string;
  /** Whether there is little room: the label is read out alone. */
  isNarrow?: boolean;
  specimens: readonly Specimen[];
  /** Null for what is invented. */
  chosen: string | null;
  onChoose: (id: string) => void;
}) {
  const all = [
    ...specimens.map((s) => ({ id: s.id, label: s.why ? `${s.name} (${s.why})` : s.name })),
    ...Object.entries(STAND_INS).map(([key, label]) => ({ id: key, label })),
  ];
  const shown = chosen ?? '~usual';
  const at = all.findIndex((s) => s.id === shown);
  const stepTo = (i: number): void => onChoose(all.at(i % all.length)!.id);
  return (
    <div className="flex h-10 shrink-0 items-center gap-2 border-b border-rule px-6">
      <label htmlFor={id} className={isNarrow ? 'sr-only' : 'shrink-0 text-muted'}>
        Shown for
      </label>
      <select
        id={id}
        className="control !h-7 !w-64 min-w-0"
        value={shown}
        onChange={(e) => onChoose(e.target.value)}
      >
        {all.map((one) => (
          <option key={one.id} value={one.id}>
            {one.label}
          </option>
        ))}
      </select>
      <button type="button" className="button-quiet h-7" onClick={() => stepTo(at - 1)}>
        Previous
      </button>
      <button type="button" className="button-quiet h-7" onClick={() => stepTo(at + 1)}>
        Next
      </button>
    </div>
  );
}
