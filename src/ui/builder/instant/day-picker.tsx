'use client';

import { type KeyboardEvent, useEffect, useRef, useState } from 'react';
import { addDays, calendarDay, dayParts } from '@/core/time/zone.ts';

const MONTHS =
  'January February March April May June July August September October November December'.split(
    ' ',
  );
const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

/** A month of days to choose from, in the site's zone; by arrow keys, Page up and Page down too. */
export function DayPicker({
  at,
  zone,
  onPick,
}: {
  at: number;
  zone: string;
  onPick: (day: string) => void;
}) {
  const [day, setDay] = useState(calendarDay(at, zone));
  const grid = useRef<HTMLDivElement>(null);
  const { year, month } = dayParts(day);
  const title = `${MONTHS[month - 1]} ${year}`;
  const first = `${day.slice(0, 8)}01`;
  useEffect(() => {
    grid.current?.querySelector<HTMLElement>(`[data-day="${day}"]`)?.focus();
  }, [day]);
  const turn = (by: number): void => setDay(addDays(first, by < 0 ? -1 : 31));
  const press = (event: KeyboardEvent): void => {
    const by = STEPS[event.key];
    if (by === undefined) return;
    event.preventDefault();
    setDay(addDays(day, by));
  };
  return (
    <div className="my-1 w-64 rounded-md border border-edge bg-white p-2">
      <div className="flex items-center justify-between">
        <button type="button" className="button-quiet h-7" onClick={() => turn(-1)}>
          Earlier
        </button>
        <span aria-live="polite" className="font-semibold">
          {title}
        </span>
        <button type="button" className="button-quiet h-7" onClick={() => turn(1)}>
          Later
        </button>
      </div>
      <div ref={grid} role="grid" aria-label={title} onKeyDown={press}>
        <div role="row" className="grid grid-cols-7 text-center text-note text-muted">
          {DAYS.map((d) => (
            <span key={d} role="columnheader">
              {d}
            </span>
          ))}
        </div>
        {weeksOf(first).map((week) => (
          <Week key={week[0]} week={week} chosen={day} onPick={onPick} />
        ))}
      </div>
    </div>
  );
}

/** How many days a key moves. */
const STEPS: Record<string, number> = {
  ArrowLeft: -1,
  ArrowRight: 1,
  ArrowUp: -7,
  ArrowDown: 7,
  PageUp: -28,
  PageDown: 28,
};

/** Six weeks from Monday to Sunday, of which the first holds the month's first day. */
function weeksOf(first: string): string[][] {
  const start = addDays(first, 1 - dayParts(first).weekday);
  return Array.from({ length: 6 }, (_, w) =>
    Array.from({ length: 7 }, (__, d) => addDays(start, w * 7 + d)),
  );
}

function Week({
  week,
  chosen,
  onPick,
}: {
  week: string[];
  chosen: string;
  onPick: (day: string) => void;
}) {
  const lookOf = (day: string): string => {
    if (day === chosen) return 'bg-spruce text-white hover:bg-spruce';
    return day.startsWith(chosen.slice(0, 7)) ? '' : 'text-muted';
  };
  return (
    <div role="row" className="grid grid-cols-7">
      {week.map((day) => (
        <span key={day} role="gridcell" aria-selected={day === chosen}>
          <button
            type="button"
            data-day={day}
            tabIndex={day === chosen ? 0 : -1}
            className={`h-7 w-full rounded-md hover:bg-hover ${lookOf(day)}`}
            onClick={() => onPick(day)}
          >
            {Number(day.slice(8))}
          </button>
        </span>
      ))}
    </div>
  );
}
