import { useState } from 'react';
import type { Field } from '@/core/design/field.ts';
import { otherKeyOf } from '@/core/design/spec.ts';
import { typeKeyOf } from '@/core/outline/names.ts';
import type { TypeDetail } from '@/server/queries/type.ts';
import type { ReferenceExample } from '@/server/queries/leading-here.ts';
import { useAsked } from '../../use-asked.ts';
import { Line } from '@/ui/primitives/line.tsx';
import type { FieldSettingsProps } from './definition.ts';
import { having } from './with.ts';

/** Which types a reference leads to, and what it is called from there. */
export function ReferenceSettings({ id, field, detail, readOnly, onChange }: FieldSettingsProps) {
  const { types: chosen = [] } = field;
  const { types: _, ...anyType } = field;
  const { sitsWithin: ___, atTop: ____, ...beside } = field;
  const known = detail.types.map((t) => t.key);
  const isNew = (key: string): boolean => !known.includes(key);
  const put = (types: string[]): void =>
    onChange(types.length === 0 ? anyType : { ...field, types });
  const toggle = (key: string, on: boolean): void =>
    put([...known.filter((k) => (k === key ? on : chosen.includes(k))), ...chosen.filter(isNew)]);
  const drop = (key: string): void => put(chosen.filter((k) => k !== key));
  return (
    <>
      <Line
        label="Leads to"
        htmlFor={`${id}-types`}
        help={
          chosen.length === 0 ? 'Nothing is ticked: it leads to entries of any type.' : undefined
        }
      >
        <div
          id={`${id}-types`}
          role="group"
          aria-label="Leads to"
          className="flex flex-wrap gap-x-4"
        >
          {detail.types.map(({ key, label }) => (
            <label key={key} className="flex items-center gap-2 py-1">
              <input
                type="checkbox"
                className="h-4 w-4 accent-spruce"
                checked={chosen.includes(key)}
                disabled={readOnly}
                onChange={(e) => toggle(key, e.target.checked)}
              />
              {label}
            </label>
          ))}
          {chosen.filter(isNew).map((key) => (
            <label key={key} className="flex items-center gap-2 py-1">
              <input
                type="checkbox"
                className="h-4 w-4 accent-spruce"
                checked
                disabled={readOnly}
                onChange={() => drop(key)}
              />
              {`New: ${key}, made with this field`}
            </label>
          ))}
        </div>
        {!readOnly && (
          <NewType
            language={detail.language}
            onMake={(key) =>
              !chosen.includes(key) && onChange({ ...field, types: [...chosen, key] })
            }
          />
        )}
      </Line>
      <OtherSide {...{ id, field, detail, readOnly, onChange }} />
      <label className="flex items-center gap-2 py-1">
        <input
          type="checkbox"
          className="h-4 w-4 accent-spruce"
          checked={field.sitsWithin ?? false}
          disabled={readOnly || field.many}
          onChange={(e) => onChange(e.target.checked ? { ...field, sitsWithin: true } : beside)}
        />
        Pages sit within the one it leads to
      </label>
      {field.sitsWithin && <Top {...{ id, field, detail, readOnly, onChange }} />}
    </>
  );
}

/** Makes a type that is not there yet, to lead to. */
function NewType({ language, onMake }: { language: string; onMake: (key: string) => void }) {
  const [label, setLabel] = useState('');
  const make = (): void => {
    if (label.trim() === '') return;
    onMake(typeKeyOf(label.trim(), language));
    setLabel('');
  };
  return (
    <div className="mt-1 flex gap-2">
      <input
        className="control"
        aria-label="Name of a new type to lead to"
        placeholder="A type that is not there yet"
        value={label}
        maxLength={64}
        onChange={(e) => setLabel(e.target.value)}
        onKeyDown={(e) => {
          if (e.key !== 'Enter') return;
          e.preventDefault();
          make();
        }}
      />
      <button type="button" className="button" disabled={label.trim() === ''} onClick={make}>
        Make it
      </button>
    </div>
  );
}

