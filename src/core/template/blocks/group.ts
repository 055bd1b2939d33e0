import type { CompileBlock } from '../context.ts';
import { classes, element } from '../html.ts';
import { escapeHtml } from '../../text.ts';

/** Blocks in one element of their own; nothing where all are blank. */
export const group: CompileBlock<'group'> = ({ as, blocks, label, style }, c) => {
  const inner = c.blocks(blocks, 'blocks');
  const attributes =
    (style ? classes(style) : '') + (label ? ` aria-label="${escapeHtml(label)}"` : '');
  return (scope) => element(as, attributes, inner(scope));
};
