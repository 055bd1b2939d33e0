import { useState } from 'react';
import type { Field } from '@/core/design/field.ts';
import { kindOf } from '@/core/design/kinds/index.ts';
import type { TypeDetail } from '@/server/queries/type.ts';
import { useAsked } from '../use-asked.ts';

/** Takes a field from another type, with all that is set of it. */
export function CopyField({
  detail,
  at,
  onCopy,
}: {
  detail: TypeDetail;
  at: number;
  onCopy: (field: Field) => void;
}) {
  const [type, setType] = useState('');
  const others = detail.types.filter(({ key }) => key !== detail.spec.key);
  if (others.length === 0) return null;
  return (
    <div className="mt-2 flex flex-wrap items-end gap-2">
      <label className="w-56">
        <span className="text-note text-muted">Or take one from</span>
        <select className="control" value={type} onChange={(e) => setType(e.target.value)}>
          <option value="">another type …</option>
          {others.map(({ key, label }) => (
            <option key={key} value={key}>
              {label}
            </option>
          ))}
        </select>
      </label>
      {type !== '' && (
        <FieldsOf
          key={type}
          {...{ type, at }}
          onPick={(field) => {
            onCopy(field);
            setType('');
          }}
        />
      )}
    </div>
  );
}

function FieldsOf({
  type,
  at,
  onPick,
}: {
  type: string;
  at: number;
  onPick: (field: Field) => void;
}) {
  const { answer, problem } = useAsked<Field[]>('fields', { at, type });
  if (problem) return <p className="text-alarm">{problem}</p>;
  return (
    <label className="min-w-0 flex-1">
      <span className="text-note text-muted">the field</span>
      <select
        className="control"
        aria-label="Field to copy"
        value=""
        disabled={answer === null}
        onChange={(e) => onPick(answer!.find(({ id }) => id === e.target.value)!)}
      >
        <option value="">{answer === null ? 'Looking …' : 'Choose one …'}</option>
        {answer?.map((field) => (
          <option key={field.id} value={field.id}>
            {`${field.label} (${kindOf(field).label.toLowerCase()})`}
          </option>
        ))}
      </select>
    </label>
  );
}
