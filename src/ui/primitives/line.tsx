import type { ReactNode } from 'react';

/** A settings line: label gutter, control, and what it gives on the same baseline. */
export function Line({
  label,
  htmlFor,
  children,
  result,
  help,
}: {
  label: string;
  htmlFor?: string;
  children: ReactNode;
  result?: ReactNode;
  help?: string | null;
}) {
  return (
    <div className="grid grid-cols-[128px_minmax(0,1fr)] gap-x-4 py-1.5">
      <label htmlFor={htmlFor} className="pt-1.5 text-muted">
        {label}
      </label>
      <div className="min-w-0">
        {children}
        {help && <p className="mt-1 text-note text-muted">{help}</p>}
        {result !== undefined && <Result>{result}</Result>}
      </div>
    </div>
  );
}

/** What a setting gives, behind a hairline that leads to it. */
export function Result({ children }: { children: ReactNode }) {
  return (
    <div className="mt-1 flex items-baseline gap-2">
      <span aria-hidden className="inline-block w-6 shrink-0 border-t border-spruce align-middle" />
      <div className="min-w-0 flex-1 break-words">{children}</div>
    </div>
  );
}
