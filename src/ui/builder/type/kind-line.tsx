import type { Field } from '@/core/design/field.ts';
import { FIELD_KINDS, kindOf } from '@/core/design/kinds/index.ts';
import { withKind } from '@/core/design-edit/change-kind.ts';
import type { TypeDetail } from '@/server/queries/type.ts';
import { Line } from '@/ui/primitives/line.tsx';
import { newId } from '../design-steps.ts';
import { setFor } from './field-settings/subjects.tsx';

/** What a field holds: its kind, and whether it holds several. */
export function KindLine({
  id,
  field,
  stored,
  detail,
  readOnly,
  onChange,
}: {
  id: string;
  field: Field;
  /** The field as the working design has it; undefined for a new one. */
  stored: Field | undefined;
  detail: TypeDetail;
  readOnly: boolean;
  onChange: (field: Field) => void;
}) {
  const change = (kind: string, many: boolean): void => {
    const next = withKind(field, stored, { kind, many }, newId);
    const wantsSet = 'set' in kindOf(next).properties && next.set === undefined;
    onChange(wantsSet ? { ...next, set: setFor(next.label, kind, detail) } : next);
  };
  const { alwaysMany, derived, doc } = kindOf(field);
  return (
    <Line label="Kind" htmlFor={`${id}-kind`} help={doc}>
      <div className="flex items-center gap-4">
        <select
          id={`${id}-kind`}
          className="control !w-44"
          disabled={readOnly}
          value={field.kind}
          onChange={(e) => change(e.target.value, kindOf(field).alwaysMany ? false : field.many)}
        >
          {FIELD_KINDS.map((k) => (
            <option key={k.kind} value={k.kind}>
              {k.label}
            </option>
          ))}
        </select>
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="h-4 w-4 accent-spruce"
            checked={field.many}
            disabled={readOnly || alwaysMany || derived}
            onChange={(e) => change(field.kind, e.target.checked)}
          />
          Holds several
        </label>
      </div>
    </Line>
  );
}
