import type { BroughtIn } from '@/server/commands/intake/bring-in.ts';
import { counted } from '../format.ts';

/** What bringing in would do, or did: numbers, then reasons with the places where they hold. */
export function BroughtLines({ done, would }: { done: BroughtIn; would: boolean }) {
  const numbers: [number, string][] = [
    [done.created, 'new'],
    [done.changed, 'changed'],
    [done.same, 'the same as before'],
    [done.gone.count, 'not there any more'],
  ];
  return (
    <section
      aria-label={would ? 'What it would do' : 'What it did'}
      className="flex flex-col gap-2"
    >
      <dl className="flex flex-wrap gap-x-8 gap-y-1">
        {numbers.map(([count, words]) => (
          <div key={words} className="flex items-baseline gap-2">
            <dd className="text-section font-semibold tabular-nums">
              {count.toLocaleString('en')}
            </dd>
            <dt className="text-muted">{words}</dt>
          </div>
        ))}
      </dl>
      {done.gone.retired > 0 && (
        <p>{`${counted(done.gone.retired, 'entry', 'entries')} ${would ? 'would go' : 'went'} off the site.`}</p>
      )}
      {done.subjects + done.media > 0 && (
        <p className="text-muted">
          {[
            done.subjects > 0 && counted(done.subjects, 'subject'),
            done.media > 0 && counted(done.media, 'file'),
          ]
            .filter(Boolean)
            .join(' and ')}
          {would ? ' would be added.' : ' added.'}
        </p>
      )}
      {done.refused.map(({ message, fix, count, places }) => (
        <div key={message} className="border-l-[3px] border-alarm bg-white px-3 py-2">
          <p>
            <span className="font-medium">{`${counted(count, 'record')} left out: `}</span>
            <span className="text-alarm">{message}</span> <span className="text-muted">{fix}</span>
          </p>
          <p className="text-note break-words text-muted">{places.join(' · ')}</p>
        </div>
      ))}
      {done.lost.count > 0 && (
        <details>
          <summary>{`${counted(done.lost.count, 'piece')} of texts could not stand as written; words stay`}</summary>
          <ul className="text-note text-muted">
            {done.lost.first.map(({ path, line, words }, i) => (
              <li key={i} className="break-words">{`${path}:${line}: ${words}`}</li>
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}
