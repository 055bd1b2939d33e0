'use client';

import { useState } from 'react';
import type { Block } from '@/core/design/block.ts';
import type { FilterSpec } from '@/core/design/listing-spec.ts';
import { sentence } from '@/core/design/words.ts';
import type { Issue } from '@/core/issue.ts';
import type { ItemOffers } from '@/core/template/offers.ts';
import type { PanelProperty } from '@/core/template/panel.ts';
import type { FoundEntry } from '@/server/queries/offers.ts';
import type { TemplateDetail } from '@/server/queries/template.ts';
import { EntryPicker } from '../entry-picker.tsx';
import { WhereWords } from '../listing/where-words.tsx';
import { PatternInput } from '../pattern-input.tsx';

/** What the properties of blocks are chosen from. */
export type PropertyChoices = Pick<
  TemplateDetail,
  | 'fields'
  | 'offers'
  | 'listings'
  | 'picks'
  | 'cards'
  | 'menus'
  | 'styles'
  | 'columns'
  | 'names'
  | 'at'
  | 'type'
> & { items: ItemOffers | null };

interface Props extends PropertyChoices {
  id: string;
  block: Block;
  property: PanelProperty;
  value: unknown;
  issues: Issue[];
  readOnly: boolean;
  /** Undefined where nothing is said. */
  onChange: (value: unknown) => void;
}

/** The control of one property, by what it holds. */
export function PropertyControl(props: Props) {
  const { id, property, value, issues, readOnly, onChange } = props;
  const { control, many, required, otherwise } = property;
  const text = typeof value === 'string' ? value : '';
  const orNothing = (next: string): void => onChange(next === '' && !required ? undefined : next);
  if (control === 'filter') return <FilterControl {...props} />;
  if (control === 'entry') return <EntryControl {...props} />;
  if (many && property.options.length > 0) return <ChoicesControl {...props} />;
  if (many)
    return (
      <PatternInput
        {...{ id, issues, readOnly }}
        value={Array.isArray(value) ? value.join(', ') : ''}
        onChange={(next) => onChange(listed(next))}
      />
    );
  const keys = choicesOf(props);
  if (keys) return <ChoiceControl {...props} {...{ keys, text }} onChange={orNothing} />;
  if (control === 'switch')
    return (
      <input
        id={id}
        type="checkbox"
        className="mt-2 h-4 w-4 accent-spruce"
        disabled={readOnly}
        checked={(value ?? otherwise) === true}
        onChange={(e) => onChange(e.target.checked)}
      />
    );
  if (control === 'number') return <NumberControl {...props} />;
  const offered = property.name === 'style' ? props.styles : [];
  if (control !== 'words')
    return (
      <PatternInput
        {...{ id, issues, readOnly }}
        isExpression={control === 'expression'}
        value={text}
        onChange={orNothing}
      />
    );
  return (
    <>
      <input
        id={id}
        className="control max-w-[320px]"
        disabled={readOnly}
        list={offered.length > 0 ? `${id}-offers` : undefined}
        placeholder={typeof otherwise === 'string' ? otherwise : ''}
        value={text}
        onChange={(e) => orNothing(e.target.value)}
      />
      {offered.length > 0 && (
        <datalist id={`${id}-offers`}>
          {offered.map(({ key, label }) => (
            <option key={key} value={key} label={label} />
          ))}
        </datalist>
      )}
      <Wrong issues={issues} />
    </>
  );
}

function ChoiceControl({
  id,
  property,
  keys,
  text,
  issues,
  readOnly,
  onChange,
}: Pick<Props, 'id' | 'property' | 'issues' | 'readOnly'> & {
  keys: { key: string; label: string }[];
  text: string;
  onChange: (value: string) => void;
}) {
  return (
    <>
      <select
        id={id}
        className="control max-w-[320px]"
        disabled={readOnly}
        aria-invalid={issues.length > 0 || undefined}
        value={text}
        onChange={(e) => onChange(e.target.value)}
      >
        {!property.required && <option value="">{noneOf(property)}</option>}
        {text !== '' && !keys.some(({ key }) => key === text) && (
          <option value={text}>{text}</option>
        )}
        {keys.map(({ key, label }) => (
          <option key={key} value={key}>
            {label}
          </option>
        ))}
      </select>
      <Wrong issues={issues} />
    </>
  );
}

function NumberControl({ id, property, value, issues, readOnly, onChange }: Props) {
  const { min, max, otherwise } = property;
  return (
    <>
      <input
        id={id}
        type="number"
        className="control !w-28"
        min={min ?? undefined}
        max={max ?? undefined}
        disabled={readOnly}
        placeholder={otherwise === null ? '' : String(otherwise)}
        value={typeof value === 'number' ? value : ''}
        onChange={(e) => onChange(e.target.value === '' ? undefined : Number(e.target.value))}
      />
      <Wrong issues={issues} />
    </>
  );
}

