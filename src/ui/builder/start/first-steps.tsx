import type { ReactNode } from 'react';
import type { FirstSteps as Steps } from '@/server/queries/today.ts';
import { ClockLink } from '../shell/clock-link.tsx';

/** The four things a new site needs, each ticked once it is there; nothing once all are. */
export function FirstSteps({ steps }: { steps: Steps }) {
  const { type, address, live, front } = steps;
  if (type && address && live && front) return null;
  const lines: { done: boolean; words: ReactNode }[] = [
    {
      done: type !== null,
      words: (
        <>
          A type: <ClockLink href="/build/types">describe</ClockLink> what the site holds.
        </>
      ),
    },
    {
      done: address,
      words: type ? (
        <>
          Its address: where the pages of{' '}
          <ClockLink href={`/build/types/${type.key}`}>{type.label}</ClockLink> stand.
        </>
      ) : (
        'Its address.'
      ),
    },
    { done: live, words: <LiveEntry type={type} /> },
    {
      done: front,
      words: (
        <>
          Something at “/”: choose it in the <ClockLink href="/build/settings">settings</ClockLink>.
        </>
      ),
    },
  ];
  return (
    <section className="md:col-span-2" aria-label="First steps">
      <h2>First steps</h2>
      <ol>
        {lines.map(({ done, words }, i) => (
          <li
            key={i}
            className={`grid grid-cols-[72px_minmax(0,1fr)] border-t border-rule py-1.5 ${done ? 'text-muted' : ''}`}
          >
            <span className={done ? 'text-spruce' : 'text-muted'}>{done ? '✓ done' : 'to do'}</span>
            <span>{words}</span>
          </li>
        ))}
      </ol>
    </section>
  );
}

function LiveEntry({ type }: Pick<Steps, 'type'>) {
  if (!type) return 'One live entry.';
  if (!type.released)
    return (
      <>
        One live entry: release {type.label} from the{' '}
        <ClockLink href="/build/bench">bench</ClockLink> first, then write and publish one.
      </>
    );
  return (
    <>
      One live entry: <ClockLink href="/build/content">write</ClockLink> and publish it.
    </>
  );
}
