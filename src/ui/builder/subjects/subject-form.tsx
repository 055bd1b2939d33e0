'use client';

import { useState } from 'react';
import type { Issue } from '@/core/issue.ts';
import type { SubjectChange } from '@/core/design/subject-change.ts';
import type { SubjectLine, SubjectsDetail } from '@/server/queries/subjects.ts';
import { Line } from '@/ui/primitives/line.tsx';
import { PictureControl } from '../entry/controls/picture.tsx';
import { useFurtherLanguages } from '../site-languages.ts';
import { TrialWords } from './trial-words.tsx';
import { WordsIn, saidBy } from './words-in.tsx';
import type { Change } from './use-change.ts';
import { useTrial } from './use-trial.ts';

type Words = Pick<SubjectLine, 'name' | 'slug' | 'description' | 'picture' | 'languages'>;

/** One subject: what it is called, its word in addresses, what it is about. */
export function SubjectForm({
  detail: { set },
  line,
  readOnly,
  busy,
  issues,
  change,
}: {
  detail: SubjectsDetail;
  line: SubjectLine;
  readOnly: boolean;
  busy: boolean;
  issues: Issue[];
  change: Change;
}) {
  const stored: Words = {
    name: line.name,
    slug: line.slug,
    description: line.description,
    picture: line.picture,
    languages: line.languages,
  };
  const further = useFurtherLanguages();
  const [words, setWords] = useState(stored);
  const put = (next: Partial<Words>): void => setWords({ ...words, ...next });
  const wanted = changeOf(line.key, stored, words);
  const trial = useTrial(set.id, readOnly ? null : wanted);
  const isWrong = (place: string): boolean =>
    [...issues, ...(trial?.issues ?? [])].some(({ path }) => path === place);
  return (
    <form
      aria-label={line.name}
      onSubmit={(event) => {
        event.preventDefault();
        if (wanted) void change(wanted);
      }}
    >
      <Lines {...{ words, readOnly }} onChange={put} isWrong={isWrong} />
      {further.map(({ tag, label }) => (
        <WordsIn
          key={tag}
          {...{ tag, label, words, readOnly }}
          isWrong={(place) => isWrong(`languages.${tag}.${place}`)}
          onChange={(said) => put({ languages: { ...words.languages, [tag]: said } })}
        />
      ))}
      {!readOnly && (
        <div className="mt-3 flex flex-col gap-3">
          {wanted && <TrialWords trial={trial} />}
          <div className="flex gap-2">
            <button
              type="submit"
              className="button button-main"
              disabled={busy || !wanted || !trial || trial.issues.length > 0}
            >
              Save now
            </button>
            {wanted && (
              <button type="button" className="button" onClick={() => setWords(stored)}>
                As it was
              </button>
            )}
          </div>
        </div>
      )}
    </form>
  );
}

function Lines({
  words,
  readOnly,
  isWrong,
  onChange,
}: {
  words: Words;
  readOnly: boolean;
  isWrong: (place: string) => boolean;
  onChange: (next: Partial<Words>) => void;
}) {
  return (
    <>
      <Line label="Name" htmlFor="subject-name">
        <input
          id="subject-name"
          className="control"
          value={words.name}
          maxLength={200}
          readOnly={readOnly}
          onChange={(e) => onChange({ name: e.target.value })}
        />
      </Line>
      <Line
        label="In addresses"
        htmlFor="subject-slug"
        help="Small letters, digits and hyphens. Addresses built on it move, and the old ones lead on."
      >
        <input
          id="subject-slug"
          className="control font-mono text-note"
          value={words.slug}
          maxLength={120}
          readOnly={readOnly}
          aria-invalid={isWrong('slug')}
          onChange={(e) => onChange({ slug: e.target.value })}
        />
      </Line>
      <Line label="Description" htmlFor="subject-description">
        <textarea
          id="subject-description"
          className="control min-h-20"
          value={words.description}
          maxLength={10_000}
          readOnly={readOnly}
          onChange={(e) => onChange({ description: e.target.value })}
        />
      </Line>
      <Line label="Picture" htmlFor="subject-picture">
        <PictureControl
          id="subject-picture"
          field={PICTURE}
          value={words.picture}
          readOnly={readOnly}
          onChange={(picture) => onChange({ picture: (picture as string | null) ?? null })}
        />
      </Line>
    </>
  );
}

/** What a picture control is told of the field it is for. */
const PICTURE = { many: false };

/** What differs from what is stored; null where nothing does, or no name is left. */
function changeOf(key: string, stored: Words, words: Words): SubjectChange | null {
  const name = words.name.trim();
  if (name === '') return null;
  const languages = saidBy(words.languages);
  const differs = {
    ...(name === stored.name ? {} : { name }),
    ...(words.slug === stored.slug ? {} : { slug: words.slug }),
    ...(words.description === stored.description ? {} : { description: words.description }),
    ...(words.picture === stored.picture ? {} : { picture: words.picture }),
    ...(JSON.stringify(languages) === JSON.stringify(stored.languages) ? {} : { languages }),
  };
  return Object.keys(differs).length === 0 ? null : { do: 'set', key, ...differs };
}
