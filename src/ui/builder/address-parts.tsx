import type { PathPiece } from '@/core/address/pieces.ts';

/** An address with each piece bracketed to where it came from. */
export function AddressParts({
  path,
  pieces,
  missing,
}: {
  path: string | null;
  pieces: PathPiece[];
  missing?: string | null;
}) {
  if (path === null) return <p className="text-alarm">{missing ?? 'No address'}</p>;
  return (
    <p aria-label={path} className="flex flex-wrap items-start gap-y-1 font-mono text-table">
      {pieces.map(({ text, expression }, i) => (
        <span key={i} className="inline-flex max-w-full flex-col">
          <span className={`break-all ${expression === null ? '' : 'border-b-2 border-spruce'}`}>
            {text}
          </span>
          {expression !== null && (
            <span className="text-note text-muted [overflow-wrap:anywhere]">{expression}</span>
          )}
        </span>
      ))}
    </p>
  );
}
