'use client';

import { useState } from 'react';
import { tagOf } from '@/core/design/language-spec.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { LanguageLine, LanguagesDetail } from '@/server/queries/languages.ts';
import { Issues, SaidLine } from '@/ui/primitives/issues.tsx';
import { useDesignReadOnly } from '../../rights.tsx';
import { command } from '../../send.ts';
import { toldOnBench } from '../../type/told-on-bench.ts';
import { DesignTense } from '../../use-release.tsx';
import { type Attempts, useAttempts } from '../../use-attempts.ts';
import { AddLine } from '../add-line.tsx';
import { LanguageEditor } from './language-editor.tsx';

const HERE = '/build/settings/languages';

interface Props {
  detail: LanguagesDetail;
  clock: Clock;
  /** Key of the language that is open at first. */
  open: string | null;
}

/** The languages of the site, and what its design says in each. */
export function LanguagesScreen({ detail, clock, open: first }: Props) {
  const attempts = useAttempts();
  const readOnly = useDesignReadOnly(clock);
  const [open, setOpen] = useState(first);
  const { add, remove } = useLanguages(detail, attempts);
  return (
    <main data-area tabIndex={-1} className="min-h-0 flex-1 overflow-auto px-6 py-4">
      <h1>Languages</h1>
      <p className="text-muted">
        {`The site’s own language is ${detail.own.label} (${detail.own.language}). Entries say in further ones what their fields say in each language; those are written and published there apart.`}
      </p>
      <DesignTense clock={clock} changed={false} />
      <SaidLine said={attempts.said} />
      <Issues issues={attempts.issues} title="Not done" answers />
      <section aria-label="Further languages" className="mt-4">
        <h2 className="text-section font-semibold">Further languages</h2>
        <ul>
          {detail.languages.map((line) => (
            <li key={line.spec.id} className="border-t border-rule py-1.5">
              <LanguageHead
                {...{ line, detail, readOnly }}
                isOpen={open === line.spec.key}
                busy={attempts.busy}
                onOpen={() => setOpen(open === line.spec.key ? null : line.spec.key)}
                onRemove={() => void remove(line)}
              />
              {open === line.spec.key && <LanguageEditor {...{ line, detail, clock }} />}
            </li>
          ))}
        </ul>
        {detail.languages.length === 0 && (
          <p className="border-t border-rule py-3 text-muted">None so far.</p>
        )}
        {!readOnly && (
          <AddLine
            label="Tag of the new language"
            placeholder="Tag of a language, such as de, fr or pt-BR"
            button="Add it"
            busy={attempts.busy}
            onAdd={add}
          />
        )}
      </section>
    </main>
  );
}

/** One language, how much of the design it says, and what can be done with it. */
function LanguageHead({
  line: { spec, said },
  detail,
  isOpen,
  readOnly,
  busy,
  onOpen,
  onRemove,
}: {
  line: LanguageLine;
  detail: LanguagesDetail;
  isOpen: boolean;
  readOnly: boolean;
  busy: boolean;
  onOpen: () => void;
  onRemove: () => void;
}) {
  return (
    <div className="flex items-center gap-4">
      <button
        type="button"
        className="w-60 shrink-0 truncate text-left font-[550] hover:underline"
        aria-expanded={isOpen}
        onClick={onOpen}
      >
        {spec.label}
      </button>
      <span className="w-40 shrink-0 truncate font-mono text-table">{`/${spec.path}`}</span>
      <span className="min-w-0 flex-1 truncate text-muted">
        {`${said} of ${detail.count} texts of the design`}
      </span>
      {!readOnly && (
        <button
          type="button"
          className="button-quiet"
          aria-label={`Take away: ${spec.label}`}
          disabled={busy}
          onClick={onRemove}
        >
          Take away
        </button>
      )}
    </div>
  );
}

/** Has the site be in another language, or not any more, on the bench. */
function useLanguages({ languages }: LanguagesDetail, { attempt }: Attempts) {
  const told = toldOnBench(attempt, { to: HERE, from: HERE });
  const step = (one: object) => () => command('editDesign', { steps: [one as never] });
  return {
    add: (words: string): Promise<boolean> => {
      const language = tagOf(words.trim());
      if (language === null)
        return attempt(
          () =>
            Promise.resolve({
              ok: false as const,
              issues: [
                {
                  code: 'wrong-language',
                  message: `“${words.trim()}” is not a language tag.`,
                  fix: 'Write it as in BCP 47: “de” for German, “pt-BR” for Brazilian Portuguese.',
                },
              ],
            }),
          told,
        );
      // What is added again is the one that was there, with what entries say in it.
      const part = { id: language, key: language, language };
      const after = languages.at(-1)?.spec.id ?? null;
      return attempt(step({ do: 'add', within: '', list: 'languages', after, part }), told);
    },
    remove: ({ spec }: LanguageLine): Promise<boolean> => {
      const place = languages.findIndex((one) => one.spec.id === spec.id);
      const after = languages[place - 1]?.spec.id ?? null;
      const part = `languages/${spec.id}`;
      const removing = { do: 'remove', part, was: spec, within: '', list: 'languages', after };
      return attempt(step(removing), told);
    },
  };
}
