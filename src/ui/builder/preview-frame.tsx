'use client';

import { useEffect, useRef, useState } from 'react';

const WIDTHS = [
  { width: 1160, label: 'Wide' },
  { width: 768, label: 'Middle' },
  { width: 390, label: 'Narrow' },
];

/** A page as visitors get it, in a sandbox; what it is sent replaces what it shows, and the scroll stays. */
export function PreviewFrame({
  html,
  title,
  first,
  at,
}: {
  html: string;
  title: string;
  first: string;
  at: number;
}) {
  const frame = useRef<HTMLIFrameElement>(null);
  const box = useRef<HTMLDivElement>(null);
  const [ready, setReady] = useState(false);
  const [width, setWidth] = useState(WIDTHS[0]!.width);
  const [space, setSpace] = useState({ width: 560, height: 480 });

  useEffect(() => {
    const listen = (event: MessageEvent): void => {
      if (event.source !== frame.current?.contentWindow || event.origin !== 'null') return;
      const data = event.data as { ready?: true };
      if (data.ready) setReady(true);
    };
    window.addEventListener('message', listen);
    // The frame may have been ready before anybody listened, so it is asked for again.
    if (frame.current && !frame.current.src) frame.current.src = `/api/preview?at=${at}`;
    return () => window.removeEventListener('message', listen);
  }, [at]);

  useEffect(() => {
    if (ready) frame.current?.contentWindow?.postMessage({ html }, '*');
  }, [html, ready]);

  useEffect(() => {
    const watcher = new ResizeObserver(
      ([entry]) =>
        entry && setSpace({ width: entry.contentRect.width, height: entry.contentRect.height }),
    );
    if (box.current) watcher.observe(box.current);
    return () => watcher.disconnect();
  }, []);

  const scale = Math.min(1, space.width / width);
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div className="flex h-9 shrink-0 items-center justify-between gap-3 border-b border-rule px-6 text-note">
        <p className="truncate font-semibold" title={first}>
          {first}
        </p>
        <label className="flex shrink-0 items-center gap-1 text-muted">
          <span className="sr-only">Width of the page</span>
          <select
            value={width}
            onChange={(e) => setWidth(Number(e.target.value))}
            className="h-6 bg-white"
          >
            {WIDTHS.map((w) => (
              <option key={w.width} value={w.width}>{`${w.label}, ${w.width} px`}</option>
            ))}
          </select>
          at {Math.round(scale * 100)} %
        </label>
      </div>
      <div ref={box} className="min-h-0 flex-1 overflow-hidden">
        <iframe
          ref={frame}
          title={title}
          sandbox="allow-scripts"
          className="origin-top-left border-0 bg-white"
          style={{ width, height: space.height / scale, transform: `scale(${scale})` }}
        />
      </div>
    </div>
  );
}
