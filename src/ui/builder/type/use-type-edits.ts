import { useMemo } from 'react';
import type { Part } from '@/core/design-edit/parts.ts';
import { setKindOf } from '@/core/design/kinds/subjects.ts';
import { capital, freeKey } from '@/core/outline/names.ts';
import { newType } from '@/core/outline/new-type.ts';
import type { TypeDetail } from '@/server/queries/type.ts';
import type { Steps } from '../design-steps.ts';
import { type Edits, useEdits } from '../use-edits.ts';

/**
 * Unsaved changes of a type, with the subject sets and types that its fields name and that are to be
 * made.
 */
export function useTypeEdits(detail: TypeDetail): Edits<TypeDetail['spec']> {
  const edits = useEdits(`types/${detail.spec.id}`, detail.spec);
  const { spec, steps: own } = edits;
  const steps = useMemo(
    () => (own.length === 0 ? own : [...newSets(spec, detail), ...newTypes(spec, detail), ...own]),
    [spec, detail, own],
  );
  return { ...edits, steps };
}

/** Types that references name and that are not there: each with a name, and an address. */
function newTypes(spec: TypeDetail['spec'], { types, takenTypes, language }: TypeDetail): Steps {
  const known = new Set(types.map(({ key }) => key));
  const wanted = new Set(
    spec.fields.flatMap((field) => field.types ?? []).filter((key) => !known.has(key)),
  );
  return [...wanted].map((key) => {
    const label = capital(key.replaceAll('-', ' '));
    const part = newType({ key, id: freeKey(key, new Set(takenTypes)), label, language });
    return { do: 'add', within: '', list: 'types', after: types.at(-1)?.key ?? null, part };
  });
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
