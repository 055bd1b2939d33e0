'use client';

import { useRouter } from 'next/navigation';
import type { Clock } from '@/server/queries/clock.ts';
import type { PicksDetail } from '@/server/queries/picks.ts';
import { Line } from '@/ui/primitives/line.tsx';
import { Menu } from '@/ui/primitives/menu.tsx';
import { newHere } from '../content/new-here.ts';
import { DesignFoot } from '../design-foot.tsx';
import { EntryPicker } from '../entry-picker.tsx';
import { counted, instantWords } from '../format.ts';
import { OnBench } from '../on-bench.tsx';
import { Panes } from '../panes.tsx';
import { PreviewFrame } from '../preview-frame.tsx';
import { reachOf } from '../reach/reach-of.ts';
import { useDesignReadOnly, useMay } from '../rights.tsx';
import { ClockLink } from '../shell/clock-link.tsx';
import { useClockParameters } from '../shell/use-clock.ts';
import { type Edits, useEdits } from '../use-edits.ts';
import { useRelease } from '../use-release.tsx';
import { PickList } from './pick-list.tsx';
import { type Picking, picking } from './picking.ts';
import { TakePicksAway } from './take-picks-away.tsx';

type Spec = PicksDetail['spec'];

/** Picks: who stands in them, in which order, from when and until when. */
export function PicksScreen({ detail, clock }: { detail: PicksDetail; clock: Clock }) {
  const edits = useEdits(`picks/${detail.spec.id}`, detail.spec);
  const { spec } = edits;
  const readOnly = clock.tense !== 'now';
  const isFixed = useDesignReadOnly(clock);
  const isNamed = spec.label.trim() !== '';
  const release = useRelease({ edits, allowed: !isFixed && isNamed, clock });
  return (
    <Panes
      problem={clock.problem}
      title={detail.spec.label}
      lead={
        <>
          {'Picks: chosen and put in order by hand. '}
          <ClockLink className="link underline" href="/build/listings">
            All listings and picks
          </ClockLink>
        </>
      }
      actions={release.buttons}
      settings={
        <div className="flex flex-col gap-3">
          <OnBench lines={detail.onBench} />
          {readOnly && <p className="text-amber-text">{TENSE[clock.tense]}</p>}
          <Names {...{ edits, readOnly: isFixed }} />
          <Members
            {...{ detail, clock, readOnly }}
            picking={picking(detail.spec, release.attempt)}
            busy={release.busy}
          />
          <Uses uses={detail.uses} />
          {!isFixed && <TakePicksAway detail={detail} attempt={release.attempt} />}
        </div>
      }
      foot={<DesignFoot {...{ release, clock }} reach={reachOf(clock, edits.steps, [])} />}
      outcome={<Shown {...{ detail, clock }} />}
    />
  );
}

const TENSE: Record<Clock['tense'], string> = {
  now: '',
  past: 'As it was then. Picks are changed as of now.',
  future: 'As it will be, if nothing is changed. Picks are changed as of now.',
};

function Names({ edits, readOnly }: { edits: Edits<Spec>; readOnly: boolean }) {
  const { spec, change } = edits;
  return (
    <div>
      <Line label="Name" htmlFor="picks-label">
        <input
          id="picks-label"
          className="control"
          maxLength={200}
          value={spec.label}
          readOnly={readOnly}
          onChange={(e) => change({ ...spec, label: e.target.value })}
        />
      </Line>
      <Line label="Description" htmlFor="picks-description" help="What they are for.">
        <input
          id="picks-description"
          className="control"
          maxLength={2000}
          value={spec.description}
          readOnly={readOnly}
          onChange={(e) => change({ ...spec, description: e.target.value })}
        />
      </Line>
    </div>
  );
}

/** Who stands in them, and who is added. */
function Members({
  detail: { spec, types, lines, total, beyond },
  clock,
  readOnly,
  busy,
  picking: own,
}: {
  detail: PicksDetail;
  clock: Clock;
  readOnly: boolean;
  busy: boolean;
  picking: Picking;
}) {
  return (
    <section aria-label="In them">
      <h2 className="text-section font-semibold">In them</h2>
      {!readOnly && (
        <div className="my-2 flex max-w-[420px] gap-2">
          <div className="min-w-0 flex-1">
            <EntryPicker
              id="picks-add"
              label="Add an entry …"
              types={null}
              at={clock.at}
              hidden={lines.filter(({ to }) => to === null).map(({ entry }) => entry)}
              onPick={own.add}
            />
          </div>
          <NewOne picks={spec.key} types={types} />
        </div>
      )}
      <PickList {...{ lines, beyond, clock, readOnly, busy }} picking={own} />
      {lines.length === 0 && (
        <p className="border-t border-rule py-3 text-muted">
          Nothing in them. What is added is shown wherever a template shows these picks.
        </p>
      )}
      {total > lines.length && (
        <p className="border-t border-rule py-2 text-muted">
          {`… ${counted(total - lines.length, 'other')}`}
        </p>
      )}
    </section>
  );
}

/** Begins an entry that joins them when it is saved. */
function NewOne({ picks, types }: { picks: string; types: PicksDetail['types'] }) {
  const router = useRouter();
  const { keep } = useClockParameters();
  if (!useMay('write-entry') || types.length === 0) return null;
  return (
    <Menu
      label="New"
      className="button"
      items={types.map(({ key, label, description }) => ({
        ...{ key, label, note: description },
        onPick: () => router.push(keep(newHere(key, { here: `picks/${picks}` }))),
      }))}
    />
  );
}

/** What visitors are shown of them as of the clock. */
function Shown({ detail: { spec, cards }, clock }: { detail: PicksDetail; clock: Clock }) {
  const when = clock.tense === 'now' ? 'now' : instantWords(clock.at, clock.zone, clock.now);
  if (cards === null) return <p className="p-6 text-muted">None of them is live.</p>;
  return (
    <PreviewFrame
      html={cards}
      title="Picks"
      first={`${spec.label} as cards, in their order · ${when}`}
      at={clock.at}
    />
  );
}

/** Who shows them, and who joins them. */
function Uses({ uses }: Pick<PicksDetail, 'uses'>) {
  return (
    <section aria-label="Where they are used">
      <h2 className="text-section font-semibold">Where they are used</h2>
      <ul className="mt-1">
        {uses.map(({ label, type }) => (
          <li key={label}>
            {type === null ? (
              label
            ) : (
              <ClockLink className="link" href={`/build/types/${type}`}>
                {label}
              </ClockLink>
            )}
          </li>
        ))}
      </ul>
      {uses.length === 0 && (
        <p className="text-muted">
          No template has a block “Picks” that shows them, and no new entries join them.
        </p>
      )}
    </section>
  );
}
