'use client';

import { useState } from 'react';
import type { Clock } from '@/server/queries/clock.ts';
import type { TextFormLine, TextsDetail } from '@/server/queries/texts.ts';
import { Issues, SaidLine } from '@/ui/primitives/issues.tsx';
import { ClockLink } from '../../shell/clock-link.tsx';
import { useDesignReadOnly } from '../../rights.tsx';
import { DesignTense } from '../../use-release.tsx';
import { type Attempts, useAttempts } from '../../use-attempts.ts';
import { AddLine } from '../add-line.tsx';
import { usePartList } from '../use-part-list.ts';
import { FormEditor } from './form-editor.tsx';

const HERE = '/build/settings/texts';

interface Props {
  detail: TextsDetail;
  clock: Clock;
}

/** What rich texts may hold, by forms that fields choose. */
export function TextsScreen({ detail, clock }: Props) {
  const attempts = useAttempts();
  const readOnly = useDesignReadOnly(clock);
  return (
    <main data-area tabIndex={-1} className="min-h-0 flex-1 overflow-auto px-6 py-4">
      <h1>Texts</h1>
      <p className="text-muted">
        What rich texts may hold, as forms that fields choose. The styles that words, paragraphs and
        pictures can have are made in{' '}
        <ClockLink href="/build/settings/style" className="underline">
          Style
        </ClockLink>
        .
      </p>
      <DesignTense clock={clock} changed={false} />
      <SaidLine said={attempts.said} />
      <Issues issues={attempts.issues} title="Not done" answers />
      <Forms {...{ detail, clock, attempts, readOnly }} />
    </main>
  );
}

type SectionProps = Props & { attempts: Attempts; readOnly: boolean };

function Forms(props: SectionProps) {
  const { detail, clock, attempts, readOnly } = props;
  const [open, setOpen] = useState<string | null>(null);
  const { add, remove } = usePartList(
    { list: 'textForms', parts: detail.forms.map(partOf), language: detail.language, here: HERE },
    attempts,
  );
  return (
    <section aria-label="Forms of texts" className="mt-4">
      <h2 className="text-section font-semibold">Forms of texts</h2>
      <ul>
        {detail.forms.map((form) => (
          <li key={form.id} className="border-t border-rule py-1.5">
            <div className="flex items-center gap-4">
              <button
                type="button"
                className="w-60 shrink-0 truncate text-left font-[550] hover:underline"
                aria-expanded={open === form.id}
                onClick={() => setOpen(open === form.id ? null : form.id)}
              >
                {form.label}
              </button>
              <span className="min-w-0 flex-1 truncate text-muted">
                {form.fields.length === 0 ? 'no field has it' : form.fields.join(', ')}
              </span>
              {!readOnly && form.fields.length === 0 && (
                <button
                  type="button"
                  className="button-quiet"
                  aria-label={`Take away: ${form.label}`}
                  disabled={attempts.busy}
                  onClick={() => void remove(form.id)}
                >
                  Take away
                </button>
              )}
            </div>
            {open === form.id && <FormEditor {...{ form, detail, clock }} />}
          </li>
        ))}
      </ul>
      {detail.forms.length === 0 && (
        <p className="border-t border-rule py-3 text-muted">
          None so far: every rich text may hold everything.
        </p>
      )}
      {!readOnly && (
        <AddLine
          label="Name of the new form"
          placeholder="New form, such as “Plain words”"
          button="Make it"
          busy={attempts.busy}
          onAdd={(name) => add(name)}
        />
      )}
    </section>
  );
}

/** A form as the design has it. */
function partOf({ fields: _, onBench: __, ...form }: TextFormLine) {
  return form;
}
