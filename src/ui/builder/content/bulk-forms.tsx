'use client';

import { type ComponentType, useEffect, useState } from 'react';
import type { CommandInput } from '@/server/commands/index.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { FormField } from '@/server/queries/form-field.ts';
import type { ContentFilters } from '@/core/content/filters.ts';
import { FieldControl } from '../entry/controls/index.tsx';
import { localValue } from '../format.ts';
import { InstantField, exactInstant } from '../instant/instant-field.tsx';
import { ask } from '../send.ts';

/** What is to be done. */
export type BulkWhat = CommandInput<'changeEntries'>['what'];

interface FormProps {
  filters: ContentFilters;
  clock: Clock;
  what: BulkWhat | null;
  /** Null while it is not said what. */
  onChange: (what: BulkWhat | null) => void;
}

/** One thing that can be done with many entries, as it is asked for. */
export interface BulkForm {
  do: BulkWhat['do'] | 'clear';
  label: string;
  /** What the entries are afterwards: "published". */
  done: string;
  /** Whether it speaks of fields, which only entries of one type share. */
  needsType?: true;
  /** What is to be done where nothing more has to be said. */
  first?: BulkWhat;
  /** What the button says. */
  verb: (what: BulkWhat, clock: Clock, entries: string) => string;
  Form: ComponentType<FormProps>;
}

const today = ({ now, zone }: Clock): string =>
  `now (today ${localValue(now, zone).slice(11, 16)})`;

/** "Publish 3 entries now (today 14:05)". */
const whenWords =
  (verb: string) =>
  (what: BulkWhat, clock: Clock, entries: string): string => {
    const at = 'at' in what ? what.at : null;
    return `${verb} ${entries} ${at === null ? today(clock) : `at ${at.slice(0, 16).replace('T', ' ')}`}`;
  };

/** Everything that can be done with many entries, in the order in which it is offered. */
export const BULK_FORMS: readonly BulkForm[] = [
  {
    do: 'publish',
    label: 'Publish',
    done: 'published, or planned to be',
    first: { do: 'publish', at: null },
    verb: whenWords('Publish'),
    Form: whenForm('publish'),
  },
  {
    do: 'retire',
    label: 'Retire',
    done: 'retired, or planned to be',
    first: { do: 'retire', at: null },
    verb: whenWords('Retire'),
    Form: whenForm('retire'),
  },
  {
    do: 'setValue',
    label: 'Set a field',
    done: 'saved with another value',
    needsType: true,
    verb: (_, __, entries) => `Set it in ${entries}`,
    Form: SetForm,
  },
  {
    do: 'clear',
    label: 'Clear a field',
    done: 'saved without it',
    needsType: true,
    verb: (_, __, entries) => `Clear it in ${entries}`,
    Form: ClearForm,
  },
  {
    do: 'addSubject',
    label: 'Add a tag or category',
    done: 'saved with it',
    needsType: true,
    verb: (_, __, entries) => `Add it to ${entries}`,
    Form: subjectForm('addSubject'),
  },
  {
    do: 'takeSubject',
    label: 'Take a tag or category away',
    done: 'saved without it',
    needsType: true,
    verb: (_, __, entries) => `Take it from ${entries}`,
    Form: subjectForm('takeSubject'),
  },
  {
    do: 'give',
    label: 'Give to another author',
    done: 'given to them',
    verb: (_, __, entries) => `Give ${entries} to them`,
    Form: GiveForm,
  },
  {
    do: 'remove',
    label: 'Delete',
    done: 'deleted',
    first: { do: 'remove' },
    verb: (_, clock, entries) => `Delete ${entries} ${today(clock)}`,
    Form: () => (
      <p>
        They leave the site and Content; what was public can still be looked at. It can be undone.
      </p>
    ),
  },
];

function whenForm(name: 'publish' | 'retire') {
  return function WhenForm({ clock, what, onChange }: FormProps) {
    const [typed, setTyped] = useState('');
    const later = what === null || ('at' in what && what.at !== null);
    return (
      <fieldset className="flex flex-col gap-2">
        <legend className="sr-only">When</legend>
        <label className="flex items-center gap-2">
          <input
            type="radio"
            checked={!later}
            onChange={() => onChange({ do: name, at: null } as BulkWhat)}
          />
          Now
        </label>
        <label className="flex items-center gap-2">
          <input type="radio" checked={later} onChange={() => onChange(null)} />
          At an instant
        </label>
        {later && (
          <InstantField
            label="When"
            zone={clock.zone}
            now={clock.now}
            value={typed}
            onChange={(words) => {
              setTyped(words);
              const at = exactInstant(words, clock.now, clock.zone);
              onChange(at === null ? null : ({ do: name, at } as BulkWhat));
            }}
          />
        )}
      </fieldset>
    );
  };
}

