'use client';

import { useState } from 'react';
import { freeKey, typeKeyOf } from '@/core/outline/names.ts';
import type { Block } from '@/core/design/block.ts';
import { CARD_SHAPES, type CardShape } from '@/core/template/automatic.ts';
import { copyOfBlock } from '@/core/template/block-tree.ts';
import type { Part } from '@/core/design-edit/parts.ts';
import type { Template } from '@/core/design/spec.ts';
import { isAroundPages } from '@/core/design/template-kind.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { TemplateLine, TemplatesDetail } from '@/server/queries/template.ts';
import { Issues, SaidLine } from '@/ui/primitives/issues.tsx';
import { Table, type TableColumn } from '@/ui/primitives/table.tsx';
import { newId } from '../design-steps.ts';
import { useDesignReadOnly } from '../rights.tsx';
import { command } from '../send.ts';
import { AddLine } from '../settings/add-line.tsx';
import { ClockLink } from '../shell/clock-link.tsx';
import { toldOnBench } from '../type/told-on-bench.ts';
import { useAttempts } from '../use-attempts.ts';
import { DesignTense } from '../use-release.tsx';

const KINDS: Record<Template['kind'], string> = {
  page: 'Page',
  card: 'Card',
  frame: 'Frame around pages',
  menu: 'Menu',
};

const SHAPES: Record<CardShape, string> = {
  packet: 'with its picture',
  line: 'one line',
  row: 'a row of a table',
};

const COLUMNS: TableColumn<TemplateLine>[] = [
  {
    key: 'name',
    head: 'Template',
    className: 'font-[550] whitespace-nowrap',
    cell: ({ key, label }) => (
      <ClockLink href={`/build/templates/${key}`} className="text-ink hover:underline">
        {label}
      </ClockLink>
    ),
  },
  { key: 'kind', head: 'What it draws', cell: ({ kind, type }) => kindWords(kind, type) },
  {
    key: 'uses',
    head: 'Chosen for',
    className: 'text-muted',
    cell: ({ uses }) => (uses.length === 0 ? 'nothing' : uses.map((u) => u.words).join(', ')),
  },
];

/** Types whose pages no template draws. */
function AutomaticPages({ types }: { types: TemplatesDetail['automatic'] }) {
  if (types.length === 0) return null;
  return (
    <p className="border-t border-rule py-2 text-muted">
      {'No template draws the pages of '}
      {types.map(({ key, label }, i) => (
        <span key={key}>
          {i > 0 && ', '}
          <ClockLink href={`/build/types/${key}`} className="underline">
            {label}
          </ClockLink>
        </span>
      ))}
      {': they are made from the fields.'}
    </p>
  );
}

/** All templates, each leading to its screen; new ones are made on the bench. */
export function TemplatesScreen({ detail, clock }: { detail: TemplatesDetail; clock: Clock }) {
  const { attempt, busy, said, issues } = useAttempts();
  const [what, setWhat] = useState<string>('page ');
  const readOnly = useDesignReadOnly(clock);
  const { templates, types, language } = detail;
  const make = (name: string): Promise<boolean> => {
    const key = freeKey(typeKeyOf(name, language), new Set(templates.map((t) => t.key)));
    const [kind, type, shape] = what.split(' ');
    const of = type ? { type } : {};
    const blocks = begun(
      kind as Template['kind'],
      types.find((one) => one.key === type),
      shape as CardShape | undefined,
    );
    const part = { id: newId(), key, label: name, kind, ...of, blocks, slots: {} };
    const after = templates.at(-1)?.id ?? null;
    const step = { do: 'add', within: '', list: 'templates', after, part } as const;
    return attempt(
      () =>
        command('editDesign', { steps: [step as typeof step & { part: Part & { id: string } }] }),
      toldOnBench(attempt, { to: `/build/templates/${key}`, from: '/build/templates' }),
    );
  };
  return (
    <main data-area tabIndex={-1} className="min-h-0 flex-1 overflow-auto px-6 py-4">
      <h1>Templates</h1>
      <p className="mb-3 text-muted">
        What pages, cards, the frame around them and its menus are made of. Where none is chosen,
        pages and cards are made from the fields by themselves.
      </p>
      <DesignTense clock={clock} changed={false} />
      <SaidLine said={said} />
      <Issues issues={issues} title="Not done" answers />
      <Table label="Templates" columns={COLUMNS} rows={templates} keyOf={({ id }) => id} />
      <AutomaticPages types={detail.automatic} />
      {templates.length === 0 && (
        <p className="border-t border-rule py-3 text-muted">
          None so far: every page and card is made from its fields by itself.
        </p>
      )}
      {!readOnly && (
        <AddLine
          label="Name of the new template"
          placeholder="New template, such as “Boat page”"
          button="Make it"
          busy={busy}
          onAdd={make}
        >
          <select
            className="control !w-52 shrink-0"
            aria-label="What it draws"
            value={what}
            onChange={(e) => setWhat(e.target.value)}
          >
            <option value="page ">Page of a listing</option>
            <option value="frame ">Frame around pages</option>
            <option value="menu ">Menu</option>
            {types.map(({ key, label }) => (
              <optgroup key={key} label={label}>
                <option value={`page ${key}`}>{`Page of ${label}`}</option>
                {CARD_SHAPES.map((shape) => (
                  <option key={shape} value={`card ${key} ${shape}`}>
                    {`Card of ${label}, ${SHAPES[shape]}`}
                  </option>
                ))}
              </optgroup>
            ))}
          </select>
        </AddLine>
      )}
    </main>
  );
}

function kindWords(kind: Template['kind'], type: string | null): string {
  if (isAroundPages(kind)) return KINDS[kind];
  return `${KINDS[kind]} of ${type ?? 'a listing'}`;
}

/** The blocks that a new template begins with: those that are made from the fields by themselves. */
function begun(
  kind: Template['kind'],
  type: TemplatesDetail['types'][number] | undefined,
  shape: CardShape = 'packet',
): Block[] {
  const slot: Block = { block: 'slot', slot: 'main' };
  const ofType = kind === 'page' ? type?.page : kind === 'card' ? type?.cards[shape] : [];
  const blocks = kind === 'frame' ? [slot] : (ofType ?? []);
  return blocks.map((block) => copyOfBlock(block, newId));
}
