'use client';

import { useEffect, useRef, useState } from 'react';

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
}

/** What a page tells of its blocks: which the pointer is over, was pressed, or pressed twice. */
export type BlockTold = { over: string | null } | { pressed: string } | { opened: string };

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
}: Props) {
  const frame = useRef<HTMLIFrameElement>(null);
  const [ready, setReady] = useState(false);
  const told = useRef(onBlock);
  useEffect(() => void (told.current = onBlock));

  useEffect(() => {
    const listen = (event: MessageEvent): void => {
      if (event.source !== frame.current?.contentWindow || event.origin !== 'null') return;
      const data = event.data as { ready?: true } | BlockTold;
      if ('ready' in data) setReady(true);
      else if ('over' in data || 'pressed' in data || 'opened' in data) told.current?.(data);
    };
    window.addEventListener('message', listen);
    // The frame may have been ready before anybody listened, so it is asked for again.
    if (frame.current && !frame.current.src) frame.current.src = `/api/preview?at=${at}`;
    return () => window.removeEventListener('message', listen);
  }, [at]);

  useEffect(() => {
    if (ready) frame.current?.contentWindow?.postMessage({ html, css }, '*');
  }, [html, css, ready]);

  useEffect(() => {
    if (ready) frame.current?.contentWindow?.postMessage({ marked }, '*');
  }, [html, marked, ready]);

  return (
    <iframe
      ref={frame}
      title={title}
      sandbox="allow-scripts"
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
