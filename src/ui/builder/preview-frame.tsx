'use client';

import { useEffect, useRef, useState } from 'react';
import { FullDialog } from '../primitives/dialog.tsx';
import {
  type BlockTold,
  PageFrame,
  WIDTHS,
  WidthChoice,
  type WrittenBlock,
} from './page-frame.tsx';

const NARROW = WIDTHS.find(({ label }) => label === 'Narrow')!;
/** How small a page may be drawn before a narrower one is shown. */
const LEGIBLE = 0.5;

interface Props {
  html: string;
  css?: string;
  title: string;
  /** What this is, in the first line. */
  first: string;
  at: number;
  marked?: string | null;
  onBlock?: (told: BlockTold) => void;
  onPath?: (path: string) => void;
  writeBlock?: WrittenBlock | null;
  isMeasured?: boolean;
}

/**
 * A page as visitors get it, as wide as can be read beside the settings, or alone at its own
 * size.
 */
export function PreviewFrame({
  html,
  css,
  title,
  first,
  at,
  marked,
  onBlock,
  onPath,
  writeBlock = null,
  isMeasured = false,
}: Props) {
  const { box, space } = useSpace();
  const [chosen, setChosen] = useState<number | null>(null);
  const [alone, setAlone] = useState(false);
  const fitting = WIDTHS.find((w) => space.width / w.width >= LEGIBLE) ?? NARROW;
  const width = chosen ?? fitting.width;
  const scale = Math.min(1, space.width / width);
  const frame = { html, title, at, width, onPath, ...(css === undefined ? {} : { css }) };
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div className="flex h-9 shrink-0 items-center justify-between gap-3 border-b border-rule px-6 text-note">
        <p className="truncate font-semibold" title={first}>
          {first}
        </p>
        <div className="flex shrink-0 items-center gap-2 text-muted">
          <WidthChoice width={width} onChange={setChosen} />
          at {Math.round(scale * 100)} %
          <button
            type="button"
            className="text-spruce hover:underline"
            title="The page alone, at its own size"
            onClick={() => setAlone(true)}
          >
            Alone
          </button>
        </div>
      </div>
      <div ref={box} className="min-h-0 flex-1 overflow-hidden">
        <PageFrame
          {...frame}
          scale={scale}
          height={space.height}
          {...(marked === undefined ? {} : { marked })}
          {...(onBlock ? { onBlock } : {})}
          {...{ writeBlock, isMeasured }}
        />
      </div>
      <FullDialog
        open={alone}
        onOpenChange={setAlone}
        title={first}
        actions={<WidthChoice width={width} onChange={setChosen} />}
      >
        <AlonePage {...frame} />
      </FullDialog>
    </div>
  );
}

/** A page at its own size, in the middle of what there is. */
function AlonePage(frame: Omit<Parameters<typeof PageFrame>[0], 'scale' | 'height'>) {
  const { box, space } = useSpace();
  return (
    <div ref={box} className="flex min-h-0 flex-1 overflow-auto bg-rule">
      <div className="mx-auto shrink-0">
        <PageFrame {...frame} scale={1} height={space.height} />
      </div>
    </div>
  );
}

/** The space that an element has, px. */
export function useSpace() {
  const box = useRef<HTMLDivElement>(null);
  const [space, setSpace] = useState({ width: 560, height: 480 });
  useEffect(() => {
    const watcher = new ResizeObserver(
      ([entry]) =>
        entry && setSpace({ width: entry.contentRect.width, height: entry.contentRect.height }),
    );
    if (box.current) watcher.observe(box.current);
    return () => watcher.disconnect();
  }, []);
  return { box, space };
}
