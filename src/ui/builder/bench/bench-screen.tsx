'use client';

import type { BenchDetail } from '@/server/queries/bench.ts';
import type { TriedAddress } from '@/server/queries/try-address.ts';
import type { Clock } from '@/server/queries/clock.ts';
import { Dialog } from '@/ui/primitives/dialog.tsx';
import { Issues, SaidLine } from '@/ui/primitives/issues.tsx';
import { Sentences } from '@/ui/primitives/sentences.tsx';
import { Panes } from '../panes.tsx';
import { ReachPanel } from '../reach/reach-panel.tsx';
import { useMay } from '../rights.tsx';
import { ReleaseDialog } from '../release-dialog.tsx';
import { BenchLines } from './bench-lines.tsx';
import { BenchPage } from './bench-page.tsx';
import { ReleaseForm } from './release-form.tsx';
import { Releases } from './releases.tsx';
import { LongWork } from '../long-work.tsx';
import { type Bench, useBench } from './use-bench.ts';

/** All that is unpublished: ticked lines are released together, now or at an instant. */
export function BenchScreen({
  detail,
  page,
  clock,
}: {
  detail: BenchDetail;
  /** The page looked at, with the whole bench. */
  page: TriedAddress | null;
  clock: Clock;
}) {
  const bench = useBench(detail, clock);
  const mayDesign = useMay('change-design');
  const empty = detail.drafts.length + (mayDesign ? detail.edits.length : 0) === 0;
  return (
    <Panes
      problem={clock.problem}
      title="Bench"
      lead={
        mayDesign
          ? 'All that is not public yet: edits of the design, and drafts.'
          : 'All that was written and is not public yet.'
      }
      actions={mayDesign && <EditButtons detail={detail} bench={bench} />}
      settings={
        <div className="flex flex-col gap-4">
          {empty ? <Empty /> : <BenchLines detail={detail} bench={bench} clock={clock} />}
          {!empty && <ReleaseForm bench={bench} clock={clock} />}
          <ReachPanel input={bench.reach} clock={clock} />
          {mayDesign && <Releases detail={detail} bench={bench} clock={clock} />}
          <AskTogether bench={bench} />
          {bench.asking && (
            <ReleaseDialog
              release={bench.asking.release}
              reach={[]}
              title={bench.asking.title}
              action={bench.asking.action}
              when={bench.asking.when}
              onClose={bench.stopAsking}
              onRelease={() => void bench.release()}
            />
          )}
        </div>
      }
      foot={
        <>
          <LongWork work={bench.work} />
          <SaidLine said={bench.said} />
          <Issues issues={bench.issues} title="Not done" answers />
        </>
      }
      outcome={<BenchPage page={page} clock={clock} />}
    />
  );
}

function EditButtons({ detail, bench }: { detail: BenchDetail; bench: Bench }) {
  return (
    <div className="flex gap-2">
      <button
        type="button"
        className="button"
        disabled={bench.busy || !detail.canUndo}
        title="Takes back the last edit that you made"
        onClick={() => void bench.undo()}
      >
        Undo my last edit
      </button>
      <button
        type="button"
        className="button"
        disabled={bench.busy || !detail.canRedo}
        title="Does again what you took back last"
        onClick={() => void bench.redo()}
      >
        Redo
      </button>
    </div>
  );
}

/** Says what goes together with an edit that others build on, before it goes. */
function AskTogether({ bench }: { bench: Bench }) {
  const { together } = bench;
  if (!together) return null;
  return (
    <Dialog open onOpenChange={bench.stopTaking} title="These go together">
      <p className="mt-2">What is built on the first cannot stand without it.</p>
      <Sentences lines={together.sentences} />
      <div className="mt-4 flex gap-2">
        <button
          type="button"
          className="button button-main"
          onClick={() => void bench.takeOff(together.taking)}
        >
          {together.taking.command === 'undoEdit' ? 'Take them back' : 'Throw them away'}
        </button>
        <button type="button" className="button" onClick={bench.stopTaking}>
          Keep them
        </button>
      </div>
    </Dialog>
  );
}

function Empty() {
  return (
    <p className="border-t border-rule py-3 text-muted">
      The bench is empty: all that was written is public, or planned to be. What you keep on the
      bench on the screens of types, listings and settings stands here until it is released, and so
      do saved drafts.
    </p>
  );
}
