import type { CompileBlock } from '../context.ts';
import { classes } from '../html.ts';

/** Blocks side by side; one under the other where the page is narrow. */
export const columns: CompileBlock<'columns'> = ({ columns: inner, style }, c) => {
  const all = inner.map((blocks, i) => c.blocks(blocks, `columns/${i + 1}`));
  const open = `<div${classes('columns', `columns-${inner.length}`, style)}>`;
  return (scope) => {
    const html = all.map((column) => column(scope));
    if (html.every((h) => h === '')) return '';
    return `${open}${html.map((h) => `<div class="column">${h}</div>`).join('')}</div>`;
  };
};
