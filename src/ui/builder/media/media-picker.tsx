'use client';

import { useState } from 'react';
import type { FormatName } from '@/core/design/media-formats.ts';
import { FORMAT_NAMES } from '@/core/design/media-formats.ts';
import { ACCEPTED } from './media-filters.tsx';
import { ChooseFiles, DropPlace } from './drop-place.tsx';
import { MediaGrid } from './media-grid.tsx';
import { SentFiles } from './sent-files.tsx';
import { useMedia } from './use-media.ts';
import { useSending } from './use-sending.ts';

/** Pictures, where a field does not say what it takes. */
const PICTURES = FORMAT_NAMES.filter((f) => f !== 'pdf');

/** What of the media may be picked. */
export interface Takes {
  formats?: FormatName[] | undefined;
  maxKilobytes?: number | undefined;
}

/** The media that may be picked, found by their words; others are added here and picked at once. */
export function MediaPicker({ takes, onPick }: { takes: Takes; onPick: (id: string) => void }) {
  const [words, setWords] = useState('');
  const shown = useMedia(
    null,
    { words, formats: takes.formats ?? PICTURES, maxKilobytes: takes.maxKilobytes ?? null },
    {},
  );
  const sending = useSending(({ id }) => onPick(id));
  return (
    <DropPlace
      className="mt-1 rounded-md border border-edge bg-white p-2"
      onFiles={(files) => sending.send(files)}
    >
      <div className="mb-2 flex items-center gap-2">
        {/* Before the box, so that Tab leads from what is looked for to what is found. */}
        <span className="order-last">
          <ChooseFiles
            label="Add a file"
            accept={ACCEPTED}
            multiple={false}
            onFiles={(files) => sending.send(files)}
          />
        </span>
        <input
          autoFocus
          type="search"
          aria-label="Find by name or words"
          placeholder="Find by name or words"
          className="control min-w-0 flex-1"
          value={words}
          onChange={(e) => setWords(e.target.value)}
        />
      </div>
      <SentFiles sending={sending} />
      <div className="max-h-64 overflow-auto">
        <MediaGrid shown={shown} onPick={({ id }) => onPick(id)}>
          <p className="text-muted">
            {words.trim() === ''
              ? 'There is none yet. Drop a file here, or choose “Add a file”.'
              : 'Nothing fits.'}
          </p>
        </MediaGrid>
      </div>
    </DropPlace>
  );
}
