import type { CommandInput, CommandName, CommandResult } from '@/server/commands/index.ts';
import { runCommand } from '@/server/commands/run.ts';
import { type Actor } from '@/server/permit.ts';
import { type Files, SITE, at, type TestSite, loadFiles } from './folder.ts';
import { entry } from './notes.ts';

/** Who asks. */
export const ANN: Actor = { id: 'ann', name: 'Ann', role: 'builder' };
/** As of when. */
export const NOW = at('2026-07-01T12:00:00Z');

/** A site of seeds and growers: live, planned, retired and drafts. */
export const FILES: Files = {
  'site.yaml': { ...SITE, language: 'en-IE' },
  'types/seed.json': {
    key: 'seed',
    label: 'Seed',
    plural: 'Seeds',
    address: '/seeds/{title}',
    summary: 'about',
    fields: [
      { key: 'title', kind: 'text', required: true },
      { key: 'about', kind: 'paragraphs' },
      { key: 'stock', kind: 'number', column: true },
      { key: 'sow', kind: 'date', column: true },
      { key: 'friend', kind: 'reference', types: ['seed', 'grower'] },
    ],
  },
  'types/grower.json': {
    key: 'grower',
    plural: 'Growers',
    address: '/growers/{title}',
    retired: { path: '/growers' },
    fields: [{ key: 'title', kind: 'text' }],
  },
  'listings/in-stock.json': {
    key: 'in-stock',
    label: 'In stock',
    type: 'seed',
    address: '/in-stock',
    where: {
      all: [
        { field: 'stock', op: 'more-than', value: 10 },
        { field: 'sow', op: 'on-or-before', value: 'today' },
      ],
    },
    sort: ['title'],
  },
  'redirects.yaml': [{ from: '/out', to: 'https://elsewhere.example/' }],
  'entries/seed.json': [
    entry('ecole', 'École', ['2026-06-30T08:00:00Z/'], {}, { stock: 12, sow: '2026-03-01' }),
    entry(
      'pea',
      'Pea, early',
      ['2026-01-01/'],
      {},
      { stock: 9, sow: '2026-03-01', friend: 'ines' },
    ),
    entry('kale', 'Kale', ['2026-07-02T08:00:00Z/'], {}, { stock: 20, sow: '2026-07-04' }),
    entry(
      'bean',
      'Bean',
      ['2026-01-01/2026-07-03T09:00:00Z'],
      {},
      { stock: 90, sow: '2026-08-01' },
    ),
    entry('lost', 'Lost', ['2026-01-01/2026-02-01']),
    entry('draft', 'Draft', [], { saved: '2026-06-20' }),
    entry('late', 'Late', [], { created: '2026-08-01', saved: '2026-06-25' }),
  ],
  'entries/grower.json': [entry('ines', 'Inés', ['2026-01-01/'])],
};
/** The site, loaded as of now. */
export const site = (files: Files = FILES): Promise<TestSite> => loadFiles(files, NOW);
/** The ids of rows, in their order. */
export const ids = (rows: { id: string }[]): string[] => rows.map((r) => r.id);

/** Runs commands on a site in somebody's name, a minute apart, from a while after `NOW` on. */
export function running({ connection }: TestSite, actor = ANN) {
  let wallClock = NOW;
  return <N extends CommandName>(name: N, input: CommandInput<N>): CommandResult<N> =>
    runCommand(connection, name, actor, input, { wallClock: (wallClock += 60_000) });
}

/** What a command gave. @throws Error where it was refused */
export function done<T>(result: { ok: true; value: T } | { ok: false; issues: unknown[] }): T {
  if (!result.ok) throw new Error(JSON.stringify(result.issues));
  return result.value;
}
