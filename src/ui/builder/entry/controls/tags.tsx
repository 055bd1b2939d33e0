import { useDeferredValue, useId, useMemo, useState } from 'react';
import { nearNames } from '@/core/outline/near-names.ts';
import type { Option } from '@/server/queries/offers.ts';
import { ask, command } from '../../send.ts';
import { Chips } from './chips.tsx';
import { type ControlProps, common } from './definition.ts';

/** Tags: typed, with what is there offered; comma or Enter ends one, and makes it where it is new. */
export function TagsControl(props: ControlProps) {
  const { field, value, onChange } = props;
  const [made, setMade] = useState<Option[]>([]);
  const options = useMemo(() => [...field.options, ...made], [field.options, made]);
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

/** The one that is called so. */
const named = (text: string, all: Option[]): Option | undefined =>
  all.find((o) => o.label.toLowerCase() === text.toLowerCase());

/** How many of those with the typed words are offered. */
const OFFERED = 20;

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
  const [elsewhere, setElsewhere] = useState<{ name: string; sets: string[] } | null>(null);
  const { set = '', language = '' } = props.field.subjects ?? {};
  const name = typed.trim();
  const isThere = (text: string): Option | undefined => named(text, all);
  const near = useNear(name, all, language);
  const make = async (text: string): Promise<void> => {
    const done = await command('addSubjects', { set, names: [text] });
    if (!done.ok) return setProblem(done.issues.map(({ message }) => message).join(' '));
    setTyped('');
    setElsewhere(null);
    for (const { key } of done.value.added) onMade({ value: key, label: text });
  };
  const take = async (text: string): Promise<void> => {
    setProblem('');
    const found = isThere(text);
    if (found) {
      setTyped('');
      return onFound(found.value);
    }
    if (text === '') return;
    const same = await ask<string[]>('sameWord', { at: props.now, set, name: text });
    const sets = 'value' in same ? same.value : [];
    if (sets.length > 0) setElsewhere({ name: text, sets });
    else await make(text);
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
          if (chosen) void take(chosen.label);
          else setTyped(value);
        }}
        onKeyDown={(e) => {
          if (e.key !== 'Enter' && e.key !== ',') return;
          e.preventDefault();
          // One that is near must be chosen or passed over: it is not made by accident.
          if (near.length === 0 || isThere(name)) void take(name);
        }}
      />
      <Offered id={list} options={options} words={name} />
      <Doubts
        {...{ name }}
        near={isThere(name) ? [] : near}
        elsewhere={elsewhere?.name === name ? elsewhere.sets : []}
        onTake={(text) => void take(text)}
        onMake={() => void make(name)}
      />
      {problem !== '' && <p className="mt-1 text-alarm">{problem}</p>}
    </>
  );
}

function Offered({ id, options, words }: { id: string; options: Option[]; words: string }) {
  const wanted = words.toLowerCase();
  return (
    <datalist id={id}>
      {options
        .filter(({ label }) => label.toLowerCase().includes(wanted))
        .slice(0, OFFERED)
        .map((o) => (
          <option key={o.value} value={o.label} />
        ))}
    </datalist>
  );
}

/** Why a name is not made at once: one that is near, or the same word in another set. */
function Doubts({
  name,
  near,
  elsewhere,
  onTake,
  onMake,
}: {
  name: string;
  near: Option[];
  elsewhere: string[];
  onTake: (name: string) => void;
  onMake: () => void;
}) {
  if (near.length > 0) return <Near {...{ name, near, onTake, onMake }} />;
  if (elsewhere.length === 0) return null;
  return (
    <p className="mt-1 flex flex-wrap items-center gap-2" role="status">
      {`“${name}” stands in ${elsewhere.join(' and in ')}, not here.`}
      <button type="button" className="button" onClick={onMake}>
        Make it here as well
      </button>
    </p>
  );
}

/** What may be meant by a name; typing does not wait for it, however many there are. */
function useNear(name: string, all: Option[], language: string): Option[] {
  const asked = useDeferredValue(name);
  return useMemo(() => {
    if (asked === '') return [];
    const called = all.map((o) => ({ ...o, name: o.label }));
    return nearNames(asked, called, language).filter(
      (o) => o.label.toLowerCase() !== asked.toLowerCase(),
    );
  }, [asked, all, language]);
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
