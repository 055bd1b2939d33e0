import { useId, useState } from 'react';
import { nearNames } from '@/core/outline/near-names.ts';
import type { Option } from '@/server/queries/offers.ts';
import { command } from '../../send.ts';
import { Chips } from './chips.tsx';
import { type ControlProps, common } from './definition.ts';

/** Tags: typed, with what is there offered; comma or Enter ends one, and makes it where it is new. */
export function TagsControl(props: ControlProps) {
  const { field, value, onChange } = props;
  const [made, setMade] = useState<Option[]>([]);
  const options = [...field.options, ...made];
  const labelOf = (key: string): string =>
    options.find((o) => o.value === key)?.label ?? `${key} (no longer offered)`;
  const chosen = [value ?? []].flat().map(String);
  const add = (keys: string[]): void =>
    onChange([...chosen, ...keys.filter((key) => !chosen.includes(key))]);
  return (
    <Chips {...props} labelOf={labelOf}>
      {() => (
        <Typing
          props={props}
          options={options.filter((o) => !chosen.includes(o.value))}
          all={options}
          onFound={(key) => add([key])}
          onMade={(option) => {
            setMade([...made, option]);
            add([option.value]);
          }}
        />
      )}
    </Chips>
  );
}

function Typing({
  props,
  options,
  all,
  onFound,
  onMade,
}: {
  props: ControlProps;
  /** What can still be chosen. */
  options: Option[];
  all: Option[];
  onFound: (key: string) => void;
  onMade: (option: Option) => void;
}) {
  const list = useId();
  const [typed, setTyped] = useState('');
  const [problem, setProblem] = useState('');
  const { set = '', language = '' } = props.field.subjects ?? {};
  const name = typed.trim();
  const named = all.map((o) => ({ ...o, name: o.label }));
  const isThere = (text: string): Option | undefined =>
    all.find((o) => o.label.toLowerCase() === text.toLowerCase());
  const near = name === '' || isThere(name) ? [] : nearNames(name, named, language);
  const make = async (text: string): Promise<void> => {
    const done = await command('addSubjects', { set, names: [text] });
    if (!done.ok) return setProblem(done.issues.map(({ message }) => message).join(' '));
    setTyped('');
    for (const { key } of done.value.added) onMade({ value: key, label: text });
  };
  const take = (text: string): void => {
    setProblem('');
    const found = isThere(text);
    if (found) {
      setTyped('');
      onFound(found.value);
    } else if (text !== '') void make(text);
  };
  return (
    <>
      <input
        {...common(props)}
        className="control mt-1"
        list={list}
        maxLength={200}
        placeholder="Type one; comma or Enter ends it"
        value={typed}
        onChange={({ target: { value } }) => {
          const chosen = options.find((o) => o.label === value);
          if (chosen) take(chosen.label);
          else setTyped(value);
        }}
        onKeyDown={(e) => {
          if (e.key !== 'Enter' && e.key !== ',') return;
          e.preventDefault();
          // One that is near must be chosen or passed over: it is not made by accident.
          if (near.length === 0) take(name);
        }}
      />
      <datalist id={list}>
        {options.map((o) => (
          <option key={o.value} value={o.label} />
        ))}
      </datalist>
      {near.length > 0 && (
        <Near name={name} near={near} onTake={take} onMake={() => void make(name)} />
      )}
      {problem !== '' && <p className="mt-1 text-alarm">{problem}</p>}
    </>
  );
}

/** What may be meant by a name that is not there. */
function Near({
  name,
  near,
  onTake,
  onMake,
}: {
  name: string;
  near: Option[];
  onTake: (name: string) => void;
  onMake: () => void;
}) {
  return (
    <p className="mt-1 flex flex-wrap items-center gap-2" role="status">
      Is it
      {near.map((o) => (
        <button key={o.value} type="button" className="button" onClick={() => onTake(o.label)}>
          {o.label}
        </button>
      ))}
      or
      <button type="button" className="button" onClick={onMake}>
        {`a new one: ${name}`}
      </button>
    </p>
  );
}
