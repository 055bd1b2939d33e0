import { stablePath } from '@/core/site/pictures.ts';
import type { FieldChange } from '@/core/content/compare.ts';
import type { Piece } from '@/core/content/pieces.ts';

/** What changed between two versions: words in texts, rows of lists, pictures beside each other. */
export function ChangeLines({ changes }: { changes: readonly FieldChange[] }) {
  if (changes.length === 0) return <p className="text-muted">They say the same.</p>;
  return (
    <dl className="mt-2 flex flex-col gap-3">
      {changes.map(({ field, label, as, pieces }) => (
        <div key={field}>
          <dt className="font-medium">{label}</dt>
          <dd className="break-words">
            {as === 'pictures' ? (
              <Pictures pieces={pieces} />
            ) : as === 'words' ? (
              pieces.map((piece, i) => <Marked key={i} piece={piece} />)
            ) : (
              <Rows pieces={as === 'form' ? [] : pieces} />
            )}
          </dd>
        </div>
      ))}
    </dl>
  );
}

/** Words that are gone are struck out, new ones underlined: colour is not the only sign. */
export function Marked({ piece: { is, words } }: { piece: Piece }) {
  if (is === 'same') return <span className="whitespace-pre-wrap">{words}</span>;
  return is === 'gone' ? (
    <del className="whitespace-pre-wrap text-alarm">{words}</del>
  ) : (
    <ins className="whitespace-pre-wrap text-spruce">{words}</ins>
  );
}

/** Rows that changed, each with one around it that did not. */
export function Rows({ pieces }: { pieces: readonly Piece[] }) {
  if (pieces.length === 0)
    return <p className="text-muted">The words are the same; their form, or a link, is not.</p>;
  const isNear = (i: number): boolean =>
    [i - 1, i, i + 1].some((n) => pieces[n] !== undefined && pieces[n].is !== 'same');
  return (
    <ul>
      {pieces.map((piece, i) =>
        isNear(i) ? (
          <li key={i}>
            <span aria-hidden className="inline-block w-4 text-muted">
              {piece.is === 'gone' ? '−' : piece.is === 'new' ? '+' : ''}
            </span>
            <Marked piece={piece} />
          </li>
        ) : null,
      )}
    </ul>
  );
}

function Pictures({ pieces }: { pieces: readonly Piece[] }) {
  return (
    <div className="flex flex-wrap gap-4">
      {pieces.map(({ is, words }, i) => (
        <figure key={i} className="w-32">
          {/* eslint-disable-next-line @next/next/no-img-element -- served by delivery */}
          <img
            src={stablePath(words, 320)}
            alt={words}
            width={128}
            height={96}
            className={`h-24 w-32 border object-cover ${is === 'same' ? 'border-rule' : 'border-edge'}`}
          />
          <figcaption className="truncate text-note">
            {is === 'gone' ? 'Before: ' : is === 'new' ? 'After: ' : ''}
            {words}
          </figcaption>
        </figure>
      ))}
    </div>
  );
}
