'use client';

import { useState } from 'react';
import { freeKey, typeKeyOf } from '@/core/outline/names.ts';
import type { Part } from '@/core/design-edit/parts.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { TextFormLine, TextsDetail } from '@/server/queries/texts.ts';
import { Issues, SaidLine } from '@/ui/primitives/issues.tsx';
import { newId } from '../../design-steps.ts';
import { command } from '../../send.ts';
import { toldOnBench } from '../../type/told-on-bench.ts';
import { useDesignReadOnly } from '../../rights.tsx';
import { DesignTense } from '../../use-release.tsx';
import { type Attempts, useAttempts } from '../../use-attempts.ts';
import { AddLine } from './add-line.tsx';
import { FormEditor } from './form-editor.tsx';

const HERE = '/build/settings/texts';
const ON = { words: 'words', paragraph: 'paragraphs', picture: 'pictures' } as const;

interface Props {
  detail: TextsDetail;
  clock: Clock;
}

/** What rich texts may hold, by forms that fields choose, and the styles of the site. */
export function TextsScreen({ detail, clock }: Props) {
  const attempts = useAttempts();
  const readOnly = useDesignReadOnly(clock);
  return (
    <main data-area tabIndex={-1} className="min-h-0 flex-1 overflow-auto px-6 py-4">
      <h1>Texts</h1>
      <p className="text-muted">
        What rich texts may hold, as forms that fields choose; and the styles that words, paragraphs
        and pictures can have.
      </p>
      <DesignTense clock={clock} changed={false} />
      <SaidLine said={attempts.said} />
      <Issues issues={attempts.issues} title="Not done" answers />
      <Forms {...{ detail, clock, attempts, readOnly }} />
      <Styles {...{ detail, clock, attempts, readOnly }} />
    </main>
  );
}

type SectionProps = Props & { attempts: Attempts; readOnly: boolean };
type NewPart = Part & { id: string };

/** Adds a part to a list of the design, or takes one out, on the bench. */
function useList(list: 'textForms' | 'styles', { detail, attempts: { attempt } }: SectionProps) {
  const all: readonly { id: string; key: string }[] =
    list === 'styles' ? detail.styles : detail.forms;
  const told = toldOnBench(attempt, { to: HERE, from: HERE });
  return {
    add: (name: string, more: object): Promise<boolean> => {
      const key = freeKey(typeKeyOf(name, detail.language), new Set(all.map((one) => one.key)));
      const part = { id: newId(), key, label: name, ...more } as NewPart;
      const after = all.at(-1)?.id ?? null;
      const step = { do: 'add', within: '', list, after, part } as const;
      return attempt(() => command('editDesign', { steps: [step] }), told);
    },
    remove: (was: NewPart): Promise<boolean> => {
      const after = all[all.findIndex(({ id }) => id === was.id) - 1]?.id ?? null;
      const part = `${list}/${was.id}`;
      const step = { do: 'remove', part, was, within: '', list, after } as const;
      return attempt(() => command('editDesign', { steps: [step] }), told);
    },
  };
}

function Forms(props: SectionProps) {
  const { detail, clock, attempts, readOnly } = props;
  const [open, setOpen] = useState<string | null>(null);
  const { add, remove } = useList('textForms', props);
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
                  onClick={() => void remove(partOf(form))}
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
          onAdd={(name) => add(name, {})}
        />
      )}
    </section>
  );
}

/** A form as the design has it. */
function partOf({ fields: _, onBench: __, ...form }: TextFormLine): NewPart {
  return form as unknown as NewPart;
}

function Styles(props: SectionProps) {
  const { detail, attempts, readOnly } = props;
  const [on, setOn] = useState<keyof typeof ON>('words');
  const { add, remove } = useList('styles', props);
  return (
    <section aria-label="Styles" className="mt-8">
      <h2 className="text-section font-semibold">Styles</h2>
      <p className="mb-2 text-muted">
        The style sheet draws each under the name that stands beside it.
      </p>
      <ul>
        {detail.styles.map((style) => (
          <li key={style.id} className="flex items-center gap-4 border-t border-rule py-1.5">
            <span className="w-60 shrink-0 truncate font-[550]">{style.label}</span>
            <span className="w-32 text-muted">{`of ${ON[style.on]}`}</span>
            <code className="min-w-0 flex-1 truncate font-mono text-note">{`.style-${style.key}`}</code>
            {!readOnly && (
              <button
                type="button"
                className="button-quiet"
                aria-label={`Take away: ${style.label}`}
                disabled={attempts.busy}
                onClick={() => void remove(style as unknown as NewPart)}
              >
                Take away
              </button>
            )}
          </li>
        ))}
      </ul>
      {detail.styles.length === 0 && (
        <p className="border-t border-rule py-3 text-muted">None so far.</p>
      )}
      {!readOnly && (
        <AddLine
          label="Name of the new style"
          placeholder="New style, such as “Lead”"
          button="Add it"
          busy={attempts.busy}
          onAdd={(name) => add(name, { on })}
        >
          <select
            aria-label="What it is for"
            className="control !w-40"
            value={on}
            onChange={(e) => setOn(e.target.value as keyof typeof ON)}
          >
            {Object.entries(ON).map(([value, label]) => (
              <option key={value} value={value}>{`of ${label}`}</option>
            ))}
          </select>
        </AddLine>
      )}
    </section>
  );
}
