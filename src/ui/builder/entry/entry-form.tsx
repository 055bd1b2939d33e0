'use client';

import type { Issue } from '@/core/issue.ts';
import type { FormField } from '@/server/queries/entry.ts';
import { FieldControl } from './field-control.tsx';

/** The fields of an entry, label above control, what is wrong below. */
export function EntryForm({
  fields,
  values,
  zone,
  readOnly,
  issues,
  onChange,
}: {
  fields: FormField[];
  values: Record<string, unknown>;
  zone: string;
  readOnly: boolean;
  issues: Issue[];
  onChange: (key: string, value: unknown) => void;
}) {
  return (
    <div className="flex flex-col gap-3">
      {fields.map((field) => {
        const wrong = [
          ...new Map(
            issues.filter((i) => i.path === field.key).map((i) => [i.message, i]),
          ).values(),
        ];
        return (
          <div key={field.key}>
            <label htmlFor={`field-${field.key}`} className="mb-1 block font-medium">
              {field.label}
              {field.required && <span className="font-normal text-muted"> (required)</span>}
            </label>
            <FieldControl
              field={field}
              value={values[field.key]}
              zone={zone}
              readOnly={readOnly}
              onChange={(value) => onChange(field.key, value)}
            />
            {field.help && (
              <p id={`field-${field.key}-help`} className="mt-1 text-note text-muted">
                {field.help}
              </p>
            )}
            {wrong.map((issue) => (
              <p key={issue.message} className="mt-1 text-alarm">
                {issue.message} {issue.fix}
              </p>
            ))}
          </div>
        );
      })}
    </div>
  );
}
