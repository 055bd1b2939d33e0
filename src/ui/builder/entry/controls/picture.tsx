'use client';

import { useState } from 'react';
import type { Option } from '@/server/queries/offers.ts';
import { type ControlProps, asText } from './definition.ts';
import { Chips } from './chips.tsx';

/** One or several pictures, picked from thumbnails. */
export function PictureControl(
  props: Pick<ControlProps, 'id' | 'value' | 'readOnly' | 'onChange'> & {
    field: Pick<ControlProps['field'], 'many' | 'options'>;
  },
) {
  const { id, field, value, readOnly, onChange } = props;
  const [picking, setPicking] = useState(false);
  const choose = (label: string, onPick: (key: string) => void) => (
    <>
      <button
        id={id}
        type="button"
        className="button"
        aria-expanded={picking}
        aria-describedby={`${id}-notes`}
        disabled={readOnly}
        onClick={() => setPicking(!picking)}
      >
        {label}
      </button>
      {picking && (
        <Thumbnails
          options={field.options}
          onPick={(key) => {
            onPick(key);
            setPicking(false);
          }}
        />
      )}
    </>
  );
  if (field.many)
    return (
      <Chips {...props} labelOf={(v) => v}>
        {(chosen, add) => (
          <div className="mt-1">
            {choose(chosen.length === 0 ? 'Choose a picture' : 'Add another', add)}
          </div>
        )}
      </Chips>
    );
  const chosen = asText(value);
  const picture = field.options.find((o) => o.value === chosen)?.picture;
  return (
    <div>
      {chosen !== '' && (
        <div className="mb-1 flex items-center gap-3">
          {picture && <Thumbnail src={picture} alt="" />}
          <span className="truncate">{chosen}</span>
          {!readOnly && (
            <button type="button" className="button-quiet" onClick={() => onChange(null)}>
              Remove
            </button>
          )}
        </div>
      )}
      {choose(chosen === '' ? 'Choose a picture' : 'Choose another', onChange)}
    </div>
  );
}

/** The site's pictures, small; found by file name. */
export function Thumbnails({
  options,
  onPick,
}: {
  options: Option[];
  onPick: (value: string) => void;
}) {
  const [words, setWords] = useState('');
  const shown = options.filter((o) => o.label.toLowerCase().includes(words.toLowerCase()));
  return (
    <div className="mt-1 rounded-md border border-edge bg-white p-2">
      <input
        autoFocus
        aria-label="Find a picture by file name"
        placeholder="Find by file name"
        className="control mb-2"
        value={words}
        onChange={(e) => setWords(e.target.value)}
      />
      <ul className="grid max-h-64 grid-cols-[repeat(auto-fill,minmax(96px,1fr))] gap-2 overflow-auto">
        {shown.map((o) => (
          <li key={o.value}>
            <button
              type="button"
              className="w-full rounded-md p-1 text-left hover:bg-hover"
              onClick={() => onPick(o.value)}
            >
              {o.picture && <Thumbnail src={o.picture} alt="" />}
              <span className="block truncate text-note" title={o.label}>
                {o.label}
              </span>
            </button>
          </li>
        ))}
      </ul>
      {shown.length === 0 && (
        <p className="text-muted">
          {options.length === 0
            ? 'The site has no pictures yet; they come with its folder, below media/.'
            : 'No picture is called that.'}
        </p>
      )}
    </div>
  );
}

function Thumbnail({ src, alt }: { src: string; alt: string }) {
  return (
    // eslint-disable-next-line @next/next/no-img-element -- served by delivery, at its own widths
    <img
      src={src}
      alt={alt}
      width={80}
      height={80}
      loading="lazy"
      className="h-20 w-20 border border-rule object-cover"
    />
  );
}
