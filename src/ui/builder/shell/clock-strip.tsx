'use client';

import { usePathname } from 'next/navigation';
import { useState } from 'react';
import { parseInstant } from '@/core/time/parse.ts';
import type { ChangeTick, ShellDetail } from '@/server/queries/clock.ts';
import { instantWords } from '../format.ts';
import { RulerBar } from './ruler-bar.tsx';
import { type Zoom, ZOOMS } from './ruler.ts';
import { TypeInstant } from './type-instant.tsx';
import { type ClockParameters, useClockParameters } from './use-clock.ts';

/** The clock: the instant every screen is looking at, and what it sees of unpublished things. */
export function ClockStrip({
  zone,
  now,
  ticks,
  ownLanguage,
  further,
}: Pick<ShellDetail, 'zone' | 'ticks' | 'ownLanguage' | 'further'> & { now: number }) {
  const { at: given, seeing, language, set } = useClockParameters();
  const [typing, setTyping] = useState(false);
  const [zoom, setZoom] = useState<Zoom>('fortnight');
  const looking = given === null ? null : parseInstant(given, zone);
  const at = looking ?? now;
  const words = wordsOf(given, looking, zone, now);
  const spoken = looking === null ? `${words} (${zone})` : spokenOf(words, zone, at, now, ticks);
  const goTo = (tick: ChangeTick | undefined): void => {
    if (tick) set({ at: tick.at });
  };
  const steps = {
    earlier: ticks.findLast((t) => t.at < at),
    later: ticks.find((t) => t.at > at),
  };
  const name = ticks.find((t) => t.at === at)?.names.join(', ');
  return (
    <div
      data-area
      tabIndex={-1}
      aria-label="Clock"
      role="region"
      className={`clock-strip ${looking === null ? '' : 'bg-amber-tint'}`}
    >
      <button
        type="button"
        onClick={() => setTyping(true)}
        title={`${spoken}. Press to type an instant.`}
        className={`w-[250px] shrink-0 truncate text-left font-semibold ${looking === null ? '' : 'text-amber-text'}`}
      >
        {words}
      </button>
      <Seeing seeing={seeing} onChange={(next) => set({ seeing: next })} />
      <SeenIn {...{ language, ownLanguage, further, set }} />
      <RulerBar
        zone={zone}
        now={now}
        at={at}
        ticks={ticks}
        zoom={zoom}
        spoken={spoken}
        onPick={(instant, replace) => set({ at: instant }, replace)}
        onEarlier={() => goTo(steps.earlier)}
        onLater={() => goTo(steps.later)}
        onNow={() => set({ at: null })}
      />
      <ZoomChoice zoom={zoom} onChange={setZoom} />
      <div className="flex shrink-0">
        <Step label="Earlier" disabled={!steps.earlier} onPress={() => goTo(steps.earlier)} />
        <Step label="Later" disabled={!steps.later} onPress={() => goTo(steps.later)} />
        <Step label="Now" disabled={given === null} onPress={() => set({ at: null })} />
      </div>
      <p aria-live="polite" className="sr-only">
        {looking === null ? '' : `${spoken}. ${name ?? ''}`}
      </p>
      <TypeInstant
        key={String(typing)}
        open={typing}
        onOpenChange={setTyping}
        zone={zone}
        now={now}
        at={at}
        onPick={(value) => set({ at: value })}
      />
    </div>
  );
}

function wordsOf(given: string | null, looking: number | null, zone: string, now: number): string {
  if (looking !== null) return `Looking at ${instantWords(looking, zone, now)}`;
  return given === null
    ? `Now · ${instantWords(now - (now % 60_000), zone, now)}`
    : `“${given.slice(0, 30)}” is no instant; this is now`;
}

function ZoomChoice({ zoom, onChange }: { zoom: Zoom; onChange: (zoom: Zoom) => void }) {
  return (
    <select
      aria-label="How much time the ruler shows"
      value={zoom}
      onChange={(e) => onChange(e.target.value as Zoom)}
      className="wide-only h-7 shrink-0 rounded-md border border-edge bg-white px-1 text-table"
    >
      {Object.entries(ZOOMS).map(([key, { label }]) => (
        <option key={key} value={key}>
          {label}
        </option>
      ))}
    </select>
  );
}

function spokenOf(
  words: string,
  zone: string,
  at: number,
  now: number,
  ticks: ChangeTick[],
): string {
  const [from, to] = [Math.min(now, at), Math.max(now, at)];
  const between = ticks.filter((t) => t.at > from && t.at <= to).length;
  const count = between === 0 ? 'no changes' : `${between} ${between === 1 ? 'change' : 'changes'}`;
  return `${words} (${zone}), ${count} ${at < now ? 'before' : 'from'} now`;
}

function Seeing({ seeing, onChange }: { seeing: string; onChange: (next: string) => void }) {
  return (
    <label className="shrink-0 text-table">
      <span className="wide-only text-muted">Seeing </span>
      <select
        aria-label="Seeing"
        value={seeing}
        onChange={(e) => onChange(e.target.value)}
        className="h-7 rounded-md border border-edge bg-white px-1"
      >
        <option value="published">as published</option>
        <option value="draft">with my draft</option>
        <option value="bench">with the whole bench</option>
      </select>
    </label>
  );
}

/** Screens of the design that show what it gives in each language of the site. */
const IN_LANGUAGES = /^\/build\/(types|templates|listings)\/(?!new$|picks\/)[^/]+$/;

/** The language that is looked at, on screens that show what each gives. */
function SeenIn({
  language,
  ownLanguage,
  further,
  set,
}: Pick<ShellDetail, 'ownLanguage' | 'further'> & Pick<ClockParameters, 'language' | 'set'>) {
  const path = usePathname();
  if (further.length === 0 || !IN_LANGUAGES.test(path)) return null;
  return (
    <select
      aria-label="Language"
      value={further.some(({ id }) => id === language) ? language! : ''}
      onChange={(e) => set({ language: e.target.value || null })}
      className="h-7 max-w-28 shrink-0 rounded-md border border-edge bg-white px-1 text-table"
    >
      <option value="">{ownLanguage}</option>
      {further.map(({ id, label }) => (
        <option key={id} value={id}>
          {label}
        </option>
      ))}
    </select>
  );
}

function Step({
  label,
  disabled,
  onPress,
}: {
  label: string;
  disabled: boolean;
  onPress: () => void;
}) {
  return (
    <button
      type="button"
      className="button-quiet h-7 disabled:text-muted"
      onClick={onPress}
      disabled={disabled}
    >
      {label}
    </button>
  );
}