/** Conditions on an entry, as words of a sentence. */
function FilterControl({ block, value, issues, readOnly, onChange, ...of }: Props) {
  const key = block.of === 'item' ? of.items?.type : of.type?.key;
  const columns = of.columns[key ?? ''];
  if (!columns) return <p className="pt-1.5 text-muted">There is no entry here to ask of.</p>;
  return (
    <>
      <fieldset disabled={readOnly} className="sentence pt-1">
        <legend className="sr-only">What the entry must be</legend>
        Entries
        <WhereWords
          where={value as FilterSpec | undefined}
          detail={{ columns, names: of.names, at: of.at }}
          onChange={onChange}
        />
      </fieldset>
      <Wrong issues={issues} />
    </>
  );
}

/** An entry, found by its name. */
function EntryControl({ id, value, issues, readOnly, onChange, names, at }: Props) {
  const [found, setFound] = useState<FoundEntry | null>(null);
  const chosen = typeof value === 'string' ? value : '';
  const name = found?.id === chosen ? found.name : names[chosen];
  return (
    <>
      {chosen !== '' && <p className="pt-1.5">{name ?? chosen}</p>}
      {!readOnly && (
        <EntryPicker
          {...{ id, at }}
          label={chosen === '' ? 'Find an entry …' : 'Find another …'}
          types={null}
          onPick={(entry) => {
            setFound(entry);
            onChange(entry.id);
          }}
        />
      )}
      <Wrong issues={issues} />
    </>
  );
}

/** Several of a few, each ticked; none of them says nothing. */
function ChoicesControl({ id, property, value, issues, readOnly, onChange }: Props) {
  const chosen = Array.isArray(value) ? (value as string[]) : [];
  const put = (key: string, isOn: boolean): void => {
    const next = property.options.filter((k) => (k === key ? isOn : chosen.includes(k)));
    onChange(next.length === 0 ? undefined : next);
  };
  return (
    <>
      <div
        id={id}
        role="group"
        aria-label={property.label}
        className="flex flex-wrap gap-x-4 pt-1.5"
      >
        {property.options.map((key) => (
          <label key={key} className="flex items-center gap-2">
            <input
              type="checkbox"
              className="h-4 w-4 accent-spruce"
              disabled={readOnly}
              checked={chosen.includes(key)}
              onChange={(e) => put(key, e.target.checked)}
            />
            {optionWords(key)}
          </label>
        ))}
      </div>
      <Wrong issues={issues} />
    </>
  );
}

/** Options that do not speak for themselves. */
const OPTIONS: Readonly<Record<string, string>> = {
  front: 'the front page',
  entry: 'pages of entries',
  listing: 'first pages of listings',
  value: 'first pages of single values',
  further: 'their further pages',
  other: 'where nothing is found',
};

const optionWords = (key: string): string => OPTIONS[key] ?? key;

/** What a property is chosen from; null where it is written. */
function choicesOf({
  block,
  property: { name, control, options },
  ...of
}: Props): { key: string; label: string }[] | null {
  switch (control) {
    case 'field':
      return fieldChoices(of, block.block, name);
    case 'listing':
      return of.listings;
    case 'picks':
      return of.picks;
    case 'template':
      return name === 'menu' ? of.menus : of.cards;
    case 'choice':
      return options.map((key) => ({ key, label: key }));
    default:
      return null;
  }
}

/** Fields that fit: of the item within a repetition, of the type, and over one reference. */
function fieldChoices(
  { offers, fields, items }: Pick<PropertyChoices, 'offers' | 'fields' | 'items'>,
  block: string,
  name: string,
): { key: string; label: string }[] {
  const own = offers.find((offer) => offer.block === block)?.fields[name] ?? [];
  const ofItem = items?.fields[block]?.[name] ?? [];
  const labels = new Map(fields.map(({ key, label }) => [key, label]));
  const words = (path: string): string => {
    const [first, ...more] = path.split('.');
    return [labels.get(first!) ?? sentence(first!), ...more.map(sentence)].join(' → ');
  };
  return [...ofItem, ...own].map((key) => ({ key, label: words(key) }));
}

function noneOf({ control, otherwise }: PanelProperty): string {
  if (typeof otherwise === 'string') return `As usual: ${otherwise}`;
  return control === 'template' ? 'The card of each type' : 'None';
}

/** Names between commas, such as fields to be shown. */
function listed(words: string): string[] {
  return words.split(',').map((word) => word.trimStart());
}

function Wrong({ issues }: { issues: readonly Issue[] }) {
  return issues.map(({ message, fix }, i) => (
    <p key={i} className="mt-1 text-alarm">
      {message} <span className="text-muted">{fix}</span>
    </p>
  ));
}
