import type { ReactNode } from 'react';
import type { CommandResult } from '@/server/commands/index.ts';
import type { Clock } from '@/server/queries/clock.ts';
import { Dialog } from '@/ui/primitives/dialog.tsx';
import { counted, instantWords } from './format.ts';

/** What a release would do, or did. */
export type Release = Extract<CommandResult<'release'>, { ok: true }>['value'];

/** What a release did, in words. */
export function released({ at, moved, drafts, sentences }: Release, clock: Clock): string {
  const later = at > clock.now + 60_000;
  const when = instantWords(at, clock.zone, clock.now);
  const what = [
    sentences.length === 0 ? '' : counted(sentences.length, 'edit'),
    drafts === 0 ? '' : counted(drafts, 'draft'),
  ].filter(Boolean);
  const moves =
    moved > 0
      ? ` ${counted(moved, 'address', 'addresses')} ${later ? 'move then' : 'moved'}; the former ones lead on.`
      : '';
  return `${later ? 'Planned for' : 'Released'} ${when}: ${what.join(' and ')}.${moves}`;
}

/** What a release would do, before it is done. */
export function ReleaseDialog({
  release,
  reach,
  title = 'Release this now?',
  action = 'Release now',
  when = 'It is public at once, and can be undone.',
  onClose,
  onRelease,
}: {
  release: Release;
  /** What else it does to the site, a line each. */
  reach: ReactNode[];
  title?: string;
  action?: string;
  /** When it is public, as a sentence. */
  when?: string;
  onClose: () => void;
  onRelease: () => void;
}) {
  const { moved, examples, needs, sentences, drafts } = release;
  return (
    <Dialog open onOpenChange={onClose} title={title}>
      <ul className="mt-3 max-h-[50vh] list-disc overflow-auto pl-5">
        {sentences.slice(0, 8).map((sentence, i) => (
          <li key={i} className="break-words">
            {sentence}
            {needs.includes(sentence) && (
              <span className="text-amber-text"> (with it, because something here uses it)</span>
            )}
          </li>
        ))}
        {sentences.length > 8 && <li>… and {sentences.length - 8} more edits.</li>}
        {drafts > 0 && <li>{counted(drafts, 'draft goes', 'drafts go')} live.</li>}
        <li>
          {moved === 0
            ? 'No address moves.'
            : `${counted(moved, 'address moves', 'addresses move')}; the former ones lead on (308).`}
          <ul className="font-mono text-note text-muted">
            {examples.map(({ from, to }) => (
              <li key={from} className="break-all">{`${from} → ${to}`}</li>
            ))}
          </ul>
        </li>
        {reach.map((line, i) => (
          <li key={i}>{line}</li>
        ))}
        <li>{when}</li>
      </ul>
      <div className="mt-4 flex gap-2">
        <button type="button" className="button button-main" onClick={onRelease}>
          {action}
        </button>
        <button type="button" className="button" onClick={onClose}>
          Not yet
        </button>
      </div>
    </Dialog>
  );
}
