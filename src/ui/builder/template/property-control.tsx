'use client';

import type { Issue } from '@/core/issue.ts';
import type { BlockOffer } from '@/core/template/offers.ts';
import type { PanelProperty } from '@/core/template/panel.ts';
import type { TemplateDetail } from '@/server/queries/template.ts';
import { PatternInput } from '../pattern-input.tsx';

/** What the properties of blocks are chosen from. */
export type PropertyChoices = Pick<
  TemplateDetail,
  'fields' | 'offers' | 'listings' | 'picks' | 'cards'
>;

interface Props extends PropertyChoices {
  id: string;
  /** The kind of block that it is of. */
  block: string;
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
  if (control !== 'words')
    return <PatternInput {...{ id, issues, readOnly }} value={text} onChange={orNothing} />;
  return (
    <>
      <input
        id={id}
        className="control max-w-[320px]"
        disabled={readOnly}
        placeholder={typeof otherwise === 'string' ? otherwise : ''}
        value={text}
        onChange={(e) => orNothing(e.target.value)}
      />
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

/** What a property is chosen from; null where it is written. */
function choicesOf({
  block,
  property: { name, control, options },
  ...of
}: Props): { key: string; label: string }[] | null {
  switch (control) {
    case 'field':
      return fieldChoices(of.offers, block, name, of.fields);
    case 'listing':
      return of.listings;
    case 'picks':
      return of.picks;
    case 'template':
      return of.cards;
    case 'choice':
      return options.map((key) => ({ key, label: key }));
    default:
      return null;
  }
}

function fieldChoices(
  offers: readonly BlockOffer[],
  block: string,
  name: string,
  fields: TemplateDetail['fields'],
): { key: string; label: string }[] {
  const fitting = offers.find((offer) => offer.block === block)?.fields[name] ?? [];
  const labels = new Map(fields.map(({ key, label }) => [key, label]));
  return fitting.map((key) => ({ key, label: labels.get(key) ?? key }));
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
