import { describe, expect, test } from 'vitest';
import { templateDetail, templatesDetail } from '@/server/queries/template.ts';
import { templateOutcome } from '@/server/queries/template-outcome.ts';
import { typeOutcome } from '@/server/queries/type.ts';
import { FILES, NOW, ANN, site } from '../helpers/seeds.ts';
import { SITE, type TestSite } from '../helpers/folder.ts';

const LOOKING = { at: NOW, past: false, seeing: 'published' as const };
const page = {
  key: 'seed-page',
  kind: 'page',
  type: 'seed',
  blocks: [
    { block: 'heading', text: '{title}', level: 1 },
    {
      block: 'columns',
      columns: [[{ block: 'text', text: '{about}' }], [{ block: 'fieldSheet', fields: ['sow'] }]],
    },
    { block: 'text', text: '[Friend of {friend}]' },
  ],
};
const seedSite = (): Promise<TestSite> =>
  site({
    ...FILES,
    'types/seed.json': { ...(FILES['types/seed.json'] as object), template: 'seed-page' },
    'templates/seed-page.json': page,
    'templates/other.json': { ...page, key: 'other', blocks: page.blocks.slice(0, 1) },
    'templates/card.json': { ...page, key: 'card', kind: 'card', blocks: page.blocks.slice(0, 1) },
    'templates/list.json': {
      key: 'list',
      kind: 'page',
      blocks: [{ block: 'listing', listing: 'in-stock' }],
    },
    'templates/frame.json': {
      key: 'frame',
      kind: 'frame',
      blocks: [{ block: 'slot', slot: 'main' }],
    },
  });
const unmarked = (html: string | null): string => (html ?? '').replace(/<!--.*?-->/g, '');
const outcome = ({ view }: TestSite, id: string, more: object = {}) =>
  templateOutcome(view, ANN, { id, steps: [], specimen: 'pea', ...more }, LOOKING)!;

test('breadcrumbs lead up by references and by categories, as far as what is above is live', async () => {
  const live = { saved: '2026-01-01', live: '2026-01-01' };
  const { view, issues } = await site({
    'site.yaml': SITE,
    'subjects/kinds.yaml': {
      key: 'kinds',
      kind: 'tree',
      subjects: [{ key: 'water', name: 'Water & wind', below: [{ key: 'row', name: 'Rowing' }] }],
    },
    'types/page.json': {
      key: 'page',
      address: '/{title}',
      template: 'page',
      fields: [
        { key: 'title', kind: 'text' },
        { key: 'above', kind: 'reference', types: ['page'] },
        { key: 'kind', kind: 'category', set: 'kinds' },
      ],
    },
    'listings/row.json': {
      key: 'row',
      type: 'page',
      address: '/rowing',
      where: { field: 'kind', op: 'is', value: 'row' },
    },
    'templates/page.json': {
      key: 'page',
      kind: 'page',
      type: 'page',
      blocks: [
        { block: 'breadcrumbs', field: 'above', home: 'Home' },
        { block: 'breadcrumbs', field: 'kind' },
      ],
    },
    'entries/page.json': [
      { entry: { id: 'a', ...live }, title: 'Top' },
      { entry: { id: 'b', ...live }, title: 'Mid <b>', above: 'a' },
      { entry: { id: 'c', ...live }, title: 'Low', above: 'b', kind: 'row' },
      { entry: { id: 'd', ...live, live: '2026-01-01/2026-02-01' }, title: 'Gone', above: 'a' },
      { entry: { id: 'e', ...live }, title: 'Stray', above: 'd' },
      { entry: { id: 'f', ...live }, title: 'Ring', above: 'f' },
    ],
  });
  expect(issues).toEqual([]);
  const crumbs = (path: string): string[] =>
    [...view.render(path, NOW)!.body.matchAll(/<nav class="breadcrumbs".*?<ol>(.*?)<\/ol>/g)].map(
      ([, list]) => list!.replace(/<\/li><li[^>]*>/g, ' / ').replace(/<\/?li[^>]*>/g, ''),
    );
  expect(crumbs('/low')).toEqual([
    '<a href="/">Home</a> / <a href="/top">Top</a> / <a href="/mid-b">Mid &lt;b&gt;</a> / Low',
    'Water &amp; wind / <a href="/rowing">Rowing</a> / Low',
  ]);
  for (const path of ['/top', '/stray', '/ring']) expect([path, crumbs(path)]).toEqual([path, []]);
});

