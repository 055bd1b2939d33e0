import type { Clock } from '@/server/queries/clock.ts';
import { instantWords } from '../format.ts';
import type { Writing } from './use-writing.ts';

/** Who else has the entry open, and whether they write. */
export function OthersHere({ others, clock }: { others: Writing['others']; clock: Clock }) {
  return (
    <div role="status">
      {others.map(({ name, since, writing, self }, i) => (
        <p key={i} className="text-note text-muted">
          {`${self ? 'You have' : `${name} has`} this open ${self ? 'in another window ' : ''}since ${instantWords(since, clock.zone, clock.now)}${writing ? ', with unsaved words' : ''}.`}
        </p>
      ))}
    </div>
  );
}
