import { blocksWithin } from '../design/block-ids.ts';
import { expect, test } from 'vitest';
import { RICH_DESIGN } from '../../../tests/helpers/random-edits.ts';
import { viewOf } from '../../../tests/helpers/design.ts';
import { MemoryReader } from '../../../tests/helpers/memory-reader.ts';
import type { Design } from '../design/spec.ts';
import { compileSite } from '../site/compile.ts';
import { renderEntry } from '../site/render.ts';
import { BLOCKS } from '../template/blocks/index.ts';
import { type Edited, applyEdit } from './edit.ts';
import { type Part, partAt, partsBelow } from './parts.ts';

function rename(part: string, was: string, now: string, design = RICH_DESIGN): Edited {
  const done = applyEdit(design, { steps: [{ do: 'rename', part, was, now }] });
  if (!done.ok) throw new Error(JSON.stringify(done.issues));
  return done.value;
}

const seed = (design: Design) => design.types.find((t) => t.id === 'seed')!;

test('a field named anew is named so in every pattern, block, condition and order', () => {
  const { design } = rename('types/seed/fields/family', 'family', 'kin');
  expect(seed(design).address).toBe('/seeds/{kin}/{title}');
  expect(partAt(design, 'listings/now/conditions/c4')).toMatchObject({ field: 'kin' });
  expect(partAt(design, 'templates/seed-page/blocks/b5')).toMatchObject({
    fields: ['kin', 'grower.village'],
  });
  expect(seed(design).fields.find((f) => f.key === 'kin')!.id).toBe('family');
});

test('a field reached through a reference is named anew there, and only there', () => {
  const { design } = rename('types/grower/fields/village', 'village', 'town');
  expect(seed(design).seo.title).toBe('{title}[ from {grower.town}]');
  expect(JSON.stringify(design)).toContain('grower.town');
});

test('a condition of a listing names the fields that it reads through a reference and of the page', () => {
  const near = (design: Design): unknown[] =>
    ['c1', 'c2', 'c3'].map((id) => partAt(design, `listings/near/conditions/${id}`));
  expect(near(rename('types/grower/fields/village', 'village', 'town').design)).toContainEqual(
    expect.objectContaining({ field: 'grower.town' }),
  );
  expect(near(rename('types/seed/fields/grower', 'grower', 'by').design)).toContainEqual(
    expect.objectContaining({ field: 'by.village' }),
  );
  expect(near(rename('types/seed/fields/family', 'family', 'kin').design)).toContainEqual(
    expect.objectContaining({ field: 'kin', value: { page: 'kin' } }),
  );
});

test('a single type and its fields named anew are named so wherever patterns read its entry', () => {
  const { design } = rename('types/club-rules', 'club-rules', 'house-law');
  expect(JSON.stringify(design)).toContain('{site.houseLaw.motto}');
  expect(JSON.stringify(design)).toContain('{site.houseLaw.led.village}');
  const fields = rename('types/club-rules/fields/motto', 'motto', 'saying').design;
  expect(JSON.stringify(fields)).toContain('{site.clubRules.saying}');
});

test('types, sets and fields are named anew within groups and computed fields', () => {
  const grower = (design: Design) => design.types.find((t) => t.id === 'grower')!;
  const plots = (design: Design) => grower(design).fields.find((f) => f.id === 'plots')!;
  expect(plots(rename('types/seed', 'seed', 'variety').design).fields![0]!.types).toEqual([
    'variety',
  ]);
  expect(plots(rename('subjectSets/traits', 'traits', 'marks').design).fields![1]!.set).toBe(
    'marks',
  );
  const { pattern } = grower(
    rename('types/grower/fields/village', 'village', 'town').design,
  ).fields.find((f) => f.id === 'said')!;
  expect(pattern).toBe('{title}[ of {town}][, {plots.of.family}][, {plots.rows.long} m]');
  const beds = rename('types/grower/fields/plots', 'plots', 'beds').design;
  expect(grower(beds).fields.find((f) => f.id === 'said')!.pattern).toContain('{beds.of.family}');
});

test('fields within groups and their options are named anew wherever they are read', () => {
  const plots = 'types/grower/fields/plots';
  const said = (path: string, was: string): unknown =>
    partAt(rename(`${plots}/${path}`, was, 'other').design, 'types/grower/fields/said')!.pattern;
  expect(said('fields/of', 'of')).toContain('{plots.other.family}');
  expect(said('fields/rows', 'rows')).toContain('{plots.other.long}');
  expect(said('fields/rows/fields/long', 'long')).toContain('{plots.rows.other}');
  const { design: items } = rename('types/seed/fields/rowers/fields/seat', 'seat', 'place');
  expect(JSON.stringify(items)).toContain('"fields":["place","name"]');
  const { design } = rename(`${plots}/fields/soil/options/loam`, 'loam', 'sand');
  expect(partAt(design, `${plots}/fields/soil`)!.default).toBe('sand');
  expect(partAt(design, 'types/seed/fields/family')).toEqual(
    partAt(RICH_DESIGN, 'types/seed/fields/family'),
  );
});

test('a field of the same key of another type keeps its name', () => {
  const { design } = rename('types/seed/fields/title', 'title', 'name');
  expect(seed(design)).toMatchObject({ naming: 'name', address: '/seeds/{family}/{name}' });
  expect(design.types.find((t) => t.id === 'grower')!.address).toBe('/growers/{title}');
  expect(partAt(design, 'templates/seed-page/blocks/b6') ?? {}).not.toMatchObject({ text: 'name' });
});

