import { useState } from 'react';
import type { FieldOption } from '@/core/design/field.ts';
import { freeKey, typeKeyOf } from '@/core/outline/names.ts';
import { Line } from '@/ui/primitives/line.tsx';
import { newId } from '../../design-steps.ts';
import type { FieldSettingsProps } from './definition.ts';

/** The options of a choice, in the order they are offered. */
export function ChoiceSettings({ id, field, detail, readOnly, onChange }: FieldSettingsProps) {
  const [added, setAdded] = useState('');
  const options = field.options ?? [];
  const put = (next: FieldOption[]): void => onChange({ ...field, options: next });
  const add = (): void => {
    if (added.trim() === '') return;
    put([...options, newOption(added.trim(), options, detail.language)]);
    setAdded('');
  };
  return (
    <Line label="Options" htmlFor={`${id}-option`}>
      <ol aria-label="Options">
        {options.map((option) => (
          <li key={option.id} className="mb-1 flex gap-2">
            <input
              className="control"
              aria-label={`Option ${option.key}`}
              maxLength={200}
              value={option.label}
              readOnly={readOnly}
              onChange={({ target: { value: label } }) =>
                put(options.map((o) => (o.id === option.id ? { ...o, label } : o)))
              }
            />
            {!readOnly && (
              <button
                type="button"
                className="button-quiet shrink-0"
                aria-label={`Take option ${option.label} away`}
                onClick={() => put(options.filter((o) => o.id !== option.id))}
              >
                Take away
              </button>
            )}
          </li>
        ))}
      </ol>
      {!readOnly && (
        <div className="flex gap-2">
          <input
            id={`${id}-option`}
            className="control"
            aria-label={`Options of ${field.label}`}
            placeholder="Another option"
            value={added}
            onChange={(e) => setAdded(e.target.value)}
            onKeyDown={(e) => {
              if (e.key !== 'Enter') return;
              e.preventDefault();
              add();
            }}
          />
          <button type="button" className="button shrink-0" onClick={add}>
            Add option
          </button>
        </div>
      )}
    </Line>
  );
}

/** Values are stored under the id of an option, so that one that went may not come back by name. */
function newOption(label: string, options: FieldOption[], language: string): FieldOption {
  const key = freeKey(typeKeyOf(label, language), new Set(options.map((o) => o.key)));
  return { id: newId(), key, label };
}
