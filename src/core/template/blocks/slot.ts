import { z } from 'zod';
import { defineBlock } from '../definition.ts';

/** The place in a frame where a page's blocks of that slot go. */
export const slot = defineBlock({
  block: 'slot',
  label: 'Slot',
  doc: 'The place in a frame where a page’s blocks of that slot go.',
  in: 'frame',
  spec: {
    slot: z.string(),
  },
  compile:
    ({ slot: name }) =>
    (scope) =>
      name === 'main'
        ? `<main id="content">${scope.slots.main ?? ''}</main>`
        : (scope.slots[name] ?? ''),
  example: { block: { block: 'slot', slot: 'main' }, html: '<main id="content"></main>' },
});