describe('a template', () => {
  test('is shown as the real page, with what each block gives, and what no block reads', async () => {
    const seeds = await seedSite();
    const shown = outcome(seeds, 'seed-page');
    const type = { id: 'seed', steps: [], specimen: 'pea' };
    expect(unmarked(shown.html)).toBe(typeOutcome(seeds.view, ANN, type, LOOKING)!.page);
    expect(shown.shownFor).toBe('Pea, early');
    const { spec } = templateDetail(seeds.view, ANN, 'seed-page', LOOKING)!;
    const [heading, columns, friend] = spec.blocks.map(({ id }) => id!);
    expect(shown.drawn[heading!]).toBe('<h1>Pea, early</h1>');
    expect(shown.drawn[columns!]).toContain('<dt>Sow</dt>');
    expect(shown.drawn[friend!]).toBe('<p>Friend of Inés</p>');
    expect(shown.unused).toEqual(['stock']);
    const without = outcome(seeds, 'seed-page', { specimen: 'ecole' });
    expect(without.drawn).not.toHaveProperty(friend!);
  });

  test('is shown as if it were chosen, where it is not; so are cards, lists and frames', async () => {
    const seeds = await seedSite();
    expect(unmarked(outcome(seeds, 'other').html)).toContain('<h1>Pea, early</h1></main>');
    expect(unmarked(outcome(seeds, 'card').html)).toBe(
      '<ul class="cards"><li><h1>Pea, early</h1></li></ul>',
    );
    expect(outcome(seeds, 'list', { specimen: null })).toMatchObject({ shownFor: '/in-stock' });
    const frame = outcome(seeds, 'frame', { specimen: null });
    expect(frame.shownFor).toBe('/');
    expect(unmarked(frame.html)).not.toContain('site-header');
  });

  test('with unsaved blocks is shown with them; what is wrong is told by its place', async () => {
    const seeds = await seedSite();
    const { spec } = templateDetail(seeds.view, ANN, 'seed-page', LOOKING)!;
    const part = `templates/seed-page/blocks/${spec.blocks[0]!.id}`;
    const set = (now: string) => ({
      steps: [{ do: 'set', part, property: 'text', was: '{title}', now }],
    });
    expect(unmarked(outcome(seeds, 'seed-page', set('Of {title}')).html)).toContain('>Of Pea');
    const { issues } = outcome(seeds, 'seed-page', set('{titel}'));
    expect(issues).toMatchObject([{ path: 'templates/seed-page/blocks/1/text' }]);
  });

  test('leads to what it is chosen for', async () => {
    const seeds = await seedSite();
    const { templates, types, automatic } = templatesDetail(seeds.view, ANN, LOOKING)!;
    expect(automatic).toEqual([{ key: 'grower', label: 'Growers' }]);
    const uses = Object.fromEntries(templates.map((t) => [t.key, t.uses.map((u) => u.words)]));
    expect(uses).toMatchObject({ 'seed-page': ['Seed'], other: [], card: [] });
    const detail = (key: string) => templateDetail(seeds.view, ANN, key, LOOKING)!;
    expect(detail('seed-page')).toMatchObject({ choosing: [], removal: null });
    expect(detail('other').removal).toMatchObject({ do: 'remove', part: 'templates/other' });
    expect(detail('other').choosing).toMatchObject([{ part: 'types/seed', now: 'other' }]);
    expect(types.find(({ key }) => key === 'seed')!.page[0]).toMatchObject({ block: 'heading' });
  });
});
