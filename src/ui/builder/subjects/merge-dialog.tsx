import { useState } from 'react';
import type { SubjectLine } from '@/server/queries/subjects.ts';
import { Dialog } from '@/ui/primitives/dialog.tsx';
import { counted, entriesCounted } from '../format.ts';
import { SubjectPicker } from './subject-picker.tsx';
import { TrialWords } from './trial-words.tsx';
import type { Change } from './use-change.ts';
import { useTrial } from './use-trial.ts';

/** Makes one of several subjects: it is said first who follows and what moves. */
export function MergeDialog({
  set,
  lines,
  subjects,
  change,
  onClose,
}: {
  set: string;
  /** Those to be merged. */
  lines: SubjectLine[];
  subjects: readonly SubjectLine[];
  change: Change;
  onClose: (done: boolean) => void;
}) {
  const most = lines.length > 1 ? lines.toSorted((a, b) => b.used - a.used)[0]!.key : null;
  const [into, setInto] = useState<string | null>(most);
  const keys = lines.map(({ key }) => key).filter((key) => key !== into);
  const wanted = into !== null && keys.length > 0 ? { do: 'merge' as const, keys, into } : null;
  const trial = useTrial(set, wanted);
  const target = subjects.find(({ key }) => key === into);
  const going = lines.filter(({ key }) => key !== into);
  const used = going.reduce((sum, { own }) => sum + own, 0);
  const who = going.length === 1 ? going[0]!.name : counted(going.length, 'subject');
  return (
    <Dialog open onOpenChange={() => onClose(false)} title={`Merge ${who} into another`}>
      <div className="mt-3">
        <SubjectPicker label="Merge into" {...{ subjects }} value={into} onChange={setInto} />
      </div>
      {target && wanted && (
        <div className="mt-3 flex flex-col gap-2">
          <p>
            {`${going.map(({ name }) => name).join(', ')} ${going.length === 1 ? 'counts' : 'count'} as ${target.name} from now on: ${used === 0 ? 'no live entry has it' : `${entriesCounted(used)} follow${used === 1 ? 's' : ''} without being written`}. The past keeps the names it had.`}
          </p>
          <TrialWords trial={trial} />
        </div>
      )}
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
          {target ? `Merge into ${target.name}` : 'Merge'}
        </button>
        <button type="button" className="button" onClick={() => onClose(false)}>
          Keep them apart
        </button>
      </div>
    </Dialog>
  );
}
