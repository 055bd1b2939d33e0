import type { Field } from '@/core/design/field.ts';
import { otherKeyOf } from '@/core/design/spec.ts';
import type { TypeDetail } from '@/server/queries/type.ts';
import { Line } from '@/ui/primitives/line.tsx';
import type { FieldSettingsProps } from './definition.ts';
import { having } from './with.ts';

/** Which types a reference leads to, and what it is called from there. */
export function ReferenceSettings({ id, field, detail, readOnly, onChange }: FieldSettingsProps) {
  const { types: chosen = [] } = field;
  const { types: _, ...anyType } = field;
  const { sitsWithin: ___, ...beside } = field;
  const toggle = (key: string, on: boolean): void => {
    const types = detail.types
      .map((t) => t.key)
      .filter((k) => (k === key ? on : chosen.includes(k)));
    onChange(types.length === 0 ? anyType : { ...field, types });
  };
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
        </div>
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
    </>
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
      </Line>
    </>
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
