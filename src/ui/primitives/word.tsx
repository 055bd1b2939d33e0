'use client';

import { useId } from 'react';

/** A word of a sentence that can be chosen otherwise. */
export function Word({
  label,
  value,
  options,
  quiet = false,
  onChange,
}: {
  label: string;
  value: string;
  options: { value: string; label: string }[];
  /** Offers something more, rather than saying something. */
  quiet?: boolean;
  onChange: (value: string) => void;
}) {
  const known = options.some((o) => o.value === value);
  return (
    <select
      aria-label={label}
      title={label}
      className={quiet ? 'word word-quiet' : 'word'}
      value={value}
      onChange={(e) => onChange(e.target.value)}
    >
      {!known && <option value={value}>{value}</option>}
      {options.map((o) => (
        <option key={o.value} value={o.value}>
          {o.label}
        </option>
      ))}
    </select>
  );
}

/** A word of a sentence that is written. */
export function WordInput({
  label,
  value,
  placeholder,
  suggestions = [],
  onFocus,
  onChange,
}: {
  label: string;
  value: string;
  placeholder?: string;
  /** What completes it; `label` says more of a value. */
  suggestions?: { value: string; label?: string }[];
  onFocus?: () => void;
  onChange: (value: string) => void;
}) {
  const id = useId();
  const list = suggestions.length > 0 ? id : '';
  return (
    <>
      <input
        aria-label={label}
        title={label}
        className="word"
        autoComplete="off"
        value={value}
        placeholder={placeholder}
        list={list || undefined}
        onFocus={onFocus}
        onChange={(e) => onChange(e.target.value)}
      />
      {list && (
        <datalist id={list}>
          {suggestions.map((s) => (
            <option key={s.value} {...s} />
          ))}
        </datalist>
      )}
    </>
  );
}
