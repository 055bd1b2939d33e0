'use client';

import { useState } from 'react';
import type { RichNode } from '@/core/rich-text/index.ts';
import { ask } from '../../send.ts';
import { useAsked } from '../../use-asked.ts';
import type { TextWorld } from './text-world.ts';

/** A form in which a text is written as source. */
export type SourceForm = 'markdown' | 'json';

type ReadText = { doc: RichNode | null } | { faults: { at: string; words: string }[] };

interface Props {
  form: SourceForm;
  label: string;
  field: string;
  doc: unknown;
  world: TextWorld;
  onDone: (doc?: RichNode | null) => void;
}

/** What the forms are called. */
export const FORMS: Record<SourceForm, string> = { markdown: 'Markdown', json: 'JSON' };

/** A text as source: taken over as a whole, or not, with what is wrong and where. */
export function SourceView({ form, label, field, doc, world, onDone }: Props) {
  const [first] = useState(doc);
  const [source, setSource] = useState<string | null>(null);
  const [faults, setFaults] = useState<{ at: string; words: string }[]>([]);
  const [busy, setBusy] = useState(false);
  const place = { at: world.now, type: world.text.type, field };
  const { answer, problem } = useAsked<Record<SourceForm, string>>('textSource', {
    ...place,
    doc: first,
  });
  const shown = source ?? answer?.[form] ?? '';
  const take = async (): Promise<void> => {
    setBusy(true);
    const read = await ask<ReadText>('textRead', {
      ...{ ...place, before: first, form, source: shown },
    });
    setBusy(false);
    if ('problem' in read) setFaults([{ at: '', words: read.problem }]);
    else if ('faults' in read.value) setFaults(read.value.faults);
    else onDone(read.value.doc);
  };
  return (
    <div className="p-2">
      <textarea
        autoFocus
        spellCheck={form === 'markdown'}
        aria-label={`${label} as ${FORMS[form]}`}
        aria-invalid={faults.length > 0 || undefined}
        className="control font-mono !text-note"
        rows={14}
        disabled={answer === null}
        value={answer === null ? (problem ?? 'Writing it out …') : shown}
        onChange={(e) => setSource(e.target.value)}
      />
      {faults.length > 0 && (
        <div role="alert" className="mt-1 text-alarm">
          <ul>
            {faults.map(({ at, words }, i) => (
              <li key={i}>
                {at === '' || words.includes(`"${at}"`) ? words : `At ${at}: ${words}`}
              </li>
            ))}
          </ul>
        </div>
      )}
      <div className="mt-1 flex gap-2">
        <button
          type="button"
          className="button"
          disabled={busy || answer === null}
          onClick={() => void take()}
        >
          Take it over
        </button>
        <button type="button" className="button-quiet" onClick={() => onDone()}>
          Leave it as it was
        </button>
      </div>
    </div>
  );
}
