import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { describe, expect, test } from 'vitest';
import { BLOCKS } from '@/core/template/blocks/index.ts';
import { SiteView } from '@/server/queries/site-view.ts';
import { loadSite } from '@/server/commands/load-site.ts';
import { openDatabase } from '@/server/db/connection.ts';
import { readSite } from '@/server/files/read-site.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { SITE, at, temporaryFolder, writeFiles } from '../helpers/folder.ts';

const live = { saved: '2026-01-01', live: '2026-01-01' };
const DESIGN = {
  'site.yaml': { ...SITE, zone: 'UTC', frame: 'frame' },
  'languages/de.yaml': { key: 'de' },
  'subjects/traits.yaml': {
    key: 'traits',
    kind: 'tags',
    subjects: [{ key: 'early', name: 'Early' }],
  },
  'types/seed.yaml': {
    key: 'seed',
    address: '/seeds/{title}',
    template: 'page',
    card: 'card',
    presets: { author: true },
    fields: [
      { key: 'title', kind: 'text' },
      { key: 'story', kind: 'richtext' },
      { key: 'guide', kind: 'richtext' },
      { key: 'weight', kind: 'number' },
      { key: 'sow', kind: 'date' },
      { key: 'photo', kind: 'media' },
      { key: 'traits', kind: 'tags', set: 'traits' },
      { key: 'friends', kind: 'reference', types: ['seed'], many: true },
      { key: 'friend', kind: 'reference', types: ['seed'] },
      {
        key: 'rowers',
        kind: 'group',
        many: true,
        fields: [
          { key: 'name', kind: 'text' },
          { key: 'seat', kind: 'number' },
          { key: 'note', kind: 'text' },
        ],
      },
    ],
  },
  'listings/all.yaml': {
    key: 'all',
    type: 'seed',
    where: { field: 'title', op: 'is', value: 'nobody' },
    address: '/all',
    visitor: { search: ['title'] },
  },
  'listings/seeds.yaml': { key: 'seeds', type: 'seed', sort: ['title'] },
  'listings/early.yaml': {
    key: 'early',
    type: 'seed',
    address: '/early',
    where: { field: 'traits', op: 'is', value: 'early' },
  },
  'listings/years.yaml': { key: 'years', type: 'seed', address: '/years', each: { by: 'sow' } },
  'picks/favourites.yaml': { key: 'favourites', members: ['gone-by-now', 'red'] },
  'templates/main.yaml': {
    key: 'main',
    kind: 'menu',
    blocks: [
      { block: 'menuListing', listing: 'early' },
      { block: 'menuEntry', entry: 'gone-by-now' },
      { block: 'menuEntry', entry: 'blue' },
    ],
  },
  'templates/card.yaml': {
    key: 'card',
    kind: 'card',
    type: 'seed',
    blocks: [{ block: 'heading', text: '{title}', level: 3, link: true }],
  },
  'entries/seed.yaml': [
    {
      entry: { id: 'blue', author: 'Ann', ...live },
      title: 'Blue pea',
      story: 'Once.',
      guide: '## Sowing\n\nSoon.\n\n### Depth\n\nDeep.\n\n## Picking\n\nLate.',
      weight: 1250,
      sow: '2026-03-09',
      photo: 'pea.png',
      traits: ['early'],
      friends: ['red'],
      friend: 'red',
      rowers: [{ name: 'Ann', seat: 1 }, { name: 'Bo' }],
    },
    { entry: { id: 'red', ...live }, title: 'Red bean' },
    { entry: { id: 'gone-by-now' }, title: 'Never live' },
  ],
  'media/alt.yaml': {
    'pea.png': { alt: 'A pea', caption: 'In its pod', credit: 'Ines Carrow' },
  },
};

/** The page of Blue pea, drawn by one block; blocks of frames and menus are put into such. */
async function draw(block: object): Promise<string> {
  const kind = BLOCKS.find((k) => k.block === (block as { block: string }).block)!;
  const frames = kind.in !== undefined;
  const slot = { block: 'slot', slot: 'main' };
  const own = kind.in === 'menu' ? [slot, { block: 'menu', menu: 'own' }] : [block];
  const folder = writeFiles(temporaryFolder(), {
    ...DESIGN,
    'templates/frame.yaml': { key: 'frame', kind: 'frame', blocks: frames ? own : [slot] },
    ...(kind.in === 'menu'
      ? { 'templates/own.yaml': { key: 'own', kind: 'menu', blocks: [block] } }
      : {}),
    'templates/page.yaml': {
      key: 'page',
      kind: 'page',
      type: 'seed',
      blocks: frames ? [] : [block],
    },
  });
  const pea = sharp({ create: { width: 1280, height: 640, channels: 3, background: 'green' } });
  writeFileSync(join(folder, 'media/pea.png'), await pea.png().toBuffer());
  const now = at('2026-07-01T12:00:00Z');
  const { site, issues } = await readSite(folder, now);
  expect(issues).toEqual([]);
  const data = temporaryFolder();
  const connection = openDatabase(join(data, 'site.db'));
  try {
    expect(loadSite(connection, data, COMMAND_LINE, site!, now)).toMatchObject({ ok: true });
    const { body } = new SiteView(connection).render('/seeds/blue-pea', now)!;
    return body.replaceAll(/\/media\/[0-9a-f]{64}/g, '/media/ab');
  } finally {
    connection.close();
  }
}

describe.each(BLOCKS.map((kind) => [kind.block, kind] as const))('the block %s', (_, kind) => {
  test('draws its example as it says', async () => {
    expect(await draw(kind.example.block)).toContain(kind.example.html);
  });

  test('says what it shows, and refuses what it does not know', () => {
    expect([kind.label, kind.doc].every((words) => words.length > 3)).toBe(true);
    expect(kind.spec.safeParse({ ...kind.example.block, id: 'b1' }).success).toBe(true);
    expect(kind.spec.safeParse({ ...kind.example.block, smell: 'sweet' }).success).toBe(false);
  });
});

test('no two blocks share a name', () => {
  expect(new Set(BLOCKS.map((b) => b.block)).size).toBe(BLOCKS.length);
});
