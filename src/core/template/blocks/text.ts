import type { CompileBlock } from '../context.ts';
import { classes, element } from '../html.ts';

/** A paragraph made from a pattern; nothing where it is blank. */
export const text: CompileBlock<'text'> = ({ text: source, style }, c) => {
  const words = c.pattern(source, 'text');
  const attributes = style ? classes(style) : '';
  return (scope) => element('p', attributes, words(scope) ?? '');
};
