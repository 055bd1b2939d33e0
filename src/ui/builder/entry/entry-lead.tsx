import type { Clock } from '@/server/queries/clock.ts';
import type { EntryDetail } from '@/server/queries/entry.ts';
import { instantWords } from '../format.ts';
import { ClockLink } from '../shell/clock-link.tsx';

/** What sort of thing an entry is, how it stands, and where one can go from it. */
export function EntryLead({
  detail,
  clock,
  changed,
  onMakeStarter,
}: {
  detail: EntryDetail;
  clock: Clock;
  changed: boolean;
  /** Makes a starter of what is saved of it. */
  onMakeStarter: () => void;
}) {
  const at = clock.tense === 'now' ? '' : `at ${instantWords(clock.at, clock.zone, clock.now)}: `;
  return (
    <>
      {`${detail.type.label} · ${at}${detail.state}${changed ? ' · unsaved changes' : ''}`}
      {detail.path !== null && clock.tense === 'now' && (
        <>
          {' · '}
          <a href={detail.path} target="_blank" rel="noreferrer" className="underline">
            Public page
          </a>
        </>
      )}
      {detail.id !== null && (
        <>
          {' · '}
          <ClockLink
            className="underline"
            href={`/build/content/new/${detail.type.key}?like=${encodeURIComponent(detail.id)}`}
          >
            New like this
          </ClockLink>
          {' · '}
          {clock.tense !== 'past' && (
            <>
              <button
                type="button"
                className="cursor-pointer text-spruce underline"
                onClick={onMakeStarter}
              >
                Make a starter
              </button>
              {' · '}
            </>
          )}
          <ClockLink
            className="underline"
            href={`/build/types/${detail.type.key}?entry=${encodeURIComponent(detail.id)}`}
          >
            Its fields
          </ClockLink>
        </>
      )}
      {detail.like && <span className="block">{begunWords(detail.like)}</span>}
    </>
  );
}

/** What a new entry was begun from, and what of that it does not have. */
function begunWords(like: NonNullable<EntryDetail['like']>): string {
  const { name, blank, stands, joins, less } = like;
  if (joins) return `Joins “${joins.label}” when it is saved.`;
  const left =
    blank.length === 0 ? '' : `; left blank, since no two may have the same: ${blank.join(', ')}`;
  const texts = less.length === 0 ? '' : `; without what may not be put into ${less.join(', ')}`;
  if (stands) return `Filled in so that it stands at “${name}”${texts}.`;
  return `Begun from “${name}”${left}${texts}.`;
}
