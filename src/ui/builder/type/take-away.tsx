import { useState } from 'react';
import type { TypeDetail } from '@/server/queries/type.ts';
import { Dialog } from '@/ui/primitives/dialog.tsx';
import { Sentences } from '@/ui/primitives/sentences.tsx';
import { entriesCounted } from '../format.ts';
import { command } from '../send.ts';
import type { Attempts } from '../use-attempts.ts';
import { toldOnBench } from './told-on-bench.ts';

/** Takes a type away, once it is said what goes with it; it goes from the bench first. */
export function TakeAway({
  detail,
  attempt,
}: {
  detail: TypeDetail;
  attempt: Attempts['attempt'];
}) {
  const [asking, setAsking] = useState(false);
  const { spec, entries, removal } = detail;
  const take = async (): Promise<void> => {
    setAsking(false);
    await attempt(
      () => command('editDesign', { steps: removal.steps }),
      toldOnBench(attempt, { to: '/build/types', from: `/build/types/${spec.key}` }),
    );
  };
  return (
    <>
      <button type="button" className="button-quiet text-alarm" onClick={() => setAsking(true)}>
        Take this type away …
      </button>
      <Dialog open={asking} onOpenChange={setAsking} title={`Take ${spec.label} away?`}>
        {entries > 0 && (
          <p className="mt-2 text-alarm">
            {`There ${entries === 1 ? 'is' : 'are'} ${entriesCounted(entries)} of it. Delete them first: nothing that is written goes with its type.`}
          </p>
        )}
        <p className="mt-2">
          {removal.goes.length === 0
            ? 'Nothing else goes with it. It stays until it is released from the bench.'
            : 'This goes with it. All of it stays until it is released from the bench.'}
        </p>
        <Sentences lines={removal.goes} />
        <div className="mt-4 flex gap-2">
          <button
            type="button"
            className="button button-main"
            disabled={entries > 0}
            onClick={() => void take()}
          >
            Take it away on the bench
          </button>
          <button type="button" className="button" onClick={() => setAsking(false)}>
            Keep it
          </button>
        </div>
      </Dialog>
    </>
  );
}
