'use client';

import { type ReactNode, useState } from 'react';

/** Makes a new part of the design by its name. */
export function AddLine({
  label,
  placeholder,
  button,
  busy,
  children,
  onAdd,
}: {
  label: string;
  placeholder: string;
  button: string;
  busy: boolean;
  children?: ReactNode;
  onAdd: (name: string) => Promise<boolean>;
}) {
  const [words, setWords] = useState('');
  const name = words.trim();
  return (
    <form
      className="mt-2 flex max-w-[560px] gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (name !== '') void onAdd(name).then((done) => done && setWords(''));
      }}
    >
      <input
        className="control"
        aria-label={label}
        placeholder={placeholder}
        maxLength={200}
        value={words}
        onChange={(e) => setWords(e.target.value)}
      />
      {children}
      <button type="submit" className="button shrink-0" disabled={busy || name === ''}>
        {button}
      </button>
    </form>
  );
}
