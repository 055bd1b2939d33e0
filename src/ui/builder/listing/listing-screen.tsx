'use client';

import { useEffect, useRef, useState } from 'react';
import type { Listing } from '@/core/design/listing-spec.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { ListingDetail, ListingOutcome } from '@/server/queries/listing.ts';
import { Tabs } from '@/ui/primitives/tabs.tsx';
import { lookingOf } from '../looking.ts';
import { OnBench } from '../on-bench.tsx';
import { EntryPicker } from '../entry-picker.tsx';
import { DesignFoot } from '../design-foot.tsx';
import { reachOf } from '../reach/reach-of.ts';
import { Panes } from '../panes.tsx';
import { PreviewFrame } from '../preview-frame.tsx';
import { useDesignReadOnly } from '../rights.tsx';
import { type Edits, useEdits } from '../use-edits.ts';
import { useOutcome } from '../use-outcome.ts';
import { useWhen } from '../use-when.ts';
import { DesignTense, useRelease } from '../use-release.tsx';
import { EachLines } from './each-lines.tsx';
import { FromEntries } from './from-entries.tsx';
import { InSide, LeftOutSide } from './listing-sides.tsx';
import { ListingWords } from './listing-words.tsx';
import { OwnPages } from './own-pages.tsx';
import { PinLines } from './pin-lines.tsx';
import { QuerySentence } from './query-sentence.tsx';
import { VisitorLines } from './visitor-lines.tsx';

interface Props {
  detail: ListingDetail;
  outcome: ListingOutcome;
  clock: Clock;
  /** An entry that somebody wants to stand first; null where nobody does. */
  pin: { id: string; name: string } | null;
}

/** A listing: its query as a sentence, who is in, who is left out and why. */
export function ListingScreen({ detail, outcome: first, clock, pin }: Props) {
  const { id } = detail.spec;
  const edits = useEdits(`listings/${id}`, detail.spec);
  const { spec, changed } = edits;
  const [find, setFind] = useState('');
  const [on, setOn] = useState<string>();
  const [visit, setVisit] = useState<string>();
  const pinned = usePinned(edits, pin, detail.names);
  const when = useWhen(clock);
  const { outcome, problem } = useOutcome<ListingOutcome>(
    'listing',
    { ...lookingOf(clock), id, steps: edits.steps, find, on, visit },
    first,
    changed || find !== '' || on !== undefined || visit !== undefined,
  );
  const readOnly = useDesignReadOnly(clock);
  const release = useRelease({
    edits,
    allowed: !readOnly,
    found: outcome.issues,
    reach: [`${outcome.total} entries are in; ${first.total} are in now.`],
    clock,
  });
  const own = { spec, clock, readOnly, issues: outcome.issues, onChange: edits.change };
  return (
    <Panes
      problem={clock.problem}
      title={detail.spec.label}
      lead={detail.spec.address ?? 'Stands inside templates only'}
      actions={release.buttons}
      settings={
        <div className="flex flex-col gap-3">
          <OnBench lines={detail.onBench} />
          <DesignTense clock={clock} changed={changed} />
          <QuerySentence spec={spec} detail={detail} readOnly={readOnly} onChange={edits.change} />
          {!readOnly && <FromEntries edits={edits} clock={clock} />}
          <ListingWords {...own} />
          <EachLines {...own} columns={detail.columns} />
          <PinLines {...own} {...pinned} detail={detail} />
          {spec.address !== undefined && (
            <>
              <VisitorLines {...own} detail={detail} />
              <OwnPages spec={spec} detail={detail} readOnly={readOnly} onChange={edits.change} />
            </>
          )}
        </div>
      }
      foot={
        <DesignFoot
          clock={clock}
          release={release}
          mend={outcome.issues}
          reach={reachOf(clock, edits.steps, outcome.issues)}
        />
      }
      outcome={
        <>
          <p className="border-b border-rule px-6 py-2 text-note font-semibold">
            {problem ??
              `${detail.spec.label} · ${when}${changed ? ' · with unsaved settings' : ''}`}
          </p>
          {outcome.on && <OnWhosePage on={outcome.on} at={clock.at} onPick={setOn} />}
          <Sides outcome={outcome} clock={clock} find={find} onFind={setFind} onVisit={setVisit} />
        </>
      }
    />
  );
}

/** On whose page a list is seen that compares with what that has. */
function OnWhosePage({
  on,
  at,
  onPick,
}: {
  on: NonNullable<ListingOutcome['on']>;
  at: number;
  onPick: (id: string) => void;
}) {
  return (
    <div className="flex flex-wrap items-center gap-2 border-b border-rule px-6 py-2 text-note">
      {on.id === '' ? (
        <span>No live entry has a page that it could stand on.</span>
      ) : (
        <span>
          As on the page of <strong>{on.name}</strong>
        </span>
      )}
      <span className="w-64">
        <EntryPicker
          id="on-whose-page"
          label="See it on another page …"
          types={on.types}
          at={at}
          onPick={(entry) => onPick(entry.id)}
        />
      </span>
    </div>
  );
}

/** Who is in, the page, and who is left out. */
function Sides({
  outcome,
  clock,
  find,
  onFind,
  onVisit,
}: {
  outcome: ListingOutcome;
  clock: Clock;
  find: string;
  onFind: (name: string) => void;
  onVisit: (path: string) => void;
}) {
  const { page: seen } = outcome;
  const page =
    seen === null
      ? []
      : [
          {
            key: 'page',
            label: 'Page',
            content: (
              <div className="flex h-full flex-col">
                <PreviewFrame
                  html={seen.html}
                  title="Page"
                  first={`Page at ${seen.path}`}
                  at={clock.at}
                  onPath={(path) => path.startsWith('/') && onVisit(path)}
                />
              </div>
            ),
          },
        ];
  return (
    <Tabs
      label="Result"
      tabs={[
        {
          key: 'in',
          label: `In (${outcome.total})`,
          content: <InSide outcome={outcome} clock={clock} />,
        },
        ...page,
        {
          key: 'out',
          label: `Left out (${outcome.leftOutTotal})`,
          content: <LeftOutSide outcome={outcome} clock={clock} find={find} onFind={onFind} />,
        },
      ]}
    />
  );
}

/**
 * Has an entry stand first once, where it does not yet: unsaved, like all that is changed here.
 * Gives the names of all that do, by id, and learns those of others.
 */
function usePinned(
  { spec, change }: Edits<Listing>,
  pin: Props['pin'],
  known: Readonly<Record<string, string>>,
) {
  const [named, setNamed] = useState<Record<string, string>>(pin ? { [pin.id]: pin.name } : {});
  const done = useRef(false);
  useEffect(() => {
    if (done.current || !pin) return;
    done.current = true;
    const pins = spec.pins ?? [];
    if (!pins.some(({ entry }) => entry === pin.id))
      change({ ...spec, pins: [{ entry: pin.id }, ...pins] });
  }, [spec, change, pin]);
  return {
    names: { ...known, ...named },
    onName: (entry: string, name: string): void => setNamed({ ...named, [entry]: name }),
  };
}
