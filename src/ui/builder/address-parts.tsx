import type { TracedPart } from '@/core/pattern/compile.ts';

/** An address with each part bracketed to where it came from. */
export function AddressParts({
  path,
  parts,
  missing,
}: {
  path: string | null;
  parts: TracedPart[];
  missing?: string | null;
}) {
  return (
    <div>
      <p className="font-mono text-table break-all">
        {path ?? <span className="font-sans text-alarm">{missing ?? 'No address'}</span>}
      </p>
      <ul className="mt-2 flex flex-wrap gap-x-3 gap-y-1 text-note">
        {parts
          .filter((p) => p.kind !== 'literal' && p.kind !== 'left-out')
          .map((part, i) => (
            <li key={i} className="max-w-full min-w-0 border-t-2 border-spruce pt-0.5">
              <span
                className="line-clamp-2 block max-w-[320px] [overflow-wrap:anywhere]"
                title={part.text}
              >
                {part.text === '' ? '(blank)' : part.text}
              </span>
              <span className="block font-mono text-muted">{part.expression}</span>
            </li>
          ))}
      </ul>
    </div>
  );
}
