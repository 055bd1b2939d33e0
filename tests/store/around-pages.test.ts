import { describe, expect, test } from 'vitest';
import { templateOutcome } from '@/server/queries/template-outcome.ts';
import { type Files, SITE, type TestSite, at, loadFiles } from '../helpers/folder.ts';
import { countStatements } from '../helpers/count-statements.ts';
import { ANN } from '../helpers/seeds.ts';

const NOW = at('2026-07-01T12:00:00Z');
const live = { saved: '2026-01-01', live: '2026-01-01' };
const named = (id: string, title: string, more: object = {}): object => ({
  entry: { id, ...live, ...more },
  title,
});
const frame = (key: string, ...blocks: object[]): object => ({
  key,
  kind: 'frame',
  blocks: [...blocks, { block: 'slot', slot: 'main' }, { block: 'slot', slot: 'aside' }],
});
const pageBy = (key: string, words: string, more: object = {}): object => ({
  key,
  kind: 'page',
  type: 'boat',
  blocks: [{ block: 'text', text: words }],
  ...more,
});

const FILES: Files = {
  'site.yaml': { ...SITE, zone: 'UTC', frame: 'usual' },
  'types/boat.yaml': {
    key: 'boat',
    address: '/boats/{title}',
    template: 'plain',
    templates: ['fancy', 'third'],
    frame: 'wet',
    fields: [{ key: 'title', kind: 'text' }],
  },
  'types/page.yaml': {
    key: 'page',
    address: '/{title}',
    fields: [{ key: 'title', kind: 'text' }],
  },
  'listings/boats.yaml': { key: 'boats', type: 'boat', address: '/boats', frame: 'bare' },
  'picks/crew.yaml': { key: 'crew', members: ['gig', 'lost'] },
  'templates/usual.yaml': frame('usual', { block: 'menu', menu: 'main' }),
  'templates/wet.yaml': frame('wet', { block: 'text', text: 'On the water' }),
  'templates/bare.yaml': frame('bare', { block: 'text', text: 'In a list' }),
  'templates/plain.yaml': pageBy('plain', 'Plainly {title}', {
    slots: { aside: [{ block: 'text', text: 'Beside {title}' }] },
  }),
  'templates/fancy.yaml': pageBy('fancy', 'Fancily {title}', { id: 'of-old', label: 'Fancy page' }),
  'templates/third.yaml': pageBy('third', 'Thirdly {title}'),
  'templates/main.yaml': {
    key: 'main',
    label: 'Main',
    kind: 'menu',
    blocks: [
      { block: 'menuListing', listing: 'boats' },
      {
        block: 'menuEntry',
        entry: 'about',
        blocks: [
          { block: 'menuEntry', entry: 'visit', text: 'Come & visit' },
          { block: 'menuEntry', entry: 'soon' },
        ],
      },
      { block: 'menuHeading', text: 'Later', blocks: [{ block: 'menuEntry', entry: 'soon' }] },
      { block: 'menuEntry', entry: 'lost', blocks: [{ block: 'menuEntry', entry: 'visit' }] },
      { block: 'menuPicks', picks: 'crew' },
      { block: 'menuLink', to: 'https://tide.example/', text: 'Tides' },
    ],
  },
  'entries/boat.yaml': [
    named('gig', 'Gig', { presets: { template: 'of-old' } }),
    named('skiff', 'Skiff'),
    named('punt', 'Punt', { presets: { template: 'gone-by-now' } }),
    { entry: { id: 'lost', saved: '2026-01-01' }, title: 'Lost' },
  ],
  'entries/page.yaml': [
    named('about', 'About'),
    named('visit', 'Visit'),
    named('soon', 'Soon', { live: '2026-07-02T08:00:00Z' }),
  ],
};

const bodyOf = ({ view }: TestSite, path: string, instant = NOW): string =>
  /<a class="skip".*?<\/a>(.*)<\/body>/s.exec(view.render(path, instant)!.body)![1]!;
const siteOf = async (more: Files = {}): Promise<TestSite> => {
  const loaded = await loadFiles({ ...FILES, ...more }, NOW);
  expect(loaded.issues).toEqual([]);
  return loaded;
};

