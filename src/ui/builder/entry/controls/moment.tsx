'use client';

import { useState } from 'react';
import { readInstantWords } from '@/core/time/words.ts';
import { calendarDay, isoInZone } from '@/core/time/zone.ts';
import { InstantField, exactInstant } from '../../instant/instant-field.tsx';
import { DayPicker } from '../../instant/day-picker.tsx';
import { type ControlProps, asText, common } from './definition.ts';

/** A calendar day, typed or picked. */
export function DayControl(props: ControlProps) {
  const { value, zone, now, readOnly, onChange } = props;
  const [picking, setPicking] = useState(false);
  const text = asText(value);
  const settle = (typed: string): void => {
    const read = readInstantWords(typed, now, zone);
    if (read) onChange(calendarDay(read.at, zone));
  };
  return (
    <div>
      <div className="flex gap-1">
        <input
          {...common(props)}
          className="control !w-40"
          placeholder="2026-03-12"
          autoComplete="off"
          value={text}
          onChange={(e) => onChange(e.target.value || null)}
          onBlur={(e) => settle(e.target.value)}
        />
        <button
          type="button"
          className="button !px-2"
          aria-expanded={picking}
          disabled={readOnly}
          onClick={() => setPicking(!picking)}
        >
          Calendar
        </button>
      </div>
      {picking && (
        <DayPicker
          at={readInstantWords(text, now, zone)?.at ?? now}
          zone={zone}
          onPick={(day) => {
            onChange(day);
            setPicking(false);
          }}
        />
      )}
    </div>
  );
}

/** A day with a time, typed or picked; stored exact. */
export function InstantControl({ id, field, value, zone, now, readOnly, onChange }: ControlProps) {
  const [typed, setTyped] = useState<{ text: string; value: unknown } | null>(null);
  const stored = typeof value === 'number' ? isoInZone(value, zone).slice(0, 16) : asText(value);
  // Words stay as typed; a value from elsewhere takes their place.
  const text = typed && typed.value === value ? typed.text : stored.replace('T', ' ');
  const change = (next: string): void => {
    const exact = next.trim() === '' ? null : (exactInstant(next, now, zone) ?? next);
    setTyped({ text: next, value: exact });
    onChange(exact);
  };
  return (
    <InstantField
      id={id}
      label={field.label}
      zone={zone}
      now={now}
      value={text}
      disabled={readOnly}
      onChange={change}
    />
  );
}
