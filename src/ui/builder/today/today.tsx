import type { Clock } from '@/server/queries/clock.ts';
import type { ReleaseLine } from '@/server/queries/releases.ts';
import type { TodayDetail } from '@/server/queries/today.ts';
import { counted, entryHref, instantWords } from '../format.ts';
import { ClockLink } from '../shell/clock-link.tsx';
import { FirstSteps } from '../start/first-steps.tsx';
import { NoSite } from '../start/no-site.tsx';

/** A short account of the site: drafts, what happened, what comes, what asks for attention. */
export function Today({ detail, clock }: { detail: TodayDetail | null; clock: Clock }) {
  if (!detail) return <NoSite />;
  const when: When = (at) => instantWords(at, clock.zone, clock.now);
  const { tense } = clock;
  return (
    <main data-area tabIndex={-1} className="min-h-0 flex-1 overflow-auto">
      <div className="grid max-w-[1560px] gap-x-12 gap-y-6 px-6 py-5 md:grid-cols-2">
        <h1 className="md:col-span-2">
          {tense === 'now' ? 'Today' : `The site at ${when(clock.at)}`}
        </h1>
        {tense === 'now' && <FirstSteps steps={detail.begun} />}
        <Block
          title={tense === 'now' ? 'Coming up in two days' : 'In the two days after'}
          empty="Nothing is planned."
        >
          {detail.releases.map((line) => (
            <Release key={line.release} line={line} when={when} />
          ))}
          {detail.coming.map((change) => (
            <Change key={keyOf(change)} change={change} when={when} ahead />
          ))}
        </Block>
        <Block title="Unpublished changes" empty={NO_DRAFTS[tense]}>
          {detail.drafts.map((draft) => (
            <Draft key={draft.id} draft={draft} when={when} />
          ))}
        </Block>
        <Block title="Went live in the last week" empty="Nothing went live.">
          {detail.wentLive.map((change) => (
            <Change key={keyOf(change)} change={change} when={when} />
          ))}
        </Block>
        <Attention detail={detail} />
        <p className="text-muted md:col-span-2">
          {`${counted(detail.pages, 'entry page')} ${ARE[tense]} public at this instant.`}
        </p>
      </div>
    </main>
  );
}

type When = (at: number) => string;

const NO_DRAFTS: Record<Clock['tense'], string> = {
  past: 'All that had been written by then was published, or planned to be.',
  now: 'Everything written is published.',
  future: 'Everything written is published.',
};
const ARE: Record<Clock['tense'], string> = { past: 'were', now: 'are', future: 'will be' };

/** What asks for attention: nothing at "/", pages without a template, findings of addresses. */
function Attention({ detail }: { detail: TodayDetail }) {
  return (
    <Block title="Asking for attention" empty="Nothing found.">
      {!detail.frontChosen && (
        <li className="border-t border-rule py-1.5">
          Nothing is chosen for “/”; it shows the newest pages by itself. Choose it in the{' '}
          <ClockLink href="/build/settings">settings</ClockLink>.
        </li>
      )}
      {detail.automatic.map((type) => (
        <li key={type.key} className="border-t border-rule py-1.5">
          Pages of <ClockLink href={`/build/types/${type.key}`}>{type.label}</ClockLink> have no
          template; they are made from the fields alone.
        </li>
      ))}
      {detail.findings.map((finding) => (
        <li key={finding.entry} className="border-t border-rule py-1.5">
          <ClockLink href={entryHref(finding.entry)} className="font-medium">
            {finding.name}
          </ClockLink>
          : {finding.message} <span className="text-muted">{finding.fix}</span>
        </li>
      ))}
    </Block>
  );
}

function Draft({ draft, when }: { draft: TodayDetail['drafts'][number]; when: When }) {
  const older = draft.live ? ', an older version is public' : '';
  return (
    <li className="flex flex-wrap justify-between gap-x-4 border-t border-rule py-1.5">
      <ClockLink href={entryHref(draft.id)} className="min-w-0 truncate font-medium">
        {draft.name}
      </ClockLink>
      <span className="text-muted">{`${draft.typeLabel}${older}; saved ${when(draft.saved)}`}</span>
    </li>
  );
}

function Block({
  title,
  empty,
  children,
}: {
  title: string;
  empty: string;
  children: React.ReactNode;
}) {
  const items = (Array.isArray(children) ? children.flat() : [children]).filter(Boolean);
  return (
    <section>
      <h2>{title}</h2>
      {items.length === 0 ? (
        <p className="mt-1 border-t border-rule py-1.5 text-muted">{empty}</p>
      ) : (
        <ul className="mt-1">{items}</ul>
      )}
    </section>
  );
}

const keyOf = ({ at, entry, picks }: TodayDetail['coming'][number]): string =>
  JSON.stringify([at, entry, picks]);

const AHEAD = {
  live: 'goes live',
  retired: 'leaves',
  'new version': 'shows a new version',
  picked: 'joins',
  unpicked: 'leaves',
};
const BEHIND = {
  live: 'went live',
  retired: 'left',
  'new version': 'showed a new version',
  picked: 'joined',
  unpicked: 'left',
};

function Change({
  change,
  when,
  ahead = false,
}: {
  change: TodayDetail['coming'][number];
  when: When;
  ahead?: boolean;
}) {
  const { at, entry, name, what, path, picks } = change;
  const there = !ahead || path === null ? '' : ` ${what === 'retired' ? '' : 'at '}${path}`;
  return (
    <li className="grid gap-x-3 border-t border-rule py-1.5 sm:grid-cols-[148px_minmax(0,1fr)]">
      <span className={ahead ? 'text-amber-text' : 'text-muted'}>{when(at)}</span>
      <span className="min-w-0 break-words">
        <ClockLink href={entryHref(entry)} className="font-medium">
          {name}
        </ClockLink>
        {` ${(ahead ? AHEAD : BEHIND)[what]}${picks === null ? there : ` ${picks}`}`}
      </span>
    </li>
  );
}

function Release({ line, when }: { line: ReleaseLine; when: When }) {
  const [first = counted(line.drafts.length, 'draft'), ...more] = line.sentences;
  return (
    <li className="grid gap-x-3 border-t border-rule py-1.5 sm:grid-cols-[148px_minmax(0,1fr)]">
      <span className="text-amber-text">{when(line.at)}</span>
      <span className="min-w-0 break-words">
        <ClockLink href="/build/bench" className="font-medium">
          Release
        </ClockLink>
        {` by ${line.person}: ${first}${more.length > 0 ? `, and ${more.length} more` : ''}`}
      </span>
    </li>
  );
}
