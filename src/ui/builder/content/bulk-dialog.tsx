'use client';

import { useEffect, useState } from 'react';
import type { CommandInput } from '@/server/commands/index.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { ContentFilters } from '@/core/content/filters.ts';
import type { Issue } from '@/core/issue.ts';
import { Dialog } from '@/ui/primitives/dialog.tsx';
import { Issues } from '@/ui/primitives/issues.tsx';
import { counted, entryHref } from '../format.ts';
import { LongWork } from '../long-work.tsx';
import { command } from '../send.ts';
import { ClockLink } from '../shell/clock-link.tsx';
import type { BulkForm, BulkWhat } from './bulk-forms.tsx';
import { newJob } from '../use-attempts.ts';

/** What came of it, or would. */
export interface BulkResult {
  count: number;
  done: number;
  same: number;
  refused: {
    message: string;
    fix: string;
    count: number;
    entries: { id: string; name: string }[];
  }[];
  change: number | null;
}

interface Props {
  form: BulkForm;
  which: CommandInput<'changeEntries'>['which'];
  count: number;
  filters: ContentFilters;
  clock: Clock;
  onClose: () => void;
  onDone: (result: BulkResult) => void;
}

/** Asks what is to be done, says what would come of it, and does it. */
export function BulkDialog({ form, which, count, filters, clock, onClose, onDone }: Props) {
  const [what, setWhat] = useState<BulkWhat | null>(form.first ?? null);
  const bulk = useBulk(which);
  const { would, issues, work, look } = bulk;
  const stated = JSON.stringify(what);
  const isShown = would !== null && bulk.lookedAt === stated;
  useEffect(() => {
    if (form.first) look(form.first);
    // once, as the dialog opens
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  return (
    <Dialog
      open
      onOpenChange={onClose}
      title={`${form.label}: ${counted(count, 'entry', 'entries')}`}
    >
      <div className="mt-3">
        <form.Form {...{ filters, clock, what }} onChange={setWhat} />
      </div>
      <div className="mt-3 max-h-64 overflow-auto">
        <div role="status">{isShown && <Would would={would} />}</div>
        <Issues issues={issues} title="This cannot be done" />
        <LongWork work={work} />
      </div>
      <div className="mt-4 flex gap-2">
        {isShown && would.done > 0 ? (
          <button
            type="button"
            className="button button-main"
            disabled={work.busy}
            onClick={() => void bulk.go(what!, onDone)}
          >
            {form.verb(what!, clock, counted(would.done, 'entry', 'entries'))}
          </button>
        ) : (
          <button
            type="button"
            className="button button-main"
            disabled={what === null || work.busy || isShown}
            onClick={() => look(what!)}
          >
            {work.busy ? 'Working it out …' : 'See what would happen'}
          </button>
        )}
        <button type="button" className="button" onClick={onClose}>
          Leave them
        </button>
      </div>
    </Dialog>
  );
}

/** Looks what something would come to for the chosen entries, and does it. */
function useBulk(which: Props['which']) {
  const [would, setWould] = useState<BulkResult | null>(null);
  const [lookedAt, setLookedAt] = useState('');
  const [issues, setIssues] = useState<Issue[]>([]);
  const [work, setWork] = useState({ busy: false, job: '' });
  const send = async (what: BulkWhat, dry: boolean): Promise<BulkResult | null> => {
    const job = newJob();
    setWork({ busy: true, job });
    const result = await command('changeEntries', { what, which, dry }, job);
    setWork({ busy: false, job });
    setIssues(result.ok ? [] : result.issues);
    return result.ok ? result.value : null;
  };
  return {
    would,
    lookedAt,
    issues,
    work,
    look: (what: BulkWhat) =>
      void send(what, true).then((result) => {
        setWould(result);
        setLookedAt(JSON.stringify(what));
      }),
    go: async (what: BulkWhat, onDone: (result: BulkResult) => void) => {
      const result = await send(what, false);
      if (result) onDone(result);
      else setWould(null);
    },
  };
}

/** What would come of it: how many, and why others would be left as they are. */
function Would({ would: { done, same, refused } }: { would: BulkResult }) {
  return (
    <ul className="list-disc pl-5">
      <li>{`${counted(done, 'entry', 'entries')} would change.`}</li>
      {same > 0 && <li>{`In ${same.toLocaleString('en')} there is nothing to change.`}</li>}
      {refused.map(({ message, fix, count, entries }) => (
        <li key={message}>
          <span className="text-alarm">{`${count.toLocaleString('en')} would be left as they are: ${message}`}</span>{' '}
          <span className="text-muted">{fix}</span>{' '}
          {entries.map(({ id, name }, i) => (
            <span key={id}>
              {i > 0 && ', '}
              <ClockLink className="link underline" href={entryHref(id)}>
                {name}
              </ClockLink>
            </span>
          ))}
          {count > entries.length && ` and ${counted(count - entries.length, 'other')}`}
        </li>
      ))}
    </ul>
  );
}
