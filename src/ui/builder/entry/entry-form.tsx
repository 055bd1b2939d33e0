'use client';

import { memo } from 'react';
import type { Issue } from '@/core/issue.ts';
import { isShown } from '@/core/design/shown.ts';
import type { FormField } from '@/server/queries/form-field.ts';
import { ClockLink } from '../shell/clock-link.tsx';
import { FieldControl } from './controls/index.tsx';

interface Props {
  fields: FormField[];
  values: Record<string, unknown>;
  zone: string;
  now: number;
  entry: string | null;
  /** Key of the type. */
  type: string;
  readOnly: boolean;
  issues: Issue[];
  onChange: (id: string, value: unknown) => void;
}

/** The fields of an entry as their type arranges them: sections, and halves beside each other. */
export function EntryForm({ fields, values, issues, ...rest }: Props) {
  const shown = fields.filter(
    (field) =>
      wordsFor(field, issues) !== '' || (!field.hidden && isShown(field.shownWhen, values)),
  );
  return (
    <div className="grid grid-cols-2 gap-x-4 gap-y-3">
      {shown.map((field) => (
        <div key={field.id} className="contents">
          {field.section && (
            <h2 className="col-span-2 mt-2 border-t border-rule pt-2 text-section font-semibold">
              {field.section}
            </h2>
          )}
          <FieldLine
            {...rest}
            field={field}
            value={values[field.id]}
            wrong={wordsFor(field, issues)}
          />
        </div>
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
    <div className={`min-w-0 ${field.half ? '' : 'col-span-2'}`}>
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
        {!rest.readOnly && <Notes notes={field.notes} type={rest.type} />}
        <Counted {...field.limits} value={value} />
        {wrong !== '' && <p className="mt-1 whitespace-pre-line text-alarm">{wrong}</p>}
      </div>
    </div>
  );
});

/** What somebody has to know of a field, with where it is changed. */
function Notes({ notes, type }: { notes: FormField['notes']; type: string }) {
  return notes.map(({ words, setting, write }) => (
    <p key={words} className="mt-1 text-note text-muted">
      {`${words} `}
      {setting !== undefined && (
        <ClockLink className="link underline" href={`/build/types/${type}?field=${setting}`}>
          Change how many
        </ClockLink>
      )}
      {write && (
        <ClockLink className="link underline" href={`/build/content/new/${write.key}`}>
          {`Write a ${write.label}`}
        </ClockLink>
      )}
    </p>
  ));
}

/** How long a text is, where its length is limited. */
function Counted({ maxLength, value }: FormField['limits'] & { value: unknown }) {
  if (maxLength === undefined || typeof value !== 'string' || value === '') return null;
  const { length } = [...value];
  return (
    <p className={`mt-1 text-note ${length > maxLength ? 'text-alarm' : 'text-muted'}`}>
      {`${length.toLocaleString('en')} of ${maxLength.toLocaleString('en')} characters`}
    </p>
  );
}
