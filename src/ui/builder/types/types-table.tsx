'use client';

import { useState } from 'react';
import { SHARED_SETTINGS, type SharedSetting } from '@/core/design-edit/shared-settings.ts';
import type { TypeLine } from '@/server/queries/types.ts';
import { Table, type TableColumn } from '@/ui/primitives/table.tsx';
import { counted, entriesCounted } from '../format.ts';
import { ClockLink } from '../shell/clock-link.tsx';
import { SetTogether } from './set-together.tsx';
import type { Shared } from './use-shared.ts';

const TYPE: TableColumn<TypeLine> = {
  key: 'type',
  head: 'Type',
  className: 'font-[550]',
  cell: ({ key, label, description }) => (
    <ClockLink href={`/build/types/${key}`} className="text-ink hover:underline">
      <span title={description}>{label}</span>
    </ClockLink>
  ),
};

const set = (is: boolean, words = 'set') => (
  <span className={is ? '' : 'text-muted'}>{is ? words : 'default'}</span>
);

const COLUMNS: TableColumn<TypeLine>[] = [
  TYPE,
  {
    key: 'fields',
    head: <span className="sr-only">Fields</span>,
    className: 'text-muted',
    cell: ({ fields, entries }) => (
      <>
        <span className="whitespace-nowrap">{counted(fields, 'field')}</span>,{' '}
        <span className="whitespace-nowrap">{entriesCounted(entries)}</span>
      </>
    ),
  },
  {
    key: 'address',
    head: 'Address',
    cell: ({ address, single }) =>
      address === null ? (
        <span className="text-muted">
          {single ? 'one entry, read everywhere' : 'no pages of its own'}
        </span>
      ) : (
        <span className="block max-w-36 truncate font-mono text-note" title={address}>
          {address}
        </span>
      ),
  },
  { key: 'page', head: 'Page', cell: ({ template }) => set(template !== null, template ?? '') },
  { key: 'card', head: 'Card', cell: ({ card }) => set(card !== null, card ?? '') },
  {
    key: 'seo',
    head: 'SEO',
    cell: ({ settings }) =>
      set(Object.entries(settings).some(([name, v]) => name.startsWith('seo.') && v !== null)),
  },
  {
    key: 'timing',
    head: 'Timing',
    cell: ({ timing }) => <span title={timing.join('; ')}>{set(timing.length > 0)}</span>,
  },
];

/** All types in a line each; or one setting of them all, compared and set for several at once. */
export function TypesTable({
  types,
  shared,
  readOnly,
}: {
  types: TypeLine[];
  shared: Shared;
  readOnly: boolean;
}) {
  const [property, setProperty] = useState('');
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const setting = SHARED_SETTINGS.find((s) => s.property === property);
  const toggle = (id: string): void =>
    setChosen(new Set(chosen.has(id) ? [...chosen].filter((c) => c !== id) : [...chosen, id]));
  return (
    <section aria-label="Types">
      {types.length > 1 && (
        <label className="flex items-center gap-2 pb-2">
          <span className="text-muted">Compare</span>
          <select
            className="control !w-72"
            value={property}
            onChange={(e) => setProperty(e.target.value)}
          >
            <option value="">what each type is</option>
            {SHARED_SETTINGS.map((s) => (
              <option key={s.property} value={s.property}>
                {s.label}
              </option>
            ))}
          </select>
        </label>
      )}
      {setting && !readOnly && (
        <SetTogether
          key={property}
          setting={setting}
          count={chosen.size}
          onSet={(value) => shared.set([...chosen], property, value)}
        />
      )}
      <Table
        label="Types"
        columns={setting ? compared(setting, shared, chosen, readOnly ? null : toggle) : COLUMNS}
        rows={types}
        keyOf={({ key }) => key}
      />
      {types.length === 0 && (
        <p className="border-t border-rule py-3 text-muted">
          No types yet. Write the first one above: its name, a colon, and what each of its entries
          holds.
        </p>
      )}
    </section>
  );
}

function compared(
  setting: SharedSetting,
  shared: Shared,
  chosen: ReadonlySet<string>,
  toggle: ((id: string) => void) | null,
): TableColumn<TypeLine>[] {
  const tick: TableColumn<TypeLine> = {
    key: 'chosen',
    head: <span className="sr-only">Chosen</span>,
    className: 'w-8',
    cell: ({ id, label }) => (
      <input
        type="checkbox"
        className="h-4 w-4 accent-spruce"
        aria-label={`Set it for ${label}`}
        checked={chosen.has(id)}
        onChange={() => toggle!(id)}
      />
    ),
  };
  const value: TableColumn<TypeLine> = {
    key: setting.property,
    head: setting.label,
    cell: (line) => <SettingValue {...{ line, setting, shared }} />,
  };
  return [...(toggle ? [tick] : []), TYPE, value];
}

function SettingValue({
  line,
  setting,
  shared,
}: {
  line: TypeLine;
  setting: SharedSetting;
  shared: Shared;
}) {
  const value = shared.valueOf(line, setting.property);
  const isUnsaved = value !== (line.settings[setting.property] ?? null);
  const words = setting.values?.find((v) => v.value === value)?.words ?? String(value);
  return (
    <>
      {value === null ? (
        <span className="text-muted">{`default: ${setting.otherwise}`}</span>
      ) : (
        <span className={setting.values ? '' : 'font-mono text-note break-all'}>{words}</span>
      )}
      {isUnsaved && <span className="text-muted"> · not saved</span>}
    </>
  );
}
