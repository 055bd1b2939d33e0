import type { CompileBlock } from '../context.ts';
import { classes } from '../html.ts';
import { isSafeLink } from '../../rich-text.ts';

/** A link to a path or address; only its words where the target is blank or of a scheme that links do not take. */
export const link: CompileBlock<'link'> = ({ to, text, style }, c) => {
  const target = c.pattern(to, 'to', 'attribute');
  const words = c.pattern(text, 'text');
  const attributes = style ? classes(style) : '';
  return (scope) => {
    const html = words(scope);
    if (html === null) return '';
    const href = target(scope)?.trim();
    if (href === undefined || !isSafeLink(href)) return `<span${attributes}>${html}</span>`;
    return `<a href="${href}"${attributes}>${html}</a>`;
  };
};