/** The fields of the type at hand, as its form has them. */
function useFields({ type }: ContentFilters, now: number): FormField[] {
  const [fields, setFields] = useState<FormField[]>([]);
  useEffect(() => {
    void ask<FormField[]>('form', { at: now, type: type ?? '' }).then((answer) => {
      if ('value' in answer) setFields(answer.value);
    });
  }, [type, now]);
  return fields;
}

function FieldSelect({
  fields,
  value,
  onChange,
}: {
  fields: readonly FormField[];
  value: string;
  onChange: (id: string) => void;
}) {
  return (
    <select
      aria-label="Field"
      className="control"
      value={value}
      onChange={(e) => onChange(e.target.value)}
    >
      <option value="">Choose a field</option>
      {fields.map(({ id, label }) => (
        <option key={id} value={id}>
          {label}
        </option>
      ))}
    </select>
  );
}

function SetForm({ filters, clock, what, onChange }: FormProps) {
  const fields = useFields(filters, clock.now).filter((f) => f.control !== 'computed');
  const [chosen, setChosen] = useState('');
  const field = fields.find(({ id }) => id === chosen);
  const value = what?.do === 'setValue' ? what.value : null;
  return (
    <div className="flex flex-col gap-2">
      <FieldSelect
        {...{ fields }}
        value={chosen}
        onChange={(id) => {
          setChosen(id);
          onChange(null);
        }}
      />
      {field && (
        <FieldControl
          id="bulk-value"
          {...{ field, value }}
          zone={clock.zone}
          now={clock.now}
          entry={null}
          readOnly={false}
          invalid={false}
          onChange={(next) => onChange({ do: 'setValue', field: field.id, value: next })}
        />
      )}
    </div>
  );
}

function ClearForm({ filters, clock, what, onChange }: FormProps) {
  const fields = useFields(filters, clock.now).filter((f) => f.control !== 'computed');
  return (
    <FieldSelect
      {...{ fields }}
      value={what?.do === 'setValue' ? what.field : ''}
      onChange={(field) => onChange(field === '' ? null : { do: 'setValue', field, value: null })}
    />
  );
}

function subjectForm(name: 'addSubject' | 'takeSubject') {
  return function SubjectForm({ filters, clock, what, onChange }: FormProps) {
    const fields = useFields(filters, clock.now).filter(({ subjects }) => subjects !== undefined);
    const [chosen, setChosen] = useState('');
    const field =
      fields.find(({ id }) => id === chosen) ?? (fields.length === 1 ? fields[0] : undefined);
    const key = what && 'key' in what ? what.key : '';
    return (
      <div className="flex flex-col gap-2">
        {fields.length === 0 && <p className="text-muted">This type has no tags or categories.</p>}
        {fields.length > 1 && (
          <FieldSelect
            {...{ fields }}
            value={chosen}
            onChange={(id) => {
              setChosen(id);
              onChange(null);
            }}
          />
        )}
        {field && (
          <select
            aria-label={field.label}
            className="control"
            value={key}
            onChange={({ target }) =>
              onChange(
                target.value === '' ? null : { do: name, field: field.id, key: target.value },
              )
            }
          >
            <option value="">{`Choose of ${field.label}`}</option>
            {field.options.map(({ value, label }) => (
              <option key={value} value={value}>
                {label}
              </option>
            ))}
          </select>
        )}
      </div>
    );
  };
}

function GiveForm({ clock, what, onChange }: FormProps) {
  const [people, setPeople] = useState<{ id: string; name: string }[]>([]);
  useEffect(() => {
    void ask<{ id: string; name: string }[]>('people', { at: clock.now }).then((answer) => {
      if ('value' in answer) setPeople(answer.value);
    });
  }, [clock.now]);
  return (
    <select
      aria-label="Author"
      className="control"
      value={what?.do === 'give' ? what.author : ''}
      onChange={({ target }) =>
        onChange(target.value === '' ? null : { do: 'give', author: target.value })
      }
    >
      <option value="">Choose a person</option>
      {people.map(({ id, name }) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
    </select>
  );
}