describe('a menu', () => {
  test('has what is live, as a tree; the page at hand is marked, and what it stands below', async () => {
    const site = await siteOf();
    expect(bodyOf(site, '/visit')).toContain(
      '<nav class="menu" aria-label="Main"><ul><li><a href="/boats">Boats</a></li><li><a href="/about">About</a><ul><li><a href="/visit" aria-current="page">Come &amp; visit</a></li></ul></li><li><a href="/boats/gig">Gig</a></li><li><a href="https://tide.example/">Tides</a></li></ul></nav>',
    );
  });

  test('has an entry from the instant at which it goes live, and its heading with it', async () => {
    const site = await siteOf();
    const { validUntil } = site.view.render('/about', NOW)!;
    expect(validUntil).toBe(at('2026-07-02T08:00:00Z'));
    expect(bodyOf(site, '/about', validUntil! - 1)).not.toContain('Soon');
    expect(bodyOf(site, '/about', validUntil!)).toContain(
      '<li><span>Later</span><ul><li><a href="/soon">Soon</a></li></ul></li>',
    );
  });

  test('reads its entries in one step, however many there are', async () => {
    const items = (count: number): object[] =>
      Array.from({ length: count }, (_, i) => ({ block: 'menuEntry', entry: `p${i}` }));
    const steps = async (count: number): Promise<number> => {
      const site = await siteOf({
        'templates/main.yaml': { key: 'main', kind: 'menu', blocks: items(count) },
        'entries/page.yaml': [
          named('about', 'About'),
          ...Array.from({ length: 40 }, (_, i) => named(`p${i}`, `Page ${i}`)),
        ],
      });
      return countStatements(site.connection, () => void site.view.render('/about', NOW));
    };
    expect(await steps(40)).toBe(await steps(2));
  });

  test.each([
    [{ block: 'text', text: 'Hi' }, 'wrong-place'],
    [{ block: 'menuListing', listing: 'none' }, 'unknown-listing'],
    [{ block: 'menuLink', to: 'javascript:x', text: 'Hi' }, 'wrong-form'],
    [{ block: 'menuEntry', entry: 'about', blocks: [{ block: 'slot', slot: 'x' }] }, 'wrong-place'],
  ])('refuses %j', async (block, code) => {
    const menu = { key: 'main', kind: 'menu', blocks: [block] };
    const { issues } = await loadFiles({ ...FILES, 'templates/main.yaml': menu }, NOW);
    expect(issues).toMatchObject([{ code }]);
  });

  test('that a block names and that is not there is told, with what there is', async () => {
    const usual = frame('usual', { block: 'menu', menu: 'mian' });
    const { issues } = await loadFiles({ ...FILES, 'templates/usual.yaml': usual }, NOW);
    expect(issues).toMatchObject([{ code: 'unknown-menu', fix: 'Did you mean "main"?' }]);
  });
});

describe('a frame', () => {
  test('is the type’s or the listing’s own, else the site’s; slots stand where it has them', async () => {
    const site = await siteOf();
    expect(bodyOf(site, '/boats/skiff')).toBe(
      '<p>On the water</p><main id="content"><p>Plainly Skiff</p></main><p>Beside Skiff</p>',
    );
    expect(bodyOf(site, '/boats')).toMatch(/^<p>In a list<\/p>/);
    for (const path of ['/about', '/nowhere', '/'])
      expect(bodyOf(site, path)).toMatch(/^<nav class="menu"/);
  });
});

describe('an entry’s own page template', () => {
  test('is drawn while its type offers it, and the trace says so', async () => {
    const site = await siteOf();
    expect(bodyOf(site, '/boats/gig')).toContain('<p>Fancily Gig</p>');
    expect(bodyOf(site, '/boats/punt')).toContain('<p>Plainly Punt</p>');
    const drawn = (path: string): string | null => site.view.trace(path, NOW)!.drawn;
    expect(drawn('/boats/gig')).toBe(
      'Drawn by the template “Fancy page”, which the entry has chosen, in the frame “Wet”.',
    );
    expect(drawn('/boats/punt')).toBe('Drawn by the template “Plain”, in the frame “Wet”.');
    expect(drawn('/about')).toBe('Drawn by its fields by themselves, in the frame “Usual”.');
    expect(drawn('/nowhere')).toBeNull();
    const type = { ...(FILES['types/boat.yaml'] as object), templates: ['third'] };
    expect(bodyOf(await siteOf({ 'types/boat.yaml': type }), '/boats/gig')).toContain(
      'Plainly Gig',
    );
  });

  test('of another type, or that is a card, is told where it is offered', async () => {
    const type = { ...(FILES['types/page.yaml'] as object), templates: ['plain', 'none'] };
    const { issues } = await loadFiles({ ...FILES, 'types/page.yaml': type }, NOW);
    expect(issues.map(({ code }) => code)).toEqual(['template-type', 'unknown-template']);
  });
});

describe('the Template screen', () => {
  test('says which value is blank where a block gives nothing, and what a repetition offers', async () => {
    const blocks = [
      { block: 'text', id: 'a', text: '[Built by {builder}]' },
      {
        block: 'condition',
        id: 'c',
        where: { field: 'title', op: 'is', value: 'x' },
        blocks: [{ block: 'text', id: 'd', text: 'Hi' }],
      },
      {
        block: 'repeat',
        id: 'r',
        over: 'friends',
        blocks: [{ block: 'text', id: 's', text: '{item.title}' }],
      },
    ];
    const boat = FILES['types/boat.yaml'] as { fields: object[] };
    const fields = [
      ...boat.fields,
      { key: 'builder', kind: 'text' },
      { key: 'photo', kind: 'media' },
      { key: 'friends', kind: 'reference', types: ['boat'], many: true },
    ];
    const { view } = await siteOf({
      'types/boat.yaml': { ...boat, fields },
      'templates/plain.yaml': { key: 'plain', kind: 'page', type: 'boat', blocks },
    });
    const looking = { at: NOW, past: false, seeing: 'published' as const };
    const given = { id: 'plain', steps: [], specimen: 'skiff' };
    const { why, items, stumbles } = templateOutcome(view, ANN, given, looking)!;
    expect(stumbles).toEqual(['No heading of level 1 says what the page is.']);
    expect(why).toMatchObject({
      a: '“builder” is blank here.',
      c: 'What it asks does not hold here, and nothing stands otherwise.',
      d: 'It stands in a condition that does not hold here.',
      r: 'Nothing: there is nothing in “friends”.',
    });
    expect(items.r!.type).toBe('boat');
    expect(items.r!.fields.picture!.field).toEqual(['item.photo']);
  });
});
