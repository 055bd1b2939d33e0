'use client';

import { useEffect, useState } from 'react';
import { limitText } from '@/core/text.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { Loss } from '@/server/queries/purge.ts';
import { Dialog } from '@/ui/primitives/dialog.tsx';
import { Issues } from '@/ui/primitives/issues.tsx';
import { counted, instantWords } from '../format.ts';
import { ask, command } from '../send.ts';
import { useAttempts } from '../use-attempts.ts';

/** Of longer names nobody has to type more than so many characters. */
const MOST_TYPED = 60;

/** Asks before all that is stored of an entry goes for good: what is lost, what stays. */
export function AskPurge({
  id,
  clock,
  onClose,
}: {
  id: string;
  clock: Clock;
  onClose: () => void;
}) {
  const { attempt, busy, issues } = useAttempts();
  const [loss, setLoss] = useState<Loss | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [typed, setTyped] = useState('');
  useEffect(() => {
    void ask<Loss>('purge', { id }).then((answer) =>
      'value' in answer ? setLoss(answer.value) : setProblem(answer.problem),
    );
  }, [id]);
  const purge = async (): Promise<void> => {
    const done = await attempt(
      () => command('purgeEntry', { entry: id }),
      () => ({ words: 'Purged.' }),
    );
    if (done) onClose(); // the screen, read anew, says what is left
  };
  const name = loss?.name.trim() ?? '';
  const asked = limitText(name, MOST_TYPED).replace(/…$/, '');
  return (
    <Dialog
      open
      onOpenChange={onClose}
      title={`Purge ${loss ? `“${loss.name}”` : 'this entry'} for good?`}
    >
      <p className="mt-2">
        Deleting leaves the past as it was. Purging takes that away as well: nobody can bring it
        back.
      </p>
      <ul className="mt-3 list-disc pl-5">
        {problem && <li className="text-alarm">{problem}</li>}
        {loss === null && !problem && <li className="text-muted">Looking what is lost …</li>}
        {loss && linesOf(loss, clock).map((line) => <li key={line}>{line}</li>)}
      </ul>
      {loss && (
        <label className="mt-4 block">
          {`To go on, write ${asked === name ? 'its name' : 'how its name begins'}: ${asked}`}
          <input
            className="control mt-1 w-full"
            value={typed}
            autoComplete="off"
            onChange={(e) => setTyped(e.target.value)}
          />
        </label>
      )}
      <Issues issues={issues} title="Not done" answers />
      <div className="mt-4 flex gap-2">
        <button
          type="button"
          className="button button-main"
          disabled={busy || !loss || typed.trim() !== asked}
          onClick={() => void purge()}
        >
          Purge for good
        </button>
        <button type="button" className="button" onClick={onClose}>
          Keep it
        </button>
      </div>
    </Dialog>
  );
}

/** What is lost, in sentences. */
function linesOf(loss: Loss, { zone, now }: Clock): string[] {
  const named = (names: readonly string[], total: number): string =>
    names.join(', ') + (total > names.length ? ` and ${total - names.length} more` : '');
  const { versions, live, since, paths, pathsTotal, referring, referringTotal } = loss;
  return [
    `${counted(versions, 'version is', 'versions are')} lost${
      live === 0
        ? '; it was never public.'
        : `, public since ${instantWords(since!, zone, now)}${live === 1 ? '' : ` in ${live} stretches`}: pages and lists of the past are without it.`
    }`,
    pathsTotal === 0
      ? 'It never had an address.'
      : `${named(paths, pathsTotal)} ${pathsTotal === 1 ? 'answers' : 'answer'} 410 from now on, whatever the clock says. The ${pathsTotal === 1 ? 'address itself stays' : 'addresses themselves stay'} noted.`,
    referringTotal === 0
      ? 'No entry refers to it.'
      : `${counted(referringTotal, 'entry refers', 'entries refer')} to it and will show nothing there: ${named(referring, referringTotal)}.`,
    ...(loss.mediaTotal === 0
      ? []
      : [
          `Media that no other entry shows stay, and can be deleted in Media: ${named(loss.media, loss.mediaTotal)}.`,
        ]),
    'Unsaved words that anybody keeps about it are thrown away.',
  ];
}
