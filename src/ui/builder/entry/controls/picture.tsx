'use client';

import { useState } from 'react';
import type { MediumDetail } from '@/server/queries/media.ts';
import { Dialog } from '@/ui/primitives/dialog.tsx';
import { Issues } from '@/ui/primitives/issues.tsx';
import { Thumbnail } from '../../media/media-grid.tsx';
import { MediaPicker, type Takes } from '../../media/media-picker.tsx';
import { MediumAbout } from '../../media/medium-about.tsx';
import { useAsked } from '../../use-asked.ts';
import { useAttempts } from '../../use-attempts.ts';
import { type ControlProps, asText } from './definition.ts';
import { Chips } from './chips.tsx';

/** One or several of the site's media, picked, or added in place. */
export function PictureControl(
  props: Pick<ControlProps, 'id' | 'value' | 'readOnly' | 'onChange'> & {
    field: Takes & { many?: boolean };
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
        <MediaPicker
          takes={field}
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
            {choose(chosen.length === 0 ? 'Choose a picture' : 'Add another', (key) => {
              if (!chosen.includes(key)) add(key);
            })}
          </div>
        )}
      </Chips>
    );
  const chosen = asText(value);
  return (
    <div>
      {chosen !== '' && (
        <Chosen key={chosen} id={chosen} readOnly={readOnly} onRemove={() => onChange(null)} />
      )}
      {choose(chosen === '' ? 'Choose a picture' : 'Choose another', onChange)}
    </div>
  );
}

/** What is chosen, small, with what is said of it. */
function Chosen({
  id,
  readOnly,
  onRemove,
}: {
  id: string;
  readOnly: boolean;
  onRemove: () => void;
}) {
  const [stamp, setStamp] = useState(0);
  const [telling, setTelling] = useState(false);
  const { answer, problem } = useAsked<MediumDetail>('medium', { id, at: null, stamp });
  const attempts = useAttempts();
  const line = answer?.line;
  const isUntold = line && line.width > 0 && line.alt === '' && !line.decorative;
  return (
    <div className="mb-1 flex items-center gap-3">
      <span className="w-24 shrink-0 border border-rule">
        {line ? <Thumbnail line={line} /> : <span className="medium-thumbnail" />}
      </span>
      <span className="min-w-0 flex-1">
        <span className="block truncate" title={id}>
          {id}
        </span>
        <span className={`block truncate text-note ${isUntold ? 'text-amber-text' : 'text-muted'}`}>
          {problem
            ? 'It is not among the media.'
            : isUntold
              ? 'No alternative text yet'
              : line?.alt}
        </span>
      </span>
      {!readOnly && line && (
        <button type="button" className="button-quiet" onClick={() => setTelling(true)}>
          Describe
        </button>
      )}
      {!readOnly && (
        <button type="button" className="button-quiet" onClick={onRemove}>
          Remove
        </button>
      )}
      {line && (
        <Dialog open={telling} onOpenChange={setTelling} title={`What ${id} shows`}>
          <p className="mb-2 text-muted">It holds wherever the picture is used.</p>
          <Issues issues={attempts.issues} title="Not saved" answers />
          <MediumAbout
            key={line.starts}
            {...{ line, readOnly }}
            attempt={attempts.attempt}
            busy={attempts.busy}
            onSaved={() => {
              setStamp((n) => n + 1);
              setTelling(false);
            }}
          />
        </Dialog>
      )}
    </div>
  );
}