/** How many entries may sit within nothing. */
function Top({ id, field, detail, readOnly, onChange }: FieldSettingsProps) {
  const { plural } = detail.spec;
  const { atTop } = field;
  const how = atTop === undefined ? 'any' : atTop === 0 ? 'none' : 'most';
  const choose = (next: string): void =>
    onChange(
      having(
        field,
        'atTop',
        next === 'any' ? undefined : next === 'none' ? 0 : Math.max(1, atTop ?? 1),
      ),
    );
  return (
    <Line
      label="At the top"
      htmlFor={`${id}-top`}
      help={`The top is where ${plural} stand that sit within nothing.`}
    >
      <div className="flex gap-2">
        <select
          id={`${id}-top`}
          className="control"
          disabled={readOnly}
          value={how}
          onChange={(e) => choose(e.target.value)}
        >
          <option value="any">{`Any number of ${plural}`}</option>
          <option value="most">Only so many</option>
          <option value="none">None: each sits within another one</option>
        </select>
        {how === 'most' && (
          <input
            type="number"
            min={1}
            max={10_000}
            className="control w-24"
            aria-label="How many at the top"
            value={atTop}
            readOnly={readOnly}
            onChange={(e) =>
              onChange({
                ...field,
                atTop: Math.min(10_000, Math.max(1, Number(e.target.value) || 1)),
              })
            }
          />
        )}
      </div>
    </Line>
  );
}

/** What it is called from the entries it leads to, and how many of each side belong together. */
function OtherSide({ id, field, detail, readOnly, onChange }: FieldSettingsProps) {
  const { otherSide = '', otherKey } = field;
  const { otherSide: _, otherKey: __, ...unnamed } = field;
  const [here, there]: [Names, Names] = [detail.spec, ledTo(field, detail)];
  const name = (words: string): void =>
    onChange(
      words === ''
        ? unnamed
        : {
            ...field,
            otherSide: words,
            otherKey:
              field.otherKey && isStored(field, detail) ? field.otherKey : otherKeyOf(words),
          },
    );
  return (
    <>
      <Line
        label="Other side"
        htmlFor={`${id}-side`}
        help={
          otherKey === undefined
            ? 'What it is called from there, such as “saves”; patterns can read it then.'
            : `Patterns of ${there.plural} read it as {${otherKey}}.`
        }
      >
        <input
          id={`${id}-side`}
          className="control"
          maxLength={200}
          value={otherSide}
          readOnly={readOnly}
          onChange={({ target: { value } }) => name(value)}
        />
      </Line>
      <Line label="How many" htmlFor={`${id}-cardinality`} result={cardinality(field, here, there)}>
        <select
          id={`${id}-cardinality`}
          className="control"
          disabled={readOnly}
          value={field.unique ? 'one' : 'several'}
          onChange={({ target: { value } }) =>
            onChange(having(field, 'unique', value === 'one' || undefined))
          }
        >
          <option value="several">{`Any number of ${here.plural} may lead to one ${there.label}`}</option>
          <option value="one">{`One ${here.label} at most leads to each ${there.label}`}</option>
        </select>
        {detail.spec.fields.some((f) => f.id === field.id) && (
          <Example {...{ field, detail, names: [here, there] }} />
        )}
      </Line>
    </>
  );
}

/** What it looks like for a real entry. */
function Example({
  field,
  detail,
  names: [here],
}: Pick<FieldSettingsProps, 'field' | 'detail'> & { names: [Names, Names] }) {
  const [at] = useState(() => Date.now());
  const asked = { at, type: detail.spec.id, field: field.id };
  const { answer } = useAsked<ReferenceExample | null>('example', asked);
  if (!answer) return null;
  const { from, to, back } = answer;
  return (
    <p className="mt-1 text-note text-muted">
      {`For example: “${from}” → ${to.map((name) => `“${name}”`).join(', ')}; to “${to[0]}” ${back === 1 ? `leads 1 ${here.label}` : `lead ${back.toLocaleString('en')} ${here.plural}`}.`}
    </p>
  );
}

/** What a reference leads to, one and several. */
function ledTo({ types }: Field, detail: TypeDetail): Names {
  const led = detail.types.filter(({ key }) => types?.includes(key));
  if (led.length === 0) return { label: 'entry', plural: 'entries of any type' };
  const words = (of: keyof Names): string => led.map((type) => type[of]).join(' or ');
  return { label: words('label'), plural: words('plural') };
}

type Names = Record<'label' | 'plural', string>;

/** Which of the four ways to belong together it is, said from both sides. */
function cardinality({ many, unique, otherSide }: Field, here: Names, there: Names): string {
  const forth = many ? `any number of ${there.plural}` : `one ${there.label}`;
  const back = unique ? `one ${here.label}` : `any number of ${here.plural}`;
  const called = otherSide ? ` (“${otherSide}”)` : '';
  return `Each ${here.label} leads to ${forth}; to each ${there.label} leads ${back}${called}.`;
}

/** Whether the working design has the other side already, so that patterns may read it. */
function isStored({ id, otherKey }: Field, { spec }: TypeDetail): boolean {
  return spec.fields.some((f) => f.id === id && f.otherKey === otherKey);
}