test('the text around a name stays as it is written', () => {
  const before = structuredClone(RICH_DESIGN);
  seed(before).seo.title = '{{title}} [ {  limit( title ,  20 ) } ]{"title"}{entry.name}';
  const { design } = rename('types/seed/fields/title', 'title', 'name', before);
  expect(seed(design).seo.title).toBe(
    '{{title}} [ {  limit( name ,  20 ) } ]{"title"}{entry.name}',
  );
});

test('types, listings, templates and options are named anew wherever they are named', () => {
  const type = rename('types/seed', 'seed', 'plant').design;
  expect(type.listings.map((l) => l.type)).toEqual(['plant', 'plant', 'plant']);
  expect(type.templates.map((t) => t.type)).toEqual([undefined, 'plant', 'plant']);
  const listing = rename('listings/home', 'home', 'everything').design;
  expect([listing.site.front, seed(listing).retired]).toEqual([
    { listing: 'everything' },
    { listing: 'everything' },
  ]);
  const template = rename('templates/seed-card', 'seed-card', 'packet').design;
  expect([seed(template).card, template.listings[0]!.card]).toEqual(['packet', 'packet']);
  const option = rename('types/seed/fields/family/options/pea', 'pea', 'peas').design;
  expect(partAt(option, 'listings/now/conditions/c4')).toMatchObject({ value: ['peas', 'beet'] });
});

test('a key that is taken, reserved or of the wrong form is refused', () => {
  const codes = (part: string, was: string, now: string): string[] => {
    const done = applyEdit(RICH_DESIGN, { steps: [{ do: 'rename', part, was, now }] });
    return done.ok ? [] : done.issues.map(({ code }) => code);
  };
  expect(codes('types/seed/fields/sow', 'sow', 'title')).toContain('doubled-key');
  expect(codes('types/seed/fields/sow', 'sow', 'entry')).toEqual(['wrong-form']);
  expect(codes('types/seed', 'seed', 'Not a key')).toEqual(['wrong-form']);
  expect(codes('types/seed', 'other', 'plant')).toEqual(['changed-since']);
  expect(codes('redirects/r1', '', 'x')).toEqual(['no-key']);
});

test('whatever is named anew, pages stay as they are', () => {
  const keyed = ['types', 'listings', 'templates'].flatMap((list) =>
    (RICH_DESIGN[list as 'types'] as unknown as Part[]).flatMap((part) =>
      partsBelow(`${list}/${part.id}`, part).filter(([, { key }]) => key !== undefined),
    ),
  );
  const before = pageOf(RICH_DESIGN);
  for (const [path, { key }] of keyed) {
    const { design } = rename(path, key!, 'renamed');
    expect(pageOf(design), path).toBe(before);
  }
  expect(keyed.length).toBeGreaterThan(15);
});

test('a style of blocks is named anew where blocks have it', () => {
  const { design } = rename('styles/panel', 'panel', 'frame');
  const page = design.templates.find((t) => t.id === 'seed-page')!;
  expect([...blocksWithin(page.blocks)].map(({ style }) => style)).toContain('frame');
  expect(pageOf(design)).toContain('<div class="style-frame">');
  expect(compileSite(design).site.css).toContain('.style-frame { background: var(--raised); }');
});

function pageOf(design: Design): string {
  const { site } = compileSite(design);
  const [grower, plant] = [design.types[0]!, seed(design)];
  const entries = [
    viewOf(grower, 'g', { title: 'Ann', village: 'Cork' }),
    viewOf(plant, 's', { title: 'Blue', family: 'pea', grower: 'g', sow: '2026-03-01', stock: 3 }),
  ];
  return renderEntry(
    site,
    new MemoryReader(site, { entries }),
    entries[1]!,
    Date.parse('2026-06-01'),
  ).body;
}

test('every property of a block that names something says so', () => {
  for (const kind of BLOCKS)
    for (const property of Object.keys(kind.spec.shape)) {
      if (['block', 'id', 'style'].includes(property)) continue;
      const issues = ['{no_such}', 'no_such'].flatMap((text) => {
        const parsed = [text, [text], { field: text, op: 'blank' }]
          .map((value) => kind.spec.safeParse({ ...kind.example.block, [property]: value }))
          .find((p) => p.success);
        if (!parsed?.success) return [];
        const block = parsed.data as Part;
        return compileSite(withBlock(block, kind.in)).issues.filter(({ path = '' }) =>
          path.includes(`/blocks/1/${property}`),
        );
      });
      const names = issues.some(({ code }) => code.startsWith('unknown'));
      const isContent = kind.holds[property] === 'entry'; // looked for when a page is drawn
      const holds = Object.hasOwn(kind.holds, property) && !isContent;
      expect(holds, `${kind.block}.${property}`).toBe(names);
    }
});

function withBlock(block: Part, place?: 'frame' | 'menu'): Design {
  const design = structuredClone(RICH_DESIGN);
  if (place === 'menu') {
    const menu = { ...design.templates[0]!, key: 'menu', kind: place, blocks: [block as never] };
    return { ...design, templates: [...design.templates, menu] };
  }
  const template = design.templates.find((t) => t.id === 'seed-page')!;
  return { ...design, templates: [{ ...template, blocks: [block as never] }] };
}
