import { expect } from 'vitest';
import type { CommandInput, CommandName } from '@/server/commands/index.ts';
import { runCommand } from '@/server/commands/run.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { type Files, SITE, type TestSite, loadFiles } from './folder.ts';

const START = Date.parse('2026-07-01T12:00:00Z');
/** When its entries are loaded and its tests begin. */
export const NOW = START;
/** What the small site says in German. */
export const GERMAN = {
  key: 'de',
  texts: {
    site: { name: 'Saaten' },
    'types/seed': { address: '/sorten/{title}' },
    'listings/all': { label: 'Alle', address: '/alle', empty: 'Nichts da.' },
    'templates/frame/blocks/b2': { text: 'Von {site.name}' },
  },
};
/** A small site in English and German. */
export const FILES: Files = {
  'site.yaml': { ...SITE, name: 'Seeds', url: 'https://seeds.example', frame: 'frame' },
  'languages/de.json': GERMAN,
  'types/seed.json': {
    key: 'seed',
    address: '/seeds/{title}',
    fields: [
      { key: 'title', kind: 'text' },
      { key: 'about', kind: 'text' },
      { key: 'stock', kind: 'number' },
      { key: 'friend', kind: 'reference', types: ['seed'] },
    ],
  },
  'types/page.json': {
    key: 'page',
    address: '[{within.path}]/{title}',
    fields: [
      { key: 'title', kind: 'text' },
      { key: 'parent', kind: 'reference', types: ['page'], sitsWithin: true },
    ],
  },
  'listings/all.json': { key: 'all', type: 'seed', address: '/all', sort: ['title'] },
  'templates/frame.json': {
    key: 'frame',
    kind: 'frame',
    blocks: [
      { block: 'menu', menu: 'main' },
      { block: 'text', text: 'Of {site.name}' },
      { block: 'languageLinks' },
      { block: 'slot', slot: 'main' },
    ],
  },
  'templates/main.json': {
    key: 'main',
    kind: 'menu',
    blocks: [
      { block: 'menuListing', listing: 'all' },
      { block: 'menuLink', to: '/', text: 'Home' },
    ],
  },
  'entries/seed.json': [
    {
      entry: {
        id: 'pea',
        live: ['2026-01-01/', { from: '2026-02-01', language: 'de' }],
        languages: { de: { title: 'Erbse', about: 'Grün.' } },
      },
      ...{ title: 'Pea', about: 'Green.', stock: 3, friend: 'bean' },
    },
    { entry: { id: 'bean', live: '2026-01-01/' }, title: 'Bean', stock: 5 },
  ],
  'entries/page.json': [
    {
      entry: {
        id: 'about',
        live: ['2026-01-01/', { from: '2026-01-01', language: 'de' }],
        languages: { de: { title: 'Über uns' } },
      },
      title: 'About',
    },
    { entry: { id: 'team', live: '2026-01-01/' }, title: 'Team', parent: 'about' },
  ],
};

/** That site, with other files in it. */
export async function site(more: Files = {}): Promise<TestSite> {
  const loaded = await loadFiles({ ...FILES, ...more }, NOW - 1000);
  expect(loaded.result).toMatchObject({ ok: true });
  return loaded;
}

/** The wall clock; each command is a second later than the one before. */
export let wall = START;

/** Has a command carried out. */
export function run<N extends CommandName>(
  { connection }: TestSite,
  name: N,
  input: Partial<CommandInput<N>>,
) {
  return runCommand(connection, name, COMMAND_LINE, input, { wallClock: (wall += 1000) });
}

/** What a path answers as of an instant: its status, title and text, or where it leads. */
export function seen({ view }: TestSite, path: string, at = wall): string {
  const { status, meta, headers, body } = view.render(path, at)!;
  if (headers.location !== undefined) return `${status} ${headers.location}`;
  const main = /<main id="content">(.*)<\/main>/s.exec(body)?.[1] ?? '';
  return `${status} ${meta?.title ?? ''}: ${main
    .replaceAll(/<[^>]+>/g, ' ')
    .replaceAll(/\s+/g, ' ')
    .trim()}`;
}
