import type { CompileBlock } from '../context.ts';
import { classes } from '../html.ts';
import { escapeHtml } from '../../text.ts';

/** A heading; with `link` it leads to the entry's page. */
export const heading: CompileBlock<'heading'> = ({ text, level, link, style }, c) => {
  const words = c.pattern(text, 'text');
  const open = `<h${level}${style ? classes(style) : ''}>`;
  const close = `</h${level}>`;
  return (scope) => {
    const html = words(scope);
    if (html === null) return '';
    const path = link && scope.own ? scope.pathOf(scope.own) : null;
    return open + (path === null ? html : `<a href="${escapeHtml(path)}">${html}</a>`) + close;
  };
};
