'use client';

import { type KeyboardEvent, type PointerEvent, useEffect, useMemo, useRef, useState } from 'react';
import type { ChangeTick } from '@/server/queries/clock.ts';
import { instantWords } from '../format.ts';
import {
  type RulerScale,
  type Zoom,
  ZOOMS,
  instantAt,
  placeOf,
  rulerMarks,
  rulerTicks,
  snap,
} from './ruler.ts';

interface Props {
  zone: string;
  now: number;
  at: number;
  ticks: ChangeTick[];
  zoom: Zoom;
  spoken: string;
  /** With `replace`, in place of the move before it. */
  onPick: (at: number, replace?: boolean) => void;
  onEarlier: () => void;
  onLater: () => void;
  onNow: () => void;
}

const FOLLOW_MS = 250;

/** The slider: drag to look at another instant; it snaps to changes and to round times. */
export function RulerBar(props: Props) {
  const { zone, now, at, ticks, zoom, spoken, onPick } = props;
  const bar = useRef<HTMLDivElement>(null);
  const width = useWidth(bar);
  const { before, after, marks: kind, round } = ZOOMS[zoom];
  const shift = Math.max(0, at - (now + after * 0.9)) - Math.max(0, now - before * 0.9 - at);
  const [still, setStill] = useState<RulerScale | null>(null); // while one drags, the ruler stays
  const scale = useMemo(
    () => still ?? { from: now - before + shift, to: now + after + shift, width },
    [still, now, before, after, shift, width],
  );
  const shown = useMemo(() => rulerTicks(ticks, scale), [ticks, scale]);
  const marks = useMemo(() => rulerMarks(scale, zone, kind), [scale, zone, kind]);
  const pick = (x: number): number => snap(x, shown)?.at ?? instantAt(x, scale, round, zone);
  const drag = useDrag(bar, pick, onPick, (dragging) => setStill(dragging ? scale : null));
  return (
    <div
      ref={bar}
      role="slider"
      tabIndex={0}
      aria-label="Instant looked at"
      aria-valuemin={scale.from}
      aria-valuemax={scale.to}
      aria-valuenow={at}
      aria-valuetext={spoken}
      onKeyDown={(event) => press(event, props)}
      {...drag.handlers}
      className="wide-only relative h-9 min-w-0 flex-1 cursor-ew-resize touch-none overflow-hidden select-none"
    >
      <span className="absolute inset-x-0 bottom-3 border-t border-edge" />
      {marks.map(({ x, label }) => (
        <span
          key={x}
          className="absolute bottom-0 border-l border-rule pl-1 text-[10px] leading-3 whitespace-nowrap text-muted"
          style={{ left: x }}
        >
          {label}
        </span>
      ))}
      <Ticks ticks={shown} />
      <NowMark place={placeOf(now, scale)} away={Math.abs(at - now) > 1000} />
      <span
        className="absolute top-0 bottom-2 w-[3px] rounded bg-spruce"
        style={{ left: placeOf(drag.at ?? at, scale) - 1 }}
      />
      {drag.at !== null && (
        <span
          className="absolute top-0 rounded bg-ink px-1 text-note text-white"
          style={{ left: Math.min(width - 150, placeOf(drag.at, scale) + 6) }}
        >
          {instantWords(drag.at, zone, now)}
        </span>
      )}
    </div>
  );
}

function Ticks({ ticks }: { ticks: ReturnType<typeof rulerTicks> }) {
  const tallest = Math.max(1, ...ticks.map((m) => m.count));
  return ticks.map((mark) => (
    <span
      key={mark.at}
      title={mark.words}
      className="absolute bottom-3 w-[2px] bg-amber-mark"
      style={{ left: mark.x - 1, height: 6 + Math.round((12 * mark.count) / tallest) }}
    >
      {mark.showsCount && (
        <span className="absolute -top-0.5 left-1 text-[10px] leading-3 text-amber-text">
          {mark.count}
        </span>
      )}
    </span>
  ));
}

/** Where now is; named while the clock stands elsewhere. */
function NowMark({ place, away }: { place: number; away: boolean }) {
  return (
    <span
      className="absolute top-0 bottom-3 border-l border-dashed border-edge"
      style={{ left: place }}
    >
      {away && (
        <span className="absolute -top-px left-0.5 bg-amber-tint px-0.5 text-[10px] leading-3 text-ink">
          now
        </span>
      )}
    </span>
  );
}

function useWidth(bar: React.RefObject<HTMLDivElement | null>): number {
  const [width, setWidth] = useState(400);
  useEffect(() => {
    const watcher = new ResizeObserver(
      ([entry]) => entry && setWidth(Math.max(80, entry.contentRect.width)),
    );
    if (bar.current) watcher.observe(bar.current);
    return () => watcher.disconnect();
  }, [bar]);
  return width;
}

/** Dragging: the page follows after a moment of rest; one drag is one step back. */
function useDrag(
  bar: React.RefObject<HTMLDivElement | null>,
  pick: (x: number) => number,
  onPick: Props['onPick'],
  onDragging: (dragging: boolean) => void,
): { at: number | null; handlers: Record<string, (event: PointerEvent) => void> } {
  const [at, setAt] = useState<number | null>(null);
  const shown = useRef<number | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const place = (event: PointerEvent): number => {
    const { left, width } = bar.current!.getBoundingClientRect();
    return pick(Math.min(width, Math.max(0, event.clientX - left)));
  };
  const show = (instant: number): void => {
    if (shown.current === instant) return;
    onPick(instant, shown.current !== null);
    shown.current = instant;
  };
  const move = (event: PointerEvent): void => {
    if (at === null) return;
    const next = place(event);
    setAt(next);
    clearTimeout(timer.current);
    timer.current = setTimeout(() => show(next), FOLLOW_MS);
  };
  const start = (event: PointerEvent): void => {
    event.currentTarget.setPointerCapture(event.pointerId);
    shown.current = null;
    onDragging(true);
    setAt(place(event));
  };
  const end = (): void => {
    clearTimeout(timer.current);
    if (at !== null) show(at);
    setAt(null);
    onDragging(false);
  };
  const handlers = {
    onPointerDown: start,
    onPointerMove: move,
    onPointerUp: end,
    onPointerCancel: end,
  };
  return { at, handlers };
}

const HOUR_MS = 3_600_000;

function press(event: KeyboardEvent, { at, onPick, onEarlier, onLater, onNow }: Props): void {
  const step = (by: number) => (): void => onPick(Math.round((at + by) / 60_000) * 60_000);
  const keys: Record<string, () => void> = {
    ArrowLeft: step(-HOUR_MS),
    ArrowDown: step(-HOUR_MS),
    ArrowRight: step(HOUR_MS),
    ArrowUp: step(HOUR_MS),
    PageDown: step(-24 * HOUR_MS),
    PageUp: step(24 * HOUR_MS),
    Home: onNow,
    ',': onEarlier,
    '.': onLater,
  };
  const act = keys[event.key];
  if (!act) return;
  event.preventDefault();
  act();
}
