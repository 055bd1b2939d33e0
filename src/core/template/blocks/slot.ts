import type { CompileBlock } from '../context.ts';

/** The place in a frame where a page's blocks of that slot go. */
export const slot: CompileBlock<'slot'> =
  ({ slot: name }) =>
  (scope) =>
    name === 'main'
      ? `<main id="content">${scope.slots.main ?? ''}</main>`
      : (scope.slots[name] ?? '');
