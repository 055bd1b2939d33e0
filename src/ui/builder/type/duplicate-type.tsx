import { useState } from 'react';
import { duplicateStep } from '@/core/design-edit/duplicate.ts';
import type { Design } from '@/core/design/spec.ts';
import { freeKey, pluralOf, typeKeyOf } from '@/core/outline/names.ts';
import type { TypeDetail } from '@/server/queries/type.ts';
import { Dialog } from '@/ui/primitives/dialog.tsx';
import { newId } from '../design-steps.ts';
import { command } from '../send.ts';
import type { Attempts } from '../use-attempts.ts';
import { toldOnBench } from './told-on-bench.ts';

/** Makes another type like this one, on the bench. */
export function DuplicateType({
  detail: { spec, types, language },
  attempt,
}: {
  detail: TypeDetail;
  attempt: Attempts['attempt'];
}) {
  const [label, setLabel] = useState<string | null>(null);
  const name = label?.trim() ?? '';
  const make = async (): Promise<void> => {
    setLabel(null);
    const key = freeKey(typeKeyOf(name, language), new Set(types.map((t) => t.key)));
    const names = { id: newId(), key, label: name, plural: pluralOf(name, language) };
    const step = duplicateStep({ site: { language } } as Design, spec, names);
    await attempt(
      () => command('editDesign', { steps: [step] }),
      toldOnBench(attempt, { to: `/build/types/${key}`, from: `/build/types/${spec.key}` }),
    );
  };
  return (
    <>
      <button type="button" className="button-quiet" onClick={() => setLabel('')}>
        Make another like it …
      </button>
      <Dialog
        open={label !== null}
        onOpenChange={() => setLabel(null)}
        title={`Another type like ${spec.label}`}
      >
        <p className="mt-2">
          It begins with the same fields, rules and settings, and with automatic pages and cards.
        </p>
        <form
          className="mt-3 flex gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            if (name !== '') void make();
          }}
        >
          <input
            className="control"
            aria-label="Name of the new type"
            maxLength={200}
            value={label ?? ''}
            onChange={(e) => setLabel(e.target.value)}
          />
          <button type="submit" className="button button-main shrink-0" disabled={name === ''}>
            Make it on the bench
          </button>
        </form>
      </Dialog>
    </>
  );
}
