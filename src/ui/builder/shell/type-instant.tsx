'use client';

import { useState } from 'react';
import { readInstantWords } from '@/core/time/words.ts';
import { isoInZone } from '@/core/time/zone.ts';
import { Dialog } from '@/ui/primitives/dialog.tsx';
import { InstantField } from '../instant/instant-field.tsx';

/** Asks for an instant to look at. */
export function TypeInstant({
  open,
  onOpenChange,
  zone,
  now,
  at,
  onPick,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  zone: string;
  now: number;
  at: number;
  onPick: (at: number) => void;
}) {
  const [value, setValue] = useState(isoInZone(at, zone).replace('T', ' '));
  const read = readInstantWords(value, now, zone);
  return (
    <Dialog open={open} onOpenChange={onOpenChange} title="Look at another instant">
      <form
        className="mt-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (read === null) return;
          onPick(read.at);
          onOpenChange(false);
        }}
      >
        <InstantField
          id="clock-instant"
          label="Day and time"
          zone={zone}
          now={now}
          value={value}
          onChange={setValue}
        />
        <div className="mt-4 flex gap-2">
          <button type="submit" className="button button-main" disabled={read === null}>
            Look
          </button>
          <button type="button" className="button" onClick={() => onOpenChange(false)}>
            Stay here
          </button>
        </div>
      </form>
    </Dialog>
  );
}
