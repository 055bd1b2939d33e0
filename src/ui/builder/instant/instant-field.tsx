'use client';

import { useId, useState } from 'react';
import { instantInFull, readInstantWords } from '@/core/time/words.ts';
import { isoInZone } from '@/core/time/zone.ts';
import { DayPicker } from './day-picker.tsx';

interface Props {
  id?: string;
  label: string;
  zone: string;
  now: number;
  /** As typed. */
  value: string;
  disabled?: boolean;
  onChange: (value: string) => void;
}

/**
 * An instant typed in words or figures, with a calendar beside; what was understood stands below
 * in full.
 */
export function InstantField({ id, label, zone, now, value, disabled, onChange }: Props) {
  const made = useId();
  const own = id ?? made;
  const [picking, setPicking] = useState(false);
  const read = readInstantWords(value, now, zone);
  const pickDay = (day: string): void => {
    const time = read ? isoInZone(read.at, zone).slice(11, 16) : '08:00';
    onChange(`${day} ${time}`);
    setPicking(false);
  };
  return (
    <div className="min-w-0">
      <div className="flex gap-1">
        <input
          id={own}
          aria-label={label}
          aria-describedby={`${own}-read`}
          aria-invalid={value.trim() !== '' && read === null}
          className="control !w-48"
          autoComplete="off"
          spellCheck={false}
          placeholder="tomorrow 8:00"
          value={value}
          disabled={disabled}
          onChange={(e) => onChange(e.target.value)}
        />
        <button
          type="button"
          className="button !px-2"
          aria-expanded={picking}
          disabled={disabled}
          onClick={() => setPicking(!picking)}
        >
          Calendar
        </button>
      </div>
      {picking && <DayPicker at={read?.at ?? now} zone={zone} onPick={pickDay} />}
      <ReadBack id={`${own}-read`} value={value} zone={zone} now={now} onChange={onChange} />
    </div>
  );
}

/** What was understood of a typed instant, in full; a time that comes twice offers both. */
function ReadBack({
  id,
  value,
  zone,
  now,
  onChange,
}: {
  id: string;
  value: string;
  zone: string;
  now: number;
  onChange: (value: string) => void;
}) {
  const read = readInstantWords(value, now, zone);
  if (value.trim() === '')
    return (
      <p id={id} className="text-note text-muted">
        Such as “tomorrow 8:00”, “Sat 9am”, “12 Mar 2027 08:00”, “+2h”.
      </p>
    );
  if (!read)
    return (
      <p id={id} className="text-note text-alarm">
        This is no day and time. Write “tomorrow 8:00” or “12 Mar 2027 08:00”.
      </p>
    );
  return (
    <p id={id} className="text-note text-amber-text">
      {instantInFull(read.at, zone)}
      {read.moved && ' That time does not exist that day: the clocks go forward over it.'}
      {read.again !== null && (
        <>
          {' That time comes twice; this is the first. '}
          <button
            type="button"
            className="underline"
            onClick={() => onChange(isoInZone(read.again!, zone))}
          >
            Take the second
          </button>
        </>
      )}
    </p>
  );
}

/** The instant that a field's words stand for, exact; null where they stand for none. */
export function exactInstant(value: string, now: number, zone: string): string | null {
  const read = readInstantWords(value, now, zone);
  return read && isoInZone(read.at, zone);
}
