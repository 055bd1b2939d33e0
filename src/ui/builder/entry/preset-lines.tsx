import { type Presets, SHOWN_DATES, ownPresets, PRESETS } from '@/core/design/presets.ts';
import type { EntryDetail } from '@/server/queries/entry.ts';

type Name = Exclude<keyof Presets, 'template'>;

const YES_NO = [
  [true, 'yes'],
  [false, 'no'],
] as const;
const DATES: Record<(typeof SHOWN_DATES)[number], string> = {
  none: 'none',
  published: 'of the first publication',
  updated: 'of the last change',
};

/** What can be otherwise than the type has it: each with what it can be. */
const LINES: readonly {
  name: Name;
  label: string;
  values: readonly (readonly [value: string | boolean, words: string])[];
  /** Whether it says something of pages only. */
  ofPages: boolean;
}[] = [
  { name: 'author', label: 'Author shown', values: YES_NO, ofPages: false },
  {
    name: 'date',
    label: 'Date shown',
    values: SHOWN_DATES.map((date) => [date, DATES[date]] as const),
    ofPages: false,
  },
  {
    name: 'listed',
    label: 'Who may see it in lists',
    values: [
      [true, 'everyone'],
      [false, 'nobody'],
    ],
    ofPages: false,
  },
  { name: 'index', label: 'Search engines may list it', values: YES_NO, ofPages: true },
  { name: 'follow', label: 'Its links may be followed', values: YES_NO, ofPages: true },
  { name: 'sitemap', label: 'In the site map', values: YES_NO, ofPages: true },
];

/** What an entry begins with, and has otherwise where somebody said so; each can go back. */
export function PresetLines({
  type,
  values,
  readOnly,
  onChange,
}: {
  type: EntryDetail['type'];
  values: Record<string, unknown>;
  readOnly: boolean;
  onChange: (id: string, value: unknown) => void;
}) {
  const own = ownPresets(values);
  const count = Object.keys(own).length;
  const put = (name: keyof Presets, value: string | boolean | undefined): void => {
    const { [name]: _, ...rest } = own;
    const next = value === undefined ? rest : { ...rest, [name]: value };
    onChange(PRESETS, Object.keys(next).length > 0 ? next : null);
  };
  return (
    <details className="border-t border-rule pt-2">
      <summary className="cursor-pointer font-medium">
        Presets
        <span className="font-normal text-muted">
          {count === 0 ? ': all as the type has them' : `: ${count} set here`}
        </span>
      </summary>
      {type.templates.length > 0 && (
        <PresetLine
          label="Page template"
          id="preset-template"
          values={type.templates.map(({ id, label }) => [id, label] as const)}
          {...{ readOnly }}
          preset={type.template}
          own={own.template}
          onChange={(value) => put('template', value)}
        />
      )}
      {LINES.filter(({ ofPages }) => type.hasPages || !ofPages).map(
        ({ name, label, values: all }) => {
          const preset = type.presets[name];
          return (
            preset !== undefined && (
              <PresetLine
                key={name}
                {...{ label, preset, readOnly }}
                id={`preset-${name}`}
                values={all}
                own={own[name]}
                onChange={(value) => put(name, value)}
              />
            )
          );
        },
      )}
    </details>
  );
}

function PresetLine({
  label,
  id,
  values,
  preset,
  own,
  readOnly,
  onChange,
}: {
  label: string;
  id: string;
  values: readonly (readonly [value: string | boolean, words: string])[];
  /** What the type has. */
  preset: string | boolean;
  /** What this entry has otherwise. */
  own: string | boolean | undefined;
  readOnly: boolean;
  onChange: (value: string | boolean | undefined) => void;
}) {
  const words = (value: string | boolean): string =>
    values.find(([known]) => known === value)?.[1] ?? String(value);
  return (
    <div className="grid grid-cols-[minmax(0,2fr)_minmax(0,3fr)_88px] items-center gap-x-3 py-1">
      <label htmlFor={id} className={own === undefined ? 'text-muted' : 'font-medium'}>
        {label}
      </label>
      <select
        id={id}
        className="control"
        disabled={readOnly}
        value={own === undefined ? '' : String(own)}
        onChange={({ target: { value } }) =>
          onChange(values.find(([known]) => String(known) === value)?.[0])
        }
      >
        <option value="">{`As the type has it: ${words(preset)}`}</option>
        {values.map(([value, said]) => (
          <option key={String(value)} value={String(value)}>
            {`Here: ${said}`}
          </option>
        ))}
      </select>
      {own !== undefined && !readOnly && (
        <button
          type="button"
          className="button-quiet"
          aria-label={`${label}: as the type has it`}
          onClick={() => onChange(undefined)}
        >
          Go back
        </button>
      )}
    </div>
  );
}
