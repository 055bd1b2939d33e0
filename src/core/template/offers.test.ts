import { describe, expect, test } from 'vitest';
import { RICH_DESIGN } from '../../../tests/helpers/random-edits.ts';
import type { Block } from '../design/block.ts';
import { Environments } from '../design/environment.ts';
import { compileSite } from '../site/compile.ts';
import { BLOCKS } from './blocks/index.ts';
import { drawnByBlocks, marked } from './marks.ts';
import { type BlockOffer, blockOffers, fieldBlocks } from './offers.ts';
import { panelOf } from './panel.ts';

const design = RICH_DESIGN;
const environments = new Environments(design);
const type = design.types.find(({ key }) => key === 'seed')!;
const offersFor = (kind: 'page' | 'card' | 'frame', of?: string): BlockOffer[] =>
  blockOffers({ design, environments, template: { kind, type: of } });

/** What is wrong with a page of seeds that has one block. */
function wrongWith(block: Block): string[] {
  const page = { ...design.templates[0]!, id: 'x', key: 'x', kind: 'page' as const, type: 'seed' };
  const own = { ...page, blocks: [block], slots: {} };
  const types = design.types.map((t) => (t.id === type.id ? { ...t, template: 'x' } : t));
  const { issues } = compileSite({ ...design, types, templates: [...design.templates, own] });
  return issues.flatMap(({ path = '' }) => (path.startsWith('templates/x/') ? [path] : []));
}

describe('kinds of blocks as they are offered', () => {
  test('begin as something that has nothing wrong, where anything fits what they must have', () => {
    const offers = offersFor('page', 'seed');
    for (const { block, begun } of offers)
      if (begun) expect([block, wrongWith(begun)]).toEqual([block, []]);
    const none = offers.filter(({ begun }) => !begun).map(({ block }) => block);
    expect(none).not.toContain('heading');
    expect(none).toContain('slot');
    expect(offersFor('frame').find(({ block }) => block === 'slot')!.begun).not.toBeNull();
    expect(offersFor('frame').find(({ block }) => block === 'richText')!.begun).toBeNull();
  });

  test('can be bound to the fields that they compile with, and to no others', () => {
    let bound = 0;
    for (const { block, begun, fields } of offersFor('page', 'seed'))
      for (const [name, fitting] of Object.entries(fields))
        for (const { key } of type.fields) {
          if (!begun) continue;
          const wrong = wrongWith({ ...begun, [name]: key }).some((at) => at.endsWith(`/${name}`));
          expect([block, name, key, !wrong]).toEqual([block, name, key, fitting.includes(key)]);
          bound += fitting.includes(key) ? 1 : 0;
        }
    expect(bound).toBeGreaterThan(5);
  });

  test('have a control for each of their properties, that of what it holds', () => {
    for (const kind of BLOCKS) {
      const panel = panelOf(kind);
      const names = Object.keys(kind.spec.shape).filter((name) => !/^(block|id)$/.test(name));
      expect(panel.map(({ name }) => name)).toEqual(names);
      for (const [name, holds] of Object.entries(kind.holds))
        expect(panel.find((property) => property.name === name)!.control).toBe(holds);
    }
    const of = (block: string, name: string) =>
      panelOf(BLOCKS.find((kind) => kind.block === block)!).find((p) => p.name === name);
    expect(of('heading', 'level')).toMatchObject({
      control: 'number',
      min: 1,
      max: 6,
      otherwise: 2,
    });
    expect(of('group', 'as')).toMatchObject({ control: 'choice', otherwise: 'div' });
    expect(of('columns', 'columns')).toMatchObject({ control: 'blocks', many: true });
    expect(of('group', 'blocks')).toMatchObject({ control: 'blocks', many: false });
    expect(of('fieldSheet', 'fields')).toMatchObject({ many: true, required: true });
  });
});

test('every field of a type has a block that shows it and has nothing wrong', () => {
  const blocks = fieldBlocks(type);
  expect([...blocks.keys()].sort()).toEqual(type.fields.map(({ key }) => key).sort());
  for (const [key, block] of blocks) expect([key, wrongWith(block)]).toEqual([key, []]);
});

test('marks name what blocks draw, whatever their ids, and draw nothing where those do', () => {
  const scope = null as never;
  for (const id of ['b1', 'a--b', 'x-->y', 'ü "<b>']) {
    const html = marked(id, () => '<p>One</p>')(scope);
    expect(html.match(/-->/g)).toHaveLength(2);
    const outer = marked('outer', () => `${html}<p>Two</p>${html}`)(scope);
    expect(Object.fromEntries(drawnByBlocks(outer))).toEqual({
      [id]: '<p>One</p>',
      outer: '<p>One</p><p>Two</p><p>One</p>',
    });
  }
  expect(marked('b1', () => '')(scope)).toBe('');
  expect(marked('\ud800', () => 'x')(scope)).toContain('x');
});
