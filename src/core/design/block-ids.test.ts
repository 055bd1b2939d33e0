import { expect, test } from 'vitest';
import { designOf, typeOf } from '../../../tests/helpers/design.ts';
import { Environments } from './environment.ts';
import { checkDesign } from '../site/check-design.ts';
import type { Block } from './block.ts';
import { withBlockIds } from './block-ids.ts';
import { designSpec } from './spec.ts';

const blocks: Block[] = [
  { block: 'heading', text: 'A', level: 1 },
  {
    block: 'group',
    blocks: [
      { block: 'text', text: 'B', id: 'b1' },
      { block: 'text', text: 'C' },
    ],
  },
];

test('every block gets an id, those that have one keep it', () => {
  expect(withBlockIds(blocks)).toEqual([
    { block: 'heading', text: 'A', level: 1, id: 'b2' },
    {
      block: 'group',
      id: 'b3',
      blocks: [
        { block: 'text', text: 'B', id: 'b1' },
        { block: 'text', text: 'C', id: 'b4' },
      ],
    },
  ]);
});

test('an id stays with its block when it is moved', () => {
  const [first, second] = withBlockIds(blocks);
  expect(withBlockIds([second, { block: 'text', text: 'New' }, first])).toMatchObject([
    { id: second!.id },
    { id: 'b5' },
    { id: first!.id },
  ]);
});

test('a design that is read has ids on all blocks, and read again has the same', () => {
  const parts = {
    types: [typeOf('note')],
    templates: [
      { key: 't', kind: 'page', type: 'note', blocks, slots: { side: blocks.slice(0, 1) } },
    ],
  };
  const design = designOf(parts);
  const [template] = design.templates;
  expect(template!.slots.side).toMatchObject([{ id: 'b5' }]);
  expect(designSpec.parse(structuredClone(design))).toEqual(design);
  expect(checkDesign(design, new Environments(design))).toEqual([]);
});

test('two blocks with one id are named', () => {
  const twice = [
    { block: 'text', text: 'A', id: 'x' },
    { block: 'group', blocks: [{ block: 'text', text: 'B', id: 'x' }] },
  ];
  const design = designOf({
    types: [typeOf('note')],
    templates: [{ key: 't', kind: 'page', type: 'note', blocks: twice }],
  });
  expect(checkDesign(design, new Environments(design))).toMatchObject([
    { code: 'doubled-id', path: 'templates/t/blocks' },
  ]);
});
