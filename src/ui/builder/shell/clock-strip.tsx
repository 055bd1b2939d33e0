'use client';

import { type KeyboardEvent, type PointerEvent, useEffect, useMemo, useRef, useState } from 'react';
import type { ChangeTick } from '@/server/queries/clock.ts';
import { Dialog } from '@/ui/primitives/dialog.tsx';
import { instantWords, localToInstant, localValue, readInstant } from '../format.ts';
import { type Zoom, ZOOMS, instantAt, placeOf, rulerDays, rulerTicks, snap } from './ruler.ts';
import { useClockParameters } from './use-clock.ts';

/** The clock: the instant every screen is looking at, and what it sees of unpublished things. */
export function ClockStrip({
  zone,
  serverNow,
  ticks,
}: {
  zone: string;
  serverNow: number;
  ticks: ChangeTick[];
}) {
  const { at: given, seeing, set } = useClockParameters();
  const [now, setNow] = useState(serverNow);
  const [typing, setTyping] = useState(false);
  const [zoom, setZoom] = useState<Zoom>('fortnight');
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 10_000);
    return () => clearInterval(timer);
  }, []);
  const looking = given === null ? null : readInstant(given, zone);
  const at = looking ?? now;
  const between =
    looking === null
      ? 0
      : ticks.filter((t) => t.at > Math.min(now, at) && t.at <= Math.max(now, at)).length;
  const words =
    looking === null
      ? `Now · ${instantWords(now - (now % 60_000), zone, now)}`
      : `Looking at ${instantWords(at, zone, now)}`;
  const spoken =
    looking === null
      ? `${words} (${zone})`
      : `${words} (${zone}), ${between === 0 ? 'no changes' : `${between} ${between === 1 ? 'change' : 'changes'}`} ${at < now ? 'before' : 'from'} now`;

  const earlier = (): void => goTo(ticks.findLast((t) => t.at < at)?.at);
  const later = (): void => goTo(ticks.find((t) => t.at > at)?.at);
  const goTo = (instant: number | undefined): void => {
    if (instant !== undefined) set({ at: instant });
  };
  const name = ticks.find((t) => t.at === at)?.names.join(', ');

  return (
    <div
      data-area
      tabIndex={-1}
      aria-label="Clock"
      role="region"
      className={`flex h-10 shrink-0 items-center gap-4 border-b border-rule px-6 ${looking === null ? '' : 'bg-amber-tint'}`}
    >
      <button
        type="button"
        onClick={() => setTyping(true)}
        title={`${spoken}. Press to type an instant.`}
        className={`w-[250px] shrink-0 truncate text-left font-semibold ${looking === null ? '' : 'text-amber-text'}`}
      >
        {words}
      </button>
      <label className="shrink-0 text-table">
        <span className="text-muted">Seeing </span>
        <select
          aria-label="Seeing"
          value={seeing}
          onChange={(e) => set({ seeing: e.target.value })}
          className="h-7 rounded-md border border-edge bg-white px-1"
        >
          <option value="published">as published</option>
          <option value="draft">with my draft</option>
        </select>
      </label>
      <Ruler
        zone={zone}
        now={now}
        at={at}
        ticks={ticks}
        zoom={zoom}
        spoken={spoken}
        onPick={(instant) => set({ at: instant })}
        onEarlier={earlier}
        onLater={later}
        onNow={() => set({ at: null })}
      />
      <select
        aria-label="How much time the ruler shows"
        value={zoom}
        onChange={(e) => setZoom(e.target.value as Zoom)}
        className="h-7 shrink-0 rounded-md border border-edge bg-white px-1 text-table"
      >
        {Object.entries(ZOOMS).map(([key, { label }]) => (
          <option key={key} value={key}>
            {label}
          </option>
        ))}
      </select>
      <div className="flex shrink-0">
        <button
          type="button"
          className="button-quiet h-7 disabled:text-muted"
          onClick={earlier}
          disabled={!ticks.some((t) => t.at < at)}
        >
          Earlier
        </button>
        <button
          type="button"
          className="button-quiet h-7 disabled:text-muted"
          onClick={later}
          disabled={!ticks.some((t) => t.at > at)}
        >
          Later
        </button>
        <button
          type="button"
          className="button-quiet h-7 disabled:text-muted"
          onClick={() => set({ at: null })}
          disabled={looking === null}
        >
          Now
        </button>
      </div>
      <p aria-live="polite" className="sr-only">
        {looking === null ? '' : `${spoken}. ${name ?? ''}`}
      </p>
      <TypeInstant
        key={String(typing)}
        open={typing}
        onOpenChange={setTyping}
        zone={zone}
        at={at}
        onPick={(value) => set({ at: value })}
      />
    </div>
  );
}

interface RulerProps {
  zone: string;
  now: number;
  at: number;
  ticks: ChangeTick[];
  zoom: Zoom;
  spoken: string;
  onPick: (at: number) => void;
  onEarlier: () => void;
  onLater: () => void;
  onNow: () => void;
}

