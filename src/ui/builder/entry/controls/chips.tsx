'use client';

import type { ReactNode } from 'react';

/** Several values in an order, each with its name; more are added by what stands below. */
export function Chips({
  value,
  readOnly,
  onChange,
  labelOf,
  children,
}: {
  value: unknown;
  readOnly: boolean;
  onChange: (value: unknown) => void;
  labelOf: (value: string) => string;
  children: (chosen: string[], add: (value: string) => void) => ReactNode;
}) {
  const chosen = Array.isArray(value) ? value.map(String) : value ? [String(value)] : [];
  const move = (i: number, by: number): void => {
    const next = [...chosen];
    const [member] = next.splice(i, 1);
    next.splice(i + by, 0, member!);
    onChange(next);
  };
  return (
    <div>
      <ul className="flex flex-wrap gap-1">
        {chosen.map((v, i) => (
          <li
            key={v}
            className="flex max-w-full items-center rounded-md border border-rule bg-white pl-2"
          >
            <span className="truncate">{labelOf(v)}</span>
            {!readOnly && (
              <>
                {i > 0 && (
                  <button
                    type="button"
                    className="px-1 text-muted"
                    aria-label={`Move ${labelOf(v)} forward`}
                    onClick={() => move(i, -1)}
                  >
                    ←
                  </button>
                )}
                <button
                  type="button"
                  className="px-1.5 text-alarm"
                  aria-label={`Remove ${labelOf(v)}`}
                  onClick={() => onChange(chosen.filter((c) => c !== v))}
                >
                  ×
                </button>
              </>
            )}
          </li>
        ))}
      </ul>
      {!readOnly && children(chosen, (v) => onChange([...chosen, v]))}
    </div>
  );
}
