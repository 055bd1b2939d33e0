'use client';

import type { ConditionSpec, Operator } from '@/core/design/listing-spec.ts';
import type { ListingColumn } from '@/server/queries/listing.ts';

const MANY: readonly Operator[] = ['any-of', 'all-of', 'none-of'];

/** One condition: field, operator, value. */
export function ConditionLine({
  condition,
  columns,
  onChange,
  onRemove,
}: {
  condition: ConditionSpec;
  columns: ListingColumn[];
  onChange: (condition: ConditionSpec) => void;
  onRemove: () => void;
}) {
  const column = columns.find((c) => c.name === condition.field) ?? columns[0]!;
  const needsValue = condition.op !== 'blank' && condition.op !== 'not-blank';
  const setField = (field: string): void => {
    const next = columns.find((c) => c.name === field)!;
    const op = next.operators.some((o) => o.op === condition.op)
      ? condition.op
      : next.operators[0]!.op;
    onChange(withValue({ field, op }, next, undefined));
  };
  return (
    <div data-condition className="flex flex-wrap items-center gap-2">
      <select
        aria-label="Field"
        className="control !w-40"
        value={condition.field}
        onChange={(e) => setField(e.target.value)}
      >
        {columns.map((c) => (
          <option key={c.name} value={c.name}>
            {c.label.toLowerCase()}
          </option>
        ))}
      </select>
      <select
        aria-label="Operator"
        className="control !w-36"
        value={condition.op}
        onChange={(e) =>
          onChange(
            withValue(
              { field: condition.field, op: e.target.value as Operator },
              column,
              condition.value,
            ),
          )
        }
      >
        {column.operators.map((o) => (
          <option key={o.op} value={o.op}>
            {o.words}
          </option>
        ))}
      </select>
      {needsValue && <ValueControl column={column} condition={condition} onChange={onChange} />}
      <button
        type="button"
        className="button-quiet"
        aria-label="Remove this condition"
        onClick={onRemove}
      >
        Remove
      </button>
    </div>
  );
}

/** A condition with a value that fits its operator, a first guess where there is none. */
function withValue(
  condition: Pick<ConditionSpec, 'field' | 'op'>,
  column: ListingColumn,
  value: ConditionSpec['value'],
): ConditionSpec {
  if (condition.op === 'blank' || condition.op === 'not-blank') return condition;
  const guess =
    column.options[0]?.value ??
    { number: 0, yesno: true, day: 'today', instant: 'now' }[column.family as 'day'] ??
    '';
  const single = Array.isArray(value) ? value[0] : value;
  return {
    ...condition,
    value: MANY.includes(condition.op) ? [single ?? guess] : (single ?? guess),
  };
}

function ValueControl({
  column,
  condition,
  onChange,
}: {
  column: ListingColumn;
  condition: ConditionSpec;
  onChange: (condition: ConditionSpec) => void;
}) {
  const set = (value: ConditionSpec['value']): void => onChange({ ...condition, value });
  if (column.options.length > 0 && MANY.includes(condition.op)) {
    const chosen = [condition.value ?? []].flat().map(String);
    return (
      <select
        multiple
        aria-label="Values"
        size={Math.min(6, column.options.length)}
        className="control !h-auto !w-56"
        value={chosen}
        onChange={(e) => set([...e.target.selectedOptions].map((o) => o.value))}
      >
        {column.options.map((o) => (
          <option key={o.value} value={o.value}>
            {o.label}
          </option>
        ))}
      </select>
    );
  }
  const single = [condition.value ?? ''].flat()[0];
  if (column.options.length > 0) {
    return (
      <select
        aria-label="Value"
        className="control !w-56"
        value={String(single)}
        onChange={(e) => set(e.target.value)}
      >
        {column.options.map((o) => (
          <option key={o.value} value={o.value}>
            {o.label}
          </option>
        ))}
      </select>
    );
  }
  if (column.family === 'yesno') {
    return (
      <select
        aria-label="Value"
        className="control !w-24"
        value={single === true ? 'yes' : 'no'}
        onChange={(e) => set(e.target.value === 'yes')}
      >
        <option>yes</option>
        <option>no</option>
      </select>
    );
  }
  if (column.family === 'number')
    return (
      <input
        type="number"
        step="any"
        aria-label="Value"
        className="control !w-28 text-right"
        value={String(single)}
        onChange={(e) => set(Number(e.target.value))}
      />
    );
  const dates = column.family === 'day' || column.family === 'instant';
  return (
    <input
      aria-label="Value"
      className="control !w-44"
      value={String(single)}
      placeholder={dates ? 'today, today + 7, 2026-03-12' : ''}
      onChange={(e) => set(e.target.value)}
    />
  );
}