/** The slider: drag to look at another instant; it snaps to changes. */
function Ruler({
  zone,
  now,
  at,
  ticks,
  zoom,
  spoken,
  onPick,
  onEarlier,
  onLater,
  onNow,
}: RulerProps) {
  const bar = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(400);
  const [drag, setDrag] = useState<number | null>(null);
  useEffect(() => {
    const watcher = new ResizeObserver(
      ([entry]) => entry && setWidth(Math.max(80, entry.contentRect.width)),
    );
    if (bar.current) watcher.observe(bar.current);
    return () => watcher.disconnect();
  }, []);
  const { before, after } = ZOOMS[zoom];
  const shift = Math.max(0, at - (now + after * 0.9)) - Math.max(0, now - before * 0.9 - at);
  const scale = useMemo(
    () => ({ from: now - before + shift, to: now + after + shift, width }),
    [now, before, after, shift, width],
  );
  const marks = useMemo(() => rulerTicks(ticks, scale), [ticks, scale]);
  const days = useMemo(() => rulerDays(scale, zone), [scale, zone]);
  const tallest = Math.max(1, ...marks.map((m) => m.count));

  const pick = (x: number): number => snap(x, marks)?.at ?? instantAt(x, scale);
  const xOf = (event: PointerEvent): number =>
    Math.min(width, Math.max(0, event.clientX - bar.current!.getBoundingClientRect().left));
  const step = (to: number): void => onPick(Math.round(to / 60_000) * 60_000);
  const press = (event: KeyboardEvent): void => {
    const hour = 3_600_000;
    const keys: Record<string, () => void> = {
      ArrowLeft: () => step(at - hour),
      ArrowDown: () => step(at - hour),
      ArrowRight: () => step(at + hour),
      ArrowUp: () => step(at + hour),
      PageDown: () => step(at - 24 * hour),
      PageUp: () => step(at + 24 * hour),
      Home: onNow,
      ',': onEarlier,
      '.': onLater,
    };
    const act = keys[event.key];
    if (!act) return;
    event.preventDefault();
    act();
  };
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
      onKeyDown={press}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        setDrag(pick(xOf(event)));
      }}
      onPointerMove={(event) => drag !== null && setDrag(pick(xOf(event)))}
      onPointerUp={() => {
        if (drag !== null) onPick(drag);
        setDrag(null);
      }}
      className="relative h-9 min-w-0 flex-1 cursor-ew-resize touch-none select-none overflow-hidden"
    >
      <span className="absolute inset-x-0 bottom-3 border-t border-edge" />
      {days.map(({ x, label }) => (
        <span
          key={x}
          className="absolute bottom-0 border-l border-rule pl-1 text-[10px] leading-3 whitespace-nowrap text-muted"
          style={{ left: x }}
        >
          {label}
        </span>
      ))}
      {marks.map((mark) => (
        <span
          key={mark.at}
          title={mark.words}
          className="absolute bottom-3 w-[2px] bg-amber-mark"
          style={{ left: mark.x - 1, height: 6 + Math.round((12 * mark.count) / tallest) }}
        >
          {mark.count > 1 && (
            <span className="absolute -top-0.5 left-1 text-[10px] leading-3 text-amber-text">
              {mark.count}
            </span>
          )}
        </span>
      ))}
      <span
        className="absolute top-1 bottom-3 border-l border-dashed border-edge"
        style={{ left: placeOf(now, scale) }}
      />
      <span
        className="absolute top-0 bottom-2 w-[3px] rounded bg-spruce"
        style={{ left: placeOf(drag ?? at, scale) - 1 }}
      />
      {drag !== null && (
        <span
          className="absolute top-0 rounded bg-ink px-1 text-note text-white"
          style={{ left: Math.min(width - 150, placeOf(drag, scale) + 6) }}
        >
          {instantWords(drag, zone, now)}
        </span>
      )}
    </div>
  );
}

function TypeInstant({
  open,
  onOpenChange,
  zone,
  at,
  onPick,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  zone: string;
  at: number;
  onPick: (at: number) => void;
}) {
  const [value, setValue] = useState(localValue(at, zone));
  const instant = localToInstant(value, zone);
  return (
    <Dialog open={open} onOpenChange={onOpenChange} title="Look at another instant">
      <form
        className="mt-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (instant === null) return;
          onPick(instant);
          onOpenChange(false);
        }}
      >
        <label htmlFor="clock-instant" className="text-muted">
          Day and time in {zone}
        </label>
        <input
          id="clock-instant"
          type="datetime-local"
          className="control mt-1"
          value={value}
          onChange={(e) => setValue(e.target.value)}
          required
        />
        <div className="mt-4 flex gap-2">
          <button type="submit" className="button button-main" disabled={instant === null}>
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
