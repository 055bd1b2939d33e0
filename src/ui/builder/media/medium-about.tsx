'use client';

import { useState } from 'react';
import type { AboutMedia } from '@/core/design/values.ts';
import type { MediaLine } from '@/server/queries/media.ts';
import { command } from '../send.ts';
import type { Attempts } from '../use-attempts.ts';
import { useFurtherLanguages } from '../site-languages.ts';
import { FocusPoint } from './focus-point.tsx';
import { WordsIn } from './words-in.tsx';

/** What is said of a medium, and what of it matters: changed and saved together. */
export function MediumAbout({
  line,
  readOnly,
  attempt,
  busy,
  onSaved,
}: {
  line: MediaLine;
  readOnly: boolean;
  attempt: Attempts['attempt'];
  busy: boolean;
  onSaved: () => void;
}) {
  const stored: AboutMedia = aboutOf(line);
  const further = useFurtherLanguages();
  const [about, setAbout] = useState(stored);
  const put = (change: Partial<AboutMedia>): void => setAbout((now) => ({ ...now, ...change }));
  const isSaved = JSON.stringify(about) === JSON.stringify(stored);
  const restore = (starts: number): void =>
    void attempt(
      () => command('restoreMedium', { id: line.id, starts }),
      () => ({ words: 'As it was before.' }),
    ).then(onSaved);
  const save = async (): Promise<void> => {
    const saved = await attempt(
      () => command('changeMedium', { id: line.id, ...about }),
      ({ before }) => ({
        words: `Saved what is said of ${line.id}; pages follow.`,
        ...(before === null ? {} : { undo: { label: 'Undo', run: () => restore(before) } }),
      }),
    );
    if (saved) onSaved();
  };
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        e.stopPropagation(); // it may stand in front of another form
        void save();
      }}
    >
      {line.width > 0 && (
        <FocusPoint line={line} focus={about} readOnly={readOnly} onChange={put} />
      )}
      <Words {...{ about, put, readOnly }} isPicture={line.width > 0} />
      {further.map((language) => (
        <WordsIn
          key={language.tag}
          {...{ language, about, put, readOnly }}
          isPicture={line.width > 0}
        />
      ))}
      {!readOnly && (
        <div className="flex items-center gap-2">
          <button type="submit" className="button button-main" disabled={busy || isSaved}>
            Save
          </button>
          {!isSaved && (
            <button type="button" className="button-quiet" onClick={() => setAbout(stored)}>
              Discard
            </button>
          )}
        </div>
      )}
    </form>
  );
}

function aboutOf(line: MediaLine): AboutMedia {
  const { alt, decorative, caption, credit, focusX, focusY, languages } = line;
  return { alt, decorative, caption, credit, focusX, focusY, languages };
}

function Words({
  about: { alt, decorative, caption, credit },
  put,
  readOnly,
  isPicture,
}: {
  about: AboutMedia;
  put: (change: Partial<AboutMedia>) => void;
  readOnly: boolean;
  isPicture: boolean;
}) {
  return (
    <>
      {isPicture && (
        <>
          <label className="block">
            <span className="text-muted">Alternative text</span>
            <textarea
              className="control mt-1 h-16 w-full"
              maxLength={2000}
              placeholder="What it shows, for those who do not see it"
              value={alt}
              disabled={readOnly || decorative}
              onChange={(e) => put({ alt: e.target.value })}
            />
          </label>
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              className="h-4 w-4 accent-spruce"
              checked={decorative}
              disabled={readOnly}
              onChange={(e) => put({ decorative: e.target.checked })}
            />
            Decorative: read-out pages pass over it
          </label>
        </>
      )}
      <label className="block">
        <span className="text-muted">Caption</span>
        <input
          className="control mt-1"
          maxLength={2000}
          value={caption}
          disabled={readOnly}
          onChange={(e) => put({ caption: e.target.value })}
        />
      </label>
      <label className="block">
        <span className="text-muted">Credit</span>
        <input
          className="control mt-1"
          maxLength={500}
          placeholder="Who made it, or owns it"
          value={credit}
          disabled={readOnly}
          onChange={(e) => put({ credit: e.target.value })}
        />
      </label>
    </>
  );
}
