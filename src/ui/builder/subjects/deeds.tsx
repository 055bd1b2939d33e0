import type { SubjectDeed } from '@/server/queries/subject-deeds.ts';
import { instantWords } from '../format.ts';

/** What was done to a set lately, each to be taken back. */
export function Deeds({
  deeds,
  zone,
  now,
  readOnly,
  onUndo,
}: {
  deeds: readonly SubjectDeed[];
  zone: string;
  now: number;
  readOnly: boolean;
  onUndo: (at: number) => void;
}) {
  if (deeds.length === 0) return null;
  return (
    <section aria-label="Done lately" className="mt-8">
      <h2>Done lately</h2>
      <ul className="mt-2">
        {deeds.map(({ at, sentence, who }) => (
          <li key={at} className="flex items-baseline gap-3 border-t border-rule py-1.5">
            <span className="min-w-0 flex-1 break-words">
              {sentence}
              <span className="text-muted">
                {` · ${instantWords(at, zone, now)}${who ? ` · ${who}` : ''}`}
              </span>
            </span>
            {!readOnly && (
              <button
                type="button"
                className="button-quiet"
                aria-label={`Undo: ${sentence}`}
                onClick={() => onUndo(at)}
              >
                Undo
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
