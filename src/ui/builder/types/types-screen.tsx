'use client';

import type { Clock } from '@/server/queries/clock.ts';
import type { TypesDetail } from '@/server/queries/types.ts';
import { DesignFoot } from '../design-foot.tsx';
import { Panes } from '../panes.tsx';
import { useDesignReadOnly } from '../rights.tsx';
import { DesignTense, useRelease } from '../use-release.tsx';
import { OutlineReadings } from './outline-readings.tsx';
import { StartingPoints } from './starting-points.tsx';
import { TypesTable } from './types-table.tsx';
import { useOutline } from './use-outline.ts';
import { useShared } from './use-shared.ts';

/** All content types, and the outline that makes several at once. */
export function TypesScreen({ detail, clock }: { detail: TypesDetail; clock: Clock }) {
  const outline = useOutline(detail);
  const shared = useShared(detail.types);
  const { text } = outline;
  const steps = [...outline.steps, ...shared.steps];
  const drop = (): void => {
    outline.write('');
    shared.drop();
  };
  const readOnly = useDesignReadOnly(clock);
  const release = useRelease({
    edits: {
      steps,
      changed: steps.length > 0,
      drop,
      settle: drop,
      rebase: () => undefined,
    },
    allowed: !readOnly,
    clock,
  });
  return (
    <Panes
      problem={clock.problem}
      title="Types"
      lead="What kinds of content there are, and what each becomes."
      actions={release.buttons}
      settings={
        <div className="flex flex-col gap-3">
          <DesignTense clock={clock} changed={text !== '' || shared.steps.length > 0} />
          {!readOnly && (
            <div>
              <label htmlFor="outline" className="font-semibold">
                New types
              </label>
              <textarea
                id="outline"
                className="control mt-1 !h-auto min-h-24 w-full resize-y py-1.5"
                rows={Math.min(16, Math.max(4, text.split('\n').length + 1))}
                spellCheck={false}
                placeholder={
                  'Boat: name, built (number), crew (several → Person)\nPerson: name, photo'
                }
                value={text}
                onChange={(e) => outline.write(e.target.value)}
              />
              <StartingPoints
                onPick={(line) => outline.write(`${text.trimEnd()}\n${line}`.trimStart())}
              />
            </div>
          )}
          <TypesTable types={detail.types} shared={shared} readOnly={readOnly} />
        </div>
      }
      foot={<DesignFoot {...{ release, clock }} reach={null} />}
      outcome={
        <section aria-label="What is understood" className="min-h-0 flex-1 overflow-auto">
          <h2 className="px-6 pt-4">What is understood</h2>
          <OutlineReadings outline={outline} world={detail.world} readOnly={readOnly} />
        </section>
      }
    />
  );
}
