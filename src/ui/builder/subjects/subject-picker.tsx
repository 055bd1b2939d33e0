import { useId, useState } from 'react';
import type { SubjectLine } from '@/server/queries/subjects.ts';

/** How many are offered of those that have the typed words in their name. */
const OFFERED = 30;

/** One subject of a set, found by typing; those offered stand by their names. */
export function SubjectPicker({
  label,
  subjects,
  value,
  onChange,
}: {
  label: string;
  subjects: readonly SubjectLine[];
  /** Key of the chosen one. */
  value: string | null;
  onChange: (key: string | null) => void;
}) {
  const list = useId();
  const [words, setWords] = useState(subjects.find(({ key }) => key === value)?.name ?? '');
  const typed = words.trim().toLowerCase();
  const offered = subjects.filter(({ name }) => name.toLowerCase().includes(typed));
  return (
    <>
      <input
        className="control"
        aria-label={label}
        placeholder="Type its name"
        list={list}
        value={words}
        onChange={({ target }) => {
          setWords(target.value);
          const name = target.value.trim().toLowerCase();
          onChange(subjects.find((s) => s.name.toLowerCase() === name)?.key ?? null);
        }}
      />
      <datalist id={list}>
        {offered.slice(0, OFFERED).map(({ key, name }) => (
          <option key={key} value={name} />
        ))}
      </datalist>
    </>
  );
}
