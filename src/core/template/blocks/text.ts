import type { CompileBlock } from '../context.ts';
import { classes } from '../html.ts';

/** A paragraph made from a pattern; nothing where it is blank. */
export const text: CompileBlock<'text'> = ({ text: source, style }, c) => {
  const words = c.pattern(source, 'text');
  const open = `<p${style ? classes(style) : ''}>`;
  return (scope) => {
    const html = words(scope);
    return html === null ? '' : `${open}${html}</p>`;
  };
};
