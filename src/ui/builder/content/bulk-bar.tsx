'use client';

import { useState } from 'react';
import type { Clock } from '@/server/queries/clock.ts';
import type { ContentFilters } from '@/core/content/filters.ts';
import type { CommandInput } from '@/server/commands/index.ts';
import { Issues, SaidLine } from '@/ui/primitives/issues.tsx';
import { Menu } from '@/ui/primitives/menu.tsx';
import { counted } from '../format.ts';
import { LongWork } from '../long-work.tsx';
import { BulkDialog } from './bulk-dialog.tsx';
import { BULK_FORMS, type BulkForm } from './bulk-forms.tsx';
import type { BulkChanges } from './use-bulk-changes.ts';
import type { Chosen } from './use-chosen.ts';

interface Props {
  chosen: Chosen;
  total: number;
  filters: ContentFilters;
  clock: Clock;
  bulk: BulkChanges;
}

/** What can be done with the chosen rows, and what came of the last that was done. */
export function BulkBar({ chosen, total, filters, clock, bulk }: Props) {
  const [form, setForm] = useState<BulkForm | null>(null);
  const { said, issues, work } = bulk;
  const which: CommandInput<'changeEntries'>['which'] = chosen.all
    ? { filters, at: clock.at, count: total }
    : { ids: [...chosen.ids] };
  const forms = BULK_FORMS.filter(({ needsType }) => !needsType || filters.type !== undefined);
  return (
    <div className="bulk-bar">
      {chosen.count > 0 && (
        <div className="flex flex-wrap items-center gap-3">
          <span className="font-medium tabular-nums">
            {`${counted(chosen.count, 'entry', 'entries')} chosen`}
          </span>
          {!chosen.all && chosen.count < total && (
            <button type="button" className="button-quiet" onClick={() => chosen.chooseAll(true)}>
              {`Choose all ${total.toLocaleString('en')} that match`}
            </button>
          )}
          <button type="button" className="button-quiet" onClick={() => chosen.chooseAll(false)}>
            Choose none
          </button>
          {clock.tense === 'past' ? (
            <span className="text-amber-text">
              The past stays as it was; go to now to change them.
            </span>
          ) : (
            <Menu
              label="Change them"
              items={forms.map((f) => ({ key: f.do, label: f.label, onPick: () => setForm(f) }))}
            />
          )}
        </div>
      )}
      <LongWork work={work} />
      <SaidLine said={said} />
      <Issues issues={issues} title="Not done" answers />
      {form && (
        <BulkDialog
          {...{ form, which, filters, clock }}
          count={chosen.count}
          onClose={() => setForm(null)}
          onDone={(result) => {
            setForm(null);
            bulk.tell(result, form.done);
            chosen.chooseAll(false);
          }}
        />
      )}
    </div>
  );
}
