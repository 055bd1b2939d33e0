'use client';

import { useState } from 'react';
import { nearNames } from '@/core/outline/near-names.ts';
import type { SubjectsDetail } from '@/server/queries/subjects.ts';
import { Line } from '@/ui/primitives/line.tsx';
import { counted } from '../format.ts';
import { command } from '../send.ts';
import type { Attempts } from '../use-attempts.ts';

/** Adds one subject or several, with commas between them. */
export function AddSubjects({
  detail: { set, subjects, language },
  busy,
  attempt,
}: {
  detail: SubjectsDetail;
  busy: boolean;
  attempt: Attempts['attempt'];
}) {
  const [text, setText] = useState('');
  const [parent, setParent] = useState('');
  const names = text
    .split(/[,\n]/)
    .map((name) => name.trim())
    .filter((name) => name !== '');
  const near = names.flatMap((name) => {
    const [one] = nearNames(name, subjects, language);
    return one ? [{ name, one }] : [];
  });
  const add = async (): Promise<void> => {
    if (names.length === 0) return;
    const done = await attempt(
      () => command('addSubjects', { set: set.id, names, parent: parent || null }),
      ({ added }) => ({ words: `${counted(added.length, 'subject')} added.` }),
    );
    if (done) setText('');
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void add();
      }}
    >
      <Line label="Add" htmlFor="new-subjects" help="Several with commas between them.">
        <div className="flex gap-2">
          <input
            id="new-subjects"
            className="control"
            value={text}
            maxLength={2000}
            onChange={(e) => setText(e.target.value)}
          />
          <button
            type="submit"
            className="button button-main"
            disabled={busy || names.length === 0}
          >
            Add
          </button>
        </div>
      </Line>
      {set.kind === 'tree' && <Below {...{ subjects, parent }} onChange={setParent} />}
      <div role="status">
        {near.map(({ name, one }) => (
          <p key={name} className="text-muted">
            {one.name.toLowerCase() === name.toLowerCase()
              ? `“${one.name}” is there already.`
              : `“${name}” is near “${one.name}”, which is there.`}
          </p>
        ))}
      </div>
    </form>
  );
}

/** Which category new ones stand below. */
function Below({
  subjects,
  parent,
  onChange,
}: Pick<SubjectsDetail, 'subjects'> & { parent: string; onChange: (key: string) => void }) {
  return (
    <Line label="Below" htmlFor="new-parent">
      <select
        id="new-parent"
        className="control"
        value={parent}
        onChange={(e) => onChange(e.target.value)}
      >
        <option value="">At the top</option>
        {subjects.map(({ key, name, depth }) => (
          <option key={key} value={key}>
            {`${'– '.repeat(depth)}${name}`}
          </option>
        ))}
      </select>
    </Line>
  );
}
