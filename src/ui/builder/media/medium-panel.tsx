'use client';

import type { Clock } from '@/server/queries/clock.ts';
import type { MediumDetail } from '@/server/queries/media.ts';
import { entryHref, instantWords } from '../format.ts';
import { command } from '../send.ts';
import { starterHref } from '../starters/starter-href.ts';
import { ClockLink } from '../shell/clock-link.tsx';
import type { Attempts } from '../use-attempts.ts';
import { useAsked } from '../use-asked.ts';
import { ChooseFiles } from './drop-place.tsx';
import { sizeWords } from './media-grid.tsx';
import { MediumAbout } from './medium-about.tsx';

interface Props {
  id: string;
  clock: Clock;
  attempts: Attempts;
  /** Changes whenever it is to be looked at again. */
  stamp: number;
  /** What is said of it, or it itself, is another now. */
  onChanged: () => void;
  onReplace: (file: File) => void;
  onClose: () => void;
}

/** One medium: what is said of it, who shows it, how it was; replaced and deleted from here. */
export function MediumPanel(props: Props) {
  const { id, clock, stamp, onClose } = props;
  const at = clock.tense === 'past' ? clock.at : null;
  const { answer, problem } = useAsked<MediumDetail>('medium', { id, at, stamp });
  const detail = answer?.line.id === id ? answer : null;
  return (
    <aside
      aria-label={id}
      className="flex w-[360px] shrink-0 flex-col gap-4 overflow-y-auto border-l border-rule bg-white p-4"
    >
      <div className="flex items-start gap-2">
        <h2 className="min-w-0 flex-1 font-semibold break-words">{id}</h2>
        <button type="button" className="button-quiet" onClick={onClose}>
          Close
        </button>
      </div>
      {problem && <p className="text-alarm">{problem}</p>}
      {detail && <Detail {...props} detail={detail} />}
    </aside>
  );
}

function Detail({
  clock,
  attempts,
  onChanged,
  onReplace,
  detail,
}: Props & { detail: MediumDetail }) {
  const { line, path, stable } = detail;
  const readOnly = clock.tense === 'past';
  return (
    <>
      <MediumAbout
        key={`${line.id} ${line.starts}`}
        {...{ line, readOnly }}
        attempt={attempts.attempt}
        busy={attempts.busy}
        onSaved={onChanged}
      />
      <dl className="grid grid-cols-[72px_minmax(0,1fr)] gap-x-3 gap-y-1 text-table">
        <dt className="text-muted">File</dt>
        <dd>{`${line.format.toUpperCase()}, ${sizeWords(line.bytes)}${line.width > 0 ? `, ${line.width} × ${line.height} px` : ''}`}</dd>
        <dt className="text-muted">Address</dt>
        <dd className="break-words">
          <a href={stable} target="_blank" rel="noreferrer">
            {stable}
          </a>
        </dd>
      </dl>
      <Used use={detail.use} />
      <Before {...{ detail, clock, readOnly, attempts, onChanged }} />
      {!readOnly && (
        <div className="flex items-center gap-2">
          <ChooseFiles
            label="Replace …"
            accept={line.width > 0 ? 'image/*,.svg' : '.pdf,application/pdf'}
            multiple={false}
            onFiles={([file]) => file && onReplace(file)}
          />
          <a href={path} download className="button inline-flex items-center">
            Download
          </a>
          <DeleteMedium {...{ detail, attempts, onChanged }} />
        </div>
      )}
    </>
  );
}

