/** Something that can be ticked. */
export interface Tick<T> {
  value: T;
  label: string;
}

/** A choice of some of what there is, or of all of it, whatever comes to it later. */
export function Ticks<T extends string | number>({
  id,
  of,
  ticked,
  all,
  readOnly,
  onChange,
}: {
  id: string;
  of: readonly Tick<T>[];
  /** Undefined where all may stand. */
  ticked: readonly T[] | undefined;
  /** What choosing all is called; left out where that cannot be chosen. */
  all?: string;
  readOnly: boolean;
  onChange: (ticked: T[] | undefined) => void;
}) {
  const box = (key: string, label: string, checked: boolean, act: () => void, off = false) => (
    <label key={key} className="flex items-center gap-1.5">
      <input
        id={`${id}-${key}`}
        type="checkbox"
        checked={checked}
        disabled={readOnly || off}
        onChange={act}
      />
      {label}
    </label>
  );
  const toggle = (value: T): void => {
    const now = new Set(ticked ?? []);
    if (!now.delete(value)) now.add(value);
    onChange(of.flatMap((one) => (now.has(one.value) ? [one.value] : [])));
  };
  return (
    <div className="flex flex-wrap gap-x-4 gap-y-1 pt-1.5">
      {all !== undefined &&
        box('all', all, ticked === undefined, () =>
          onChange(ticked === undefined ? of.map(({ value }) => value) : undefined),
        )}
      {ticked !== undefined &&
        of.map(({ value, label }) =>
          box(String(value), label, ticked.includes(value), () => toggle(value)),
        )}
    </div>
  );
}
