import type { MediaLine } from '@/server/queries/media.ts';
import type { MediaShown } from './use-media.ts';

/** Media, small, beside each other; one is picked by pressing it. */
export function MediaGrid({
  shown,
  chosen,
  onPick,
  children,
}: {
  shown: MediaShown;
  chosen?: string | null;
  onPick: (line: MediaLine) => void;
  /** What stands here while nothing fits. */
  children: React.ReactNode;
}) {
  const { lines, total, problem, more } = shown;
  return (
    <>
      {problem && <p className="text-alarm">{problem}</p>}
      {lines.length === 0 && children}
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(136px,1fr))] gap-2">
        {lines.map((line) => (
          <li key={line.id}>
            <button
              type="button"
              aria-pressed={chosen === undefined ? undefined : chosen === line.id}
              className="medium-card"
              onClick={() => onPick(line)}
            >
              <Thumbnail line={line} />
              <span className="block truncate text-note" title={line.id}>
                {line.id}
              </span>
              <span className="block truncate text-note text-muted">{lacks(line)}</span>
            </button>
          </li>
        ))}
      </ul>
      {more && (
        <button type="button" className="button mt-3" onClick={more}>
          {`Show more (${lines.length.toLocaleString('en')} of ${total.toLocaleString('en')})`}
        </button>
      )}
    </>
  );
}

/** What a picture lacks; else its size. */
function lacks({ width, height, alt, decorative, format, bytes }: MediaLine): string {
  if (width === 0) return `${format.toUpperCase()}, ${sizeWords(bytes)}`;
  if (alt === '' && !decorative) return 'No alternative text';
  return `${width} × ${height}`;
}

/** A medium, small; what is no picture by its format. */
export function Thumbnail({ line }: { line: Pick<MediaLine, 'thumbnail' | 'format'> }) {
  if (line.thumbnail === null)
    return (
      <span className="medium-thumbnail font-semibold text-muted">{line.format.toUpperCase()}</span>
    );
  return (
    <span className="medium-thumbnail">
      {/* eslint-disable-next-line @next/next/no-img-element -- served by delivery, in its own sizes */}
      <img src={line.thumbnail} alt="" loading="lazy" />
    </span>
  );
}

/** A number of bytes in words: "340 kB", "1.2 MB". */
export function sizeWords(bytes: number): string {
  if (bytes < 1000) return `${bytes} bytes`;
  if (bytes < 1_000_000) return `${Math.round(bytes / 1000).toLocaleString('en')} kB`;
  return `${(bytes / 1_000_000).toFixed(1)} MB`;
}
