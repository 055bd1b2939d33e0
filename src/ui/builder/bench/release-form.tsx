import type { Clock } from '@/server/queries/clock.ts';
import { counted, instantWords } from '../format.ts';
import { InstantField } from '../instant/instant-field.tsx';
import { type Bench, typedInstant } from './use-bench.ts';

/** Releases the ticked lines: now, or at an instant that is typed. */
export function ReleaseForm({ bench, clock }: { bench: Bench; clock: Clock }) {
  const count = bench.ticked.size;
  const at = typedInstant(bench, clock);
  const allowed = !bench.busy && count > 0 && clock.tense !== 'past';
  const lines = counted(count, 'line');
  return (
    <section aria-label="Release" className="flex flex-col gap-3 border-t border-rule pt-3">
      <div>
        <button
          type="button"
          className={`button ${bench.when === '' ? 'button-main' : ''}`}
          disabled={!allowed}
          onClick={() => void bench.ask(null)}
        >
          {bench.busy ? 'Working …' : `Release ${lines} now …`}
        </button>
      </div>
      <div className="flex flex-wrap items-start gap-2">
        <span className="pt-1.5 text-muted">or at</span>
        <InstantField
          label={`Release at (${clock.zone})`}
          zone={clock.zone}
          now={clock.now}
          value={bench.when}
          onChange={bench.setWhen}
        />
        <button
          type="button"
          className={`button ${bench.when === '' ? '' : 'button-main'}`}
          disabled={!allowed || at === null}
          onClick={() => void bench.ask(at)}
        >
          {at === null
            ? 'Release then …'
            : `Release at ${instantWords(Date.parse(at), clock.zone, clock.now)} …`}
        </button>
      </div>
      {clock.tense === 'past' && (
        <p className="text-amber-text">The clock stands in the past; set it to now to release.</p>
      )}
    </section>
  );
}