function Used({ use }: { use: MediumDetail['use'] }) {
  const { total, entries, subjects, starters, isShared } = use;
  const isNowhere = placesIn(use) === 0;
  return (
    <section aria-label="Where it is used">
      <h3 className="text-muted">{isNowhere ? 'Used nowhere' : 'Used by'}</h3>
      <ul className="text-table">
        {isShared && (
          <li>
            <ClockLink href="/build/settings">The site, where it is shared</ClockLink>
          </li>
        )}
        {entries.map(({ id, name, live }) => (
          <li key={id} className="truncate">
            <ClockLink href={entryHref(id)}>{name}</ClockLink>
            {!live && <span className="text-muted"> · not live</span>}
          </li>
        ))}
        {total > entries.length && (
          <li className="text-muted">{`and ${(total - entries.length).toLocaleString('en')} more entries`}</li>
        )}
        {subjects.map(({ set, setLabel, key, name }) => (
          <li key={`${set} ${key}`} className="truncate">
            <ClockLink href={`/build/settings/subjects/${set}`}>{name}</ClockLink>
            <span className="text-muted">{` · ${setLabel}`}</span>
          </li>
        ))}
        {starters.map(({ id, name }) => (
          <li key={`starter ${id}`} className="truncate">
            <ClockLink href={starterHref(id)}>{name}</ClockLink>
            <span className="text-muted"> · starter</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** In how many places it is used. */
function placesIn({ total, subjects, starters, isShared }: MediumDetail['use']): number {
  return total + subjects.length + starters.length + (isShared ? 1 : 0);
}

/** How it was before, with the way back. */
function Before({
  detail: { line, versions },
  clock: { zone, now },
  readOnly,
  attempts: { attempt, busy },
  onChanged,
}: Pick<Props, 'clock' | 'attempts' | 'onChanged'> & { detail: MediumDetail; readOnly: boolean }) {
  if (versions.length < 2) return null;
  const take = (starts: number): void =>
    void attempt(
      () => command('restoreMedium', { id: line.id, starts }),
      () => ({ words: `${line.id} is as it was then.` }),
    ).then(onChanged);
  return (
    <section aria-label="Versions">
      <h3 className="text-muted">{`Versions: ${versions.length}`}</h3>
      <ul className="max-h-56 overflow-y-auto text-table">
        {versions.map(({ starts, person, thumbnail, words, path }, i) => (
          <li key={starts} className="flex items-center gap-2 border-t border-rule py-1">
            {thumbnail ? (
              // eslint-disable-next-line @next/next/no-img-element -- served by delivery
              <img src={thumbnail} alt="" className="h-8 w-8 shrink-0 object-cover" />
            ) : (
              <a href={path}>PDF</a>
            )}
            <span className="min-w-0 flex-1">
              {words}
              <span className="block text-note text-muted">
                {[instantFrom(starts, zone, now), person].filter(Boolean).join(', ')}
              </span>
            </span>
            {i === 0 || readOnly ? (
              <span className="text-note text-muted">{i === 0 ? 'now' : ''}</span>
            ) : (
              <button
                type="button"
                className="button-quiet"
                disabled={busy}
                onClick={() => take(starts)}
              >
                Take back to this
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Since when; nothing for what a folder brought as having been so always. */
function instantFrom(starts: number, zone: string, now: number): string {
  return Math.abs(starts) > 8e15 ? 'from the beginning' : instantWords(starts, zone, now);
}

function DeleteMedium({
  detail: { line, use },
  attempts: { attempt, busy },
  onChanged,
}: Pick<Props, 'attempts' | 'onChanged'> & { detail: MediumDetail }) {
  const { id } = line;
  const places = placesIn(use);
  const restore = (starts: number): void =>
    void attempt(
      () => command('restoreMedium', { id, starts }),
      () => ({ words: `${id} is back.` }),
    ).then(onChanged);
  const remove = (): void =>
    void attempt(
      () => command('deleteMedium', { id }),
      ({ before }) => ({
        words:
          places === 0
            ? `${id} is deleted; pages of the past still show it.`
            : `${id} is deleted. ${places === 1 ? 'One place shows' : `${places} places show`} nothing there now.`,
        undo: { label: 'Undo', run: () => restore(before) },
      }),
    ).then(onChanged);
  return (
    <button type="button" className="button-quiet text-alarm" disabled={busy} onClick={remove}>
      {places === 0 ? 'Delete' : `Delete (used ${places === 1 ? 'once' : `${places} times`})`}
    </button>
  );
}
