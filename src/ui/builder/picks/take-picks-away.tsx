import { useState } from 'react';
import type { PicksDetail } from '@/server/queries/picks.ts';
import { Dialog } from '@/ui/primitives/dialog.tsx';
import { Sentences } from '@/ui/primitives/sentences.tsx';
import { counted } from '../format.ts';
import { command } from '../send.ts';
import { toldOnBench } from '../type/told-on-bench.ts';
import type { Attempts } from '../use-attempts.ts';

/** Takes picks away on the bench, once it is said what they hold and what uses them. */
export function TakePicksAway({
  detail: { spec, total, uses, removal },
  attempt,
}: {
  detail: PicksDetail;
  attempt: Attempts['attempt'];
}) {
  const [asking, setAsking] = useState(false);
  const take = async (): Promise<void> => {
    setAsking(false);
    await attempt(
      () => command('editDesign', { steps: [removal] }),
      toldOnBench(attempt, { to: '/build/listings', from: `/build/listings/picks/${spec.key}` }),
    );
  };
  return (
    <div>
      <button type="button" className="button-quiet text-alarm" onClick={() => setAsking(true)}>
        Take these picks away …
      </button>
      <Dialog open={asking} onOpenChange={setAsking} title={`Take ${spec.label} away?`}>
        <p className="mt-2">
          {total === 0
            ? 'Nothing stands in them.'
            : `${counted(total, 'entry stands', 'entries stand')} in them; the entries stay as they are. Who stood where is kept, and shown again if this is undone.`}
        </p>
        {uses.length > 0 && (
          <p className="mt-2 text-alarm">They are used, and can go only when they are not:</p>
        )}
        <Sentences lines={uses.map(({ label }) => label)} />
        <div className="mt-4 flex gap-2">
          <button
            type="button"
            className="button button-main"
            disabled={uses.length > 0}
            onClick={() => void take()}
          >
            Take them away on the bench
          </button>
          <button type="button" className="button" onClick={() => setAsking(false)}>
            Keep them
          </button>
        </div>
      </Dialog>
    </div>
  );
}
