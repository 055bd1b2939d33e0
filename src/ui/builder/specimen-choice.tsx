import { STAND_INS } from '@/core/design/stand-in.ts';
import type { Specimen } from '@/server/queries/specimens.ts';

/** Which entry a type, or what draws it, is shown for. */
export function SpecimenChoice({
  specimens,
  chosen,
  onChoose,
}: {
  specimens: readonly Specimen[];
  /** Null for what is invented. */
  chosen: string | null;
  onChoose: (id: string) => void;
}) {
  const all = [
    ...specimens.map(({ id, name, why }) => ({ id, label: why ? `${name} (${why})` : name })),
    ...Object.entries(STAND_INS).map(([id, label]) => ({ id, label })),
  ];
  const shown = chosen ?? '~usual';
  const at = all.findIndex((s) => s.id === shown);
  const stepTo = (i: number): void => onChoose(all.at(i % all.length)!.id);
  return (
    <div className="flex h-10 shrink-0 items-center gap-2 border-b border-rule px-6">
      <label htmlFor="specimen" className="shrink-0 text-muted">
        Shown for
      </label>
      <select
        id="specimen"
        className="control !h-7 !w-64 min-w-0"
        value={shown}
        onChange={(e) => onChoose(e.target.value)}
      >
        {all.map(({ id, label }) => (
          <option key={id} value={id}>
            {label}
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
