import type { ReactNode } from 'react';
import type { BenchDetail, DraftLine, EditLine } from '@/server/queries/bench.ts';
import type { Clock } from '@/server/queries/clock.ts';
import { counted, entryHref, instantWords } from '../format.ts';
import { useMay } from '../rights.tsx';
import { ClockLink } from '../shell/clock-link.tsx';
import { type Bench, draftKey, editKey } from './use-bench.ts';

interface Props {
  detail: BenchDetail;
  bench: Bench;
  clock: Clock;
}

/** The lines of the bench: one's own drafts, others', and the edits of the design. */
export function BenchLines({ detail, bench, clock }: Props) {
  const mine = detail.drafts.filter((d) => d.mine);
  const others = detail.drafts.filter((d) => !d.mine);
  const shown = { bench, clock };
  return (
    <>
      {useMay('change-design') && (
        <Group
          title="Design"
          empty="No edits of the design."
          keys={detail.edits.map((e) => editKey(e.id))}
          bench={bench}
        >
          {detail.edits.map((edit) => (
            <Edit key={edit.id} edit={edit} {...shown} />
          ))}
        </Group>
      )}
      <Group
        title="Mine"
        empty="No drafts of yours."
        keys={mine.map((d) => draftKey(d.entry))}
        bench={bench}
      >
        {mine.map((draft) => (
          <Draft key={draft.entry} draft={draft} {...shown} />
        ))}
      </Group>
      <Group
        title="Others’"
        empty="No drafts of others."
        keys={others.map((d) => draftKey(d.entry))}
        bench={bench}
      >
        {others.map((draft) => (
          <Draft key={draft.entry} draft={draft} {...shown} />
        ))}
      </Group>
      {detail.draftsTotal > detail.drafts.length && (
        <p className="text-muted">
          {`The ${detail.drafts.length} drafts saved last are shown, of ${counted(detail.draftsTotal, 'draft')}.`}
        </p>
      )}
    </>
  );
}

function Group({
  title,
  empty,
  keys,
  bench,
  children,
}: {
  title: string;
  empty: string;
  keys: string[];
  bench: Bench;
  children: ReactNode[];
}) {
  const count = keys.filter((key) => bench.ticked.has(key)).length;
  return (
    <section aria-label={title}>
      <div className="flex items-baseline justify-between">
        <h2>{`${title} (${keys.length})`}</h2>
        {keys.length > 1 && (
          <button
            type="button"
            className="button-quiet"
            onClick={() => bench.tick(keys, count < keys.length)}
          >
            {count < keys.length ? 'Tick all' : 'Tick none'}
          </button>
        )}
      </div>
      {keys.length === 0 ? (
        <p className="border-t border-rule py-1.5 text-muted">{empty}</p>
      ) : (
        <ul>{children}</ul>
      )}
    </section>
  );
}

/** A line that can be ticked; what can be done with it alone stands at its end. */
function TickLine({
  tickKey,
  label,
  bench,
  disabled = false,
  note,
  actions,
  children,
}: {
  tickKey: string;
  /** What is ticked, for those who do not see it. */
  label: string;
  bench: Bench;
  disabled?: boolean;
  note: ReactNode;
  actions?: ReactNode;
  children: ReactNode;
}) {
  const on = bench.ticked.has(tickKey);
  return (
    <li
      className={`grid grid-cols-[20px_minmax(0,1fr)_auto] gap-x-2 border-t border-rule py-1.5 pl-2 ${on ? 'ticked-line' : ''}`}
    >
      <input
        type="checkbox"
        aria-label={label}
        className="mt-0.5 h-4 w-4 accent-spruce"
        checked={on}
        disabled={disabled}
        onChange={(e) => bench.tick([tickKey], e.target.checked)}
      />
      <div className="min-w-0 break-words">
        {children}
        <p className="text-note text-muted">{note}</p>
      </div>
      {actions}
    </li>
  );
}

function Edit({ edit, bench, clock }: { edit: EditLine } & Pick<Props, 'bench' | 'clock'>) {
  const [first, ...more] = edit.sentences;
  const stuck = edit.issues.length > 0;
  const who = edit.mine ? 'You' : edit.person;
  return (
    <TickLine
      tickKey={editKey(edit.id)}
      label={first!}
      bench={bench}
      disabled={stuck}
      note={`${who}, ${instantWords(edit.made, clock.zone, clock.now)} · at most ${counted(edit.pages, 'page')}`}
      actions={
        <button
          type="button"
          className="button-quiet self-start"
          disabled={bench.busy}
          onClick={() => void bench.discard(edit.id)}
        >
          Throw away
        </button>
      }
    >
      {edit.href === null ? first : <ClockLink href={edit.href}>{first}</ClockLink>}
      {more.map((sentence, i) => (
        <p key={i}>{sentence}</p>
      ))}
      {stuck && <Stuck edit={edit} bench={bench} />}
    </TickLine>
  );
}

/** Why an edit does not apply any more, with both values where somebody else set another. */
function Stuck({ edit, bench }: { edit: EditLine; bench: Bench }) {
  return (
    <div className="mt-1 border-l-[3px] border-alarm pl-2">
      {edit.issues.map(({ message, values }, i) => (
        <p key={i}>
          <span className="text-alarm">{message}</span>
          {values && ` Yours is ${values.yours}; there now is ${values.theirs}.`}
        </p>
      ))}
      <button
        type="button"
        className="button mt-1"
        disabled={bench.busy}
        onClick={() => void bench.rebase(edit.id)}
      >
        Keep it on top
      </button>
    </div>
  );
}

function Draft({ draft, bench, clock }: { draft: DraftLine } & Pick<Props, 'bench' | 'clock'>) {
  const { entry, name, typeLabel, person, saved, path, live } = draft;
  const difference = live ? `newer draft of ${path ?? 'what is public'}` : 'not public so far';
  return (
    <TickLine
      tickKey={draftKey(entry)}
      label={name}
      bench={bench}
      note={`${draft.mine ? 'You' : person}, ${instantWords(saved, clock.zone, clock.now)} · ${typeLabel}, ${difference}`}
    >
      <ClockLink href={entryHref(entry)} className="font-medium">
        {name}
      </ClockLink>
    </TickLine>
  );
}
