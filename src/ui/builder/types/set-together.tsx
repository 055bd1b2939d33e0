import { useState } from 'react';
import type { SharedSetting } from '@/core/design-edit/shared-settings.ts';

/** Sets one thing for all types that are ticked. */
export function SetTogether({
  setting: { label, values, otherwise },
  count,
  onSet,
}: {
  setting: SharedSetting;
  count: number;
  onSet: (value: string | boolean | null) => void;
}) {
  const [text, setText] = useState('');
  const value = values ? (values.find((v) => String(v.value) === text)?.value ?? null) : text;
  return (
    <form
      className="flex flex-wrap items-center gap-2 pb-2"
      onSubmit={(event) => {
        event.preventDefault();
        onSet(value === '' ? null : value);
      }}
    >
      {values ? (
        <select
          className="control min-w-0 flex-1"
          aria-label={label}
          value={text}
          onChange={(e) => setText(e.target.value)}
        >
          <option value="">{`default: ${otherwise}`}</option>
          {values.map(({ value: one, words }) => (
            <option key={words} value={String(one)}>
              {words}
            </option>
          ))}
        </select>
      ) : (
        <input
          className="control min-w-0 flex-1 font-mono !text-table"
          aria-label={label}
          placeholder={`default: ${otherwise}`}
          spellCheck={false}
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
      )}
      <button type="submit" className="button" disabled={count === 0}>
        {count === 0 ? 'Tick the types' : `Set for ${count === 1 ? 'one type' : `${count} types`}`}
      </button>
    </form>
  );
}
