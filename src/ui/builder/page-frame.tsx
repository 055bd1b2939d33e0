'use client';

import { useEffect, useRef, useState } from 'react';
import type { Place } from '@/core/template/places.ts';

/** Widths at which a page is looked at, px. */
export const WIDTHS = [
  { width: 1160, label: 'Wide' },
  { width: 768, label: 'Middle' },
  { width: 390, label: 'Narrow' },
  { width: 350, label: 'Small' },
];

interface Props {
  html: string;
  /** Its style sheet, where that is not released; else it is looked for by what the page names. */
  css?: string | undefined;
  title: string;
  at: number;
  /** Width of the page, px, and what of it is shown: 1 is as visitors see it. */
  width: number;
  scale: number;
  /** Height there is for it, px. */
  height: number;
  /** The block that is marked in it, by its id; null for none. */
  marked?: string | null;
  /** Told which block the pointer is over, or which was pressed. */
  onBlock?: (told: BlockTold) => void;
  /** Told where a link leads, or a form with what was chosen in it. */
  onPath?: ((path: string) => void) | undefined;
  /** Whether it tells what of its layout is hard to read or to press. */
  isMeasured?: boolean;
  /** The block whose words are written on now. */
  writeBlock?: WrittenBlock | null;
  /** Where it is edited as it stands. */
  editing?: Editing;
}

/** A page that is edited as it stands: whether it may be, and what it tells. */
export interface Editing {
  isAllowed: boolean;
  onTold: (told: PlaceTold) => void;
  /** The text that is written on now, as it was saved last. */
  write: { place: TextPlace; text: { value: string; hasLines: boolean } } | null;
}

/** A text of an entry, on a page. */
export type TextPlace = Extract<Place, { of: 'text' }>;

/** What can be done at a place. */
type PlaceDeed = 'write' | 'field' | 'entry' | 'pin' | 'retire' | 'listing' | 'picks' | 'add';

/** What somebody did on a page that is edited as it stands. */
export type PlaceTold =
  { deed: PlaceDeed; place: Place } | { wrote: { place: TextPlace; value: string } };

/**
 * What a page tells of its blocks: which the pointer is over, was pressed, or pressed twice, and what
 * was written on one.
 */
export type BlockTold =
  | { over: string | null }
  | { pressed: string }
  | { opened: string }
  | { wroteBlock: WrittenBlock }
  /** What only its layout shows to be hard to read or to press; asked for by `isMeasured`. */
  | { stumbles: string[] };

type Told = { ready: true } | { height: number } | { path: string } | BlockTold | PlaceTold;

/** A block that shows fixed words, and what they are. */
export interface WrittenBlock {
  id: string;
  value: string;
}

/** A page in a sandbox of its own; what it is sent replaces what it shows, and the scroll stays. */
export function PageFrame({
  html,
  css,
  title,
  at,
  width,
  scale,
  height,
  marked = null,
  onBlock,
  onPath,
  isMeasured = false,
  writeBlock = null,
  editing,
}: Props) {
  const frame = useRef<HTMLIFrameElement>(null);
  const [ready, setReady] = useState(false);
  const told = useRef({ onBlock, onPath, onTold: editing?.onTold });
  useEffect(() => void (told.current = { onBlock, onPath, onTold: editing?.onTold }));
  const isEdited = editing !== undefined;
  const isAllowed = editing?.isAllowed ?? false;
  const write = editing?.write ?? null;

  useEffect(() => {
    const listen = (event: MessageEvent): void => {
      if (event.source !== frame.current?.contentWindow || event.origin !== 'null') return;
      const data = event.data as Told;
      if ('ready' in data) setReady(true);
      else if ('path' in data) told.current.onPath?.(data.path);
      else if ('deed' in data || 'wrote' in data) told.current.onTold?.(data);
      else if (!('height' in data)) told.current.onBlock?.(data);
    };
    window.addEventListener('message', listen);
    // The frame may have been ready before anybody listened, so it is asked for again.
    const source = `/api/preview?at=${at}${isEdited ? '&editing' : ''}`;
    if (frame.current && !frame.current.src) frame.current.src = source;
    return () => window.removeEventListener('message', listen);
  }, [at, isEdited]);

  useEffect(() => {
    if (ready)
      frame.current?.contentWindow?.postMessage(
        { html, css, editing: isAllowed, measured: isMeasured },
        '*',
      );
  }, [html, css, ready, isAllowed, isMeasured]);

  useEffect(() => {
    if (ready && writeBlock) frame.current?.contentWindow?.postMessage({ writeBlock }, '*');
  }, [writeBlock, ready]);

  useEffect(() => {
    if (ready && write) frame.current?.contentWindow?.postMessage({ write }, '*');
  }, [write, ready]);

  useEffect(() => {
    if (ready) frame.current?.contentWindow?.postMessage({ marked }, '*');
  }, [html, marked, ready]);

  return (
    <iframe
      ref={frame}
      title={title}
      sandbox="allow-scripts allow-forms"
      className="origin-top-left border-0 bg-white"
      style={{ width, height: height / scale, transform: `scale(${scale})` }}
    />
  );
}

/** Which width a page is looked at. */
export function WidthChoice({
  width,
  onChange,
}: {
  width: number;
  onChange: (width: number) => void;
}) {
  return (
    <select
      aria-label="Width of the page"
      value={width}
      onChange={(e) => onChange(Number(e.target.value))}
      className="h-6 bg-white"
    >
      {WIDTHS.map((w) => (
        <option key={w.width} value={w.width}>{`${w.label}, ${w.width} px`}</option>
      ))}
    </select>
  );
}
