'use client';

import type { Clock } from '@/server/queries/clock.ts';
import type { TypeLine, TypesDetail } from '@/server/queries/types.ts';
import { Issues, SaidLine } from '@/ui/primitives/issues.tsx';
import { Table, type TableColumn } from '@/ui/primitives/table.tsx';
import { counted, entriesCounted } from '../format.ts';
import { Panes } from '../panes.tsx';
import { ClockLink } from '../shell/clock-link.tsx';
import { DesignTense, useRelease } from '../use-release.tsx';
import { OutlineReadings } from './outline-readings.tsx';
import { StartingPoints } from './starting-points.tsx';
import { useOutline } from './use-outline.ts';

/** All content types, and the outline that makes several at once. */
export function TypesScreen({ detail, clock }: { detail: TypesDetail; clock: Clock }) {
  const outline = useOutline(detail);
  const { text, steps } = outline;
  const readOnly = clock.tense !== 'now';
  const { issues, said, buttons, panel } = useRelease({
    edits: {
      steps,
      changed: steps.length > 0,
      drop: () => outline.write(''),
      settle: () => outline.write(''),
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
      actions={buttons}
      settings={
        <div className="flex flex-col gap-3">
          <SaidLine said={said} />
          <Issues issues={issues} title="Not made" />
          {panel}
          <DesignTense clock={clock} changed={text !== ''} />
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
          <TypesTable types={detail.types} />
        </div>
      }
      outcome={
        <section aria-label="What is understood" className="min-h-0 flex-1 overflow-auto">
          <h2 className="px-6 pt-4">What is understood</h2>
          <OutlineReadings outline={outline} world={detail.world} readOnly={readOnly} />
        </section>
      }
    />
  );
}

const COLUMNS: TableColumn<TypeLine>[] = [
  {
    key: 'type',
    head: 'Type',
    className: 'font-[550]',
    cell: ({ key, label, description }) => (
      <ClockLink href={`/build/types/${key}`} className="text-ink hover:underline">
        <span title={description}>{label}</span>
      </ClockLink>
    ),
  },
  {
    key: 'address',
    head: 'Address',
    cell: ({ address, single }) =>
      address === null ? (
        <span className="text-muted">
          {single ? 'one entry, read everywhere' : 'no pages of its own'}
        </span>
      ) : (
        <span className="font-mono text-note break-all">{address}</span>
      ),
  },
  {
    key: 'fields',
    head: <span className="sr-only">Fields</span>,
    className: 'text-right whitespace-nowrap text-muted',
    cell: ({ fields }) => counted(fields, 'field'),
  },
  {
    key: 'entries',
    head: <span className="sr-only">Entries</span>,
    className: 'text-right whitespace-nowrap text-muted',
    cell: ({ entries }) => entriesCounted(entries),
  },
];

function TypesTable({ types }: { types: TypeLine[] }) {
  return (
    <section aria-label="Types">
      <Table label="Types" columns={COLUMNS} rows={types} keyOf={({ key }) => key} />
      {types.length === 0 && (
        <p className="border-t border-rule py-3 text-muted">
          No types yet. Write the first one above: its name, a colon, and what each of its entries
          holds.
        </p>
      )}
    </section>
  );
}
