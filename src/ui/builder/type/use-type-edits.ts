import { useMemo } from 'react';
import type { Part } from '@/core/design-edit/parts.ts';
import { setKindOf } from '@/core/design/kinds/subjects.ts';
import { capital } from '@/core/outline/names.ts';
import type { TypeDetail } from '@/server/queries/type.ts';
import type { Steps } from '../design-steps.ts';
import { type Edits, useEdits } from '../use-edits.ts';

/** Unsaved changes of a type, with the subject sets that its fields name and that are to be made. */
export function useTypeEdits(detail: TypeDetail): Edits<TypeDetail['spec']> {
  const edits = useEdits(`types/${detail.spec.id}`, detail.spec);
  const { spec, steps: own } = edits;
  const steps = useMemo(
    () => (own.length === 0 ? own : [...newSets(spec, detail), ...own]),
    [spec, detail, own],
  );
  return { ...edits, steps };
}

function newSets(spec: TypeDetail['spec'], { sets }: TypeDetail): Steps {
  const known = new Set(sets.map(({ key }) => key));
  return spec.fields.flatMap(({ kind, set: key }) => {
    if (key === undefined || known.has(key)) return [];
    known.add(key);
    const part = { id: key, key, label: capital(key.replaceAll('-', ' ')), kind: setKindOf(kind) };
    const after = sets.at(-1)?.key ?? null;
    return [
      { do: 'add', within: '', list: 'subjectSets', after, part: part as Part & { id: string } },
    ];
  });
}
