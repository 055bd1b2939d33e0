import { useState } from 'react';
import type { Field } from '@/core/design/field.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { ConversionOutcome } from '@/server/queries/conversion.ts';
import { Dialog } from '@/ui/primitives/dialog.tsx';
import { Sentences } from '@/ui/primitives/sentences.tsx';
import { counted } from '../format.ts';
import { ask } from '../send.ts';
import { ReaderWords } from './reader-words.tsx';

/** Takes a field away; where entries hold something in it, that is said first. */
export function TakeFieldAway({
  field,
  part,
  clock,
  onRemove,
}: {
  field: Field;
  /** Its path in the working design; null for a new one. */
  part: string | null;
  clock: Clock;
  onRemove: () => void;
}) {
  const [asked, setAsked] = useState<ConversionOutcome | string | null>(null);
  const begin = async (): Promise<void> => {
    if (part === null) return onRemove();
    const answer = await ask<ConversionOutcome>('conversion', {
      at: clock.at,
      part,
      to: null,
    });
    const free = 'value' in answer && isFree(answer.value);
    if (free) onRemove();
    else setAsked('value' in answer ? answer.value : answer.problem);
  };
  const known = typeof asked === 'object' ? asked : null;
  return (
    <>
      <button type="button" className="button-quiet mt-1 text-alarm" onClick={() => void begin()}>
        {`Take ${field.label} away`}
      </button>
      <Dialog
        open={asked !== null}
        onOpenChange={() => setAsked(null)}
        title={`Take ${field.label} away?`}
      >
        <p className="mt-2">
          {known
            ? known.filled === 0
              ? 'No entry holds a value in it.'
              : `${counted(known.filled, 'entry holds', 'entries hold')} a value in it. The values stay stored, and show again if this is taken back.`
            : String(asked)}
        </p>
        {known && <Sentences lines={known.lost.map(({ name, value }) => `${name}: ${value}`)} />}
        {known && (
          <div className="mt-3">
            <ReaderWords readers={known.readers} verb="Read elsewhere, and to be changed there" />
          </div>
        )}
        <div className="mt-4 flex gap-2">
          <button
            type="button"
            className="button button-main"
            onClick={() => {
              setAsked(null);
              onRemove();
            }}
          >
            Take it away
          </button>
          <button type="button" className="button" onClick={() => setAsked(null)}>
            Keep it
          </button>
        </div>
      </Dialog>
    </>
  );
}

/** Whether a field goes without anybody missing it. */
function isFree({ filled, readers }: ConversionOutcome): boolean {
  return filled === 0 && readers.lines.length === 0;
}
