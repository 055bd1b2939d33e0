import { useState } from 'react';
import type { SubjectChange } from '@/core/design/subject-change.ts';
import type { SubjectLine } from '@/server/queries/subjects.ts';
import { Dialog } from '@/ui/primitives/dialog.tsx';
import { counted, entriesCounted } from '../format.ts';
import { SubjectPicker } from './subject-picker.tsx';
import { TrialWords } from './trial-words.tsx';
import type { Change } from './use-change.ts';
import { useTrial } from './use-trial.ts';

/** Deletes subjects, once it is said what they hold and where that goes. */
export function DeleteDialog({
  set,
  lines,
  subjects,
  change,
  onClose,
}: {
  set: string;
  lines: SubjectLine[];
  subjects: readonly SubjectLine[];
  change: Change;
  onClose: (done: boolean) => void;
}) {
  const [goesOn, setGoesOn] = useState(false);
  const [into, setInto] = useState<string | null>(null);
  const keys = lines.map(({ key }) => key);
  const wanted: SubjectChange | null = !goesOn
    ? { do: 'delete', keys }
    : into === null
      ? null
      : { do: 'merge', keys, into };
  const trial = useTrial(set, wanted);
  const who = lines.length === 1 ? lines[0]!.name : counted(lines.length, 'subject');
  return (
    <Dialog open onOpenChange={() => onClose(false)} title={`Delete ${who}?`}>
      <p className="mt-2">{holding(lines, subjects)}</p>
      <fieldset className="mt-3 flex flex-col gap-2">
        <legend className="sr-only">Where what it holds goes</legend>
        <label className="flex items-center gap-2">
          <input type="radio" checked={!goesOn} onChange={() => setGoesOn(false)} />
          Nothing takes its place; what stands below it moves up
        </label>
        <label className="flex items-center gap-2">
          <input type="radio" checked={goesOn} onChange={() => setGoesOn(true)} />
          Another one takes its place
        </label>
        {goesOn && (
          <SubjectPicker
            label="Which takes its place"
            subjects={subjects.filter(({ key }) => !keys.includes(key))}
            value={into}
            onChange={setInto}
          />
        )}
      </fieldset>
      <div className="mt-3">{wanted && <TrialWords trial={trial} />}</div>
      <p className="mt-2 text-muted">The past keeps it, and it can be undone.</p>
      <div className="mt-4 flex gap-2">
        <button
          type="button"
          className="button button-main"
          disabled={!wanted || !trial || trial.issues.length > 0}
          onClick={() => {
            onClose(true);
            if (wanted) void change(wanted);
          }}
        >
          Delete now
        </button>
        <button type="button" className="button" onClick={() => onClose(false)}>
          Keep
        </button>
      </div>
    </Dialog>
  );
}

/** "12 live entries have it; 3 subjects stand below it." */
function holding(lines: readonly SubjectLine[], subjects: readonly SubjectLine[]): string {
  const keys = new Set(lines.map(({ key }) => key));
  const own = lines.reduce((sum, line) => sum + line.own, 0);
  const below = subjects.filter(({ parent }) => parent !== null && keys.has(parent)).length;
  const drafts = own === 0 && lines.some(({ unused }) => !unused);
  const has = own === 1 ? 'has' : 'have';
  const it = lines.length === 1 ? 'it' : 'them';
  const entries =
    own > 0
      ? `${entriesCounted(own)} on the site ${has} ${it}`
      : drafts
        ? `Nothing on the site has ${it}; a draft or a planned entry does`
        : `No entry has ${it}`;
  const under =
    below > 0 ? `; ${counted(below, 'subject')} ${below === 1 ? 'stands' : 'stand'} below` : '';
  return `${entries}${under}.`;
}
