'use client';

import { memo } from 'react';
import type { Issue } from '@/core/issue.ts';
import type { FormField } from '@/server/queries/entry.ts';
import { FieldControl } from './controls/index.tsx';

interface Props {
  fields: FormField[];
  values: Record<string, unknown>;
  zone: string;
  now: number;
  entry: string | null;
  readOnly: boolean;
  issues: Issue[];
  onChange: (id: string, value: unknown) => void;
}

/** The fields of an entry, label above control, what is wrong below. */
export function EntryForm({ fields, values, issues, ...rest }: Props) {
  return (
    <div className="flex flex-col gap-3">
      {fields.map((field) => (
        <FieldLine
          key={field.id}
          {...rest}
          field={field}
          value={values[field.id]}
          wrong={wordsFor(field, issues)}
        />
      ))}
    </div>
  );
}

/** What is wrong with a field, each once, as one text. */
function wordsFor(field: FormField, issues: Issue[]): string {
  const own = issues.filter((i) => i.path === field.key || i.path === field.id);
  return [...new Set(own.map((i) => `${i.message} ${i.fix ?? ''}`.trim()))].join('\n');
}

type LineProps = Omit<Props, 'fields' | 'values' | 'issues'> & {
  field: FormField;
  value: unknown;
  /** What is wrong, a line each; '' where nothing is. */
  wrong: string;
};

const FieldLine = memo(function FieldLine({ field, value, wrong, onChange, ...rest }: LineProps) {
  const id = `field-${field.key}`;
  return (
    <div>
      <label htmlFor={id} className="mb-1 block font-medium">
        {field.label}
        {field.required && <span className="font-normal text-muted"> (required)</span>}
      </label>
      <FieldControl
        {...rest}
        id={id}
        field={field}
        value={value}
        invalid={wrong !== ''}
        onChange={(next) => onChange(field.id, next)}
      />
      <div id={`${id}-notes`}>
        {field.help && <p className="mt-1 text-note text-muted">{field.help}</p>}
        {wrong !== '' && <p className="mt-1 whitespace-pre-line text-alarm">{wrong}</p>}
      </div>
    </div>
  );
});
