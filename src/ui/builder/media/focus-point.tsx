'use client';

import { stablePath } from '@/core/site/pictures.ts';
import type { AboutMedia } from '@/core/design/values.ts';
import type { MediaLine } from '@/server/queries/media.ts';

type Focus = Pick<AboutMedia, 'focusX' | 'focusY'>;

const STEP = 5;
/** How high the picture stands at most, px. */
const MOST_HIGH = 208;
const MOVES: Record<string, [x: number, y: number]> = {
  ArrowLeft: [-STEP, 0],
  ArrowRight: [STEP, 0],
  ArrowUp: [0, -STEP],
  ArrowDown: [0, STEP],
};

/** A picture on which what matters is pointed at, by pressing it or with the arrow keys. */
export function FocusPoint({
  line,
  focus: { focusX, focusY },
  readOnly,
  onChange,
}: {
  line: MediaLine;
  focus: Focus;
  readOnly: boolean;
  onChange: (focus: Focus) => void;
}) {
  const within = (value: number): number => Math.min(100, Math.max(0, Math.round(value)));
  const point = (event: React.PointerEvent): void => {
    const box = event.currentTarget.getBoundingClientRect();
    onChange({
      focusX: within((100 * (event.clientX - box.left)) / box.width),
      focusY: within((100 * (event.clientY - box.top)) / box.height),
    });
  };
  const src = stablePath(line.id, 640);
  return (
    <div>
      <div className="flex justify-center bg-paper">
        <button
          type="button"
          disabled={readOnly}
          aria-label={`What matters in the picture: ${focusX} % from the left, ${focusY} % from the top. Arrow keys move it.`}
          className="relative block w-full cursor-crosshair touch-none"
          style={{ maxWidth: (MOST_HIGH * line.width) / Math.max(1, line.height) }}
          onPointerDown={(e) => {
            e.currentTarget.setPointerCapture(e.pointerId);
            point(e);
          }}
          onPointerMove={(e) => e.buttons > 0 && point(e)}
          onKeyDown={(e) => {
            const move = MOVES[e.key];
            if (!move) return;
            e.preventDefault();
            onChange({ focusX: within(focusX + move[0]), focusY: within(focusY + move[1]) });
          }}
        >
          {/* eslint-disable-next-line @next/next/no-img-element -- served by delivery, in its own sizes */}
          <img
            key={line.hash}
            src={`${src}&of=${line.hash.slice(0, 8)}`}
            alt={line.alt}
            width={line.width}
            height={line.height}
            className="h-auto w-full"
          />
          <span
            aria-hidden
            className="focus-mark"
            style={{ left: `${focusX}%`, top: `${focusY}%` }}
          />
        </button>
      </div>
      <div className="mt-2 flex items-end gap-2 text-note text-muted">
        {SHAPES.map(({ ratio, label }) => (
          <figure key={ratio}>
            {/* eslint-disable-next-line @next/next/no-img-element -- as above */}
            <img
              src={`${src}&of=${line.hash.slice(0, 8)}`}
              alt=""
              className="h-14 border border-rule object-cover"
              style={{ aspectRatio: ratio, objectPosition: `${focusX}% ${focusY}%` }}
            />
            <figcaption>{label}</figcaption>
          </figure>
        ))}
        <span className="flex-1">What matters stays in sight where pages cut the picture.</span>
      </div>
    </div>
  );
}

/** Shapes that show what cutting does. */
const SHAPES = [
  { ratio: '1', label: 'Square' },
  { ratio: '16/9', label: 'Wide' },
  { ratio: '3/4', label: 'Upright' },
];
