import type { CompileBlock, Render } from '../context.ts';
import { classes } from '../html.ts';
import { escapeHtml } from '../../text.ts';

/** A heading; with `link` it leads to the entry's page. */
export const heading: CompileBlock<'heading'> = ({ text, level, link, style }, c) => {
  const words = c.pattern(text, 'text');
  const open = `<h${level}${style ? classes(style) : ''}>`;
  const close = `</h${level}>`;
  const plain: Render = (scope) => {
    const html = words(scope);
    return html === null ? '' : open + html + close;
  };
  if (!link) return plain;
  const openLink = `${open}<a href="`;
  const closeLink = `</a>${close}`;
  return (scope) => {
    const path = scope.own && scope.pathOf(scope.own);
    if (!path) return plain(scope);
    const html = words(scope);
    return html === null ? '' : openLink + escapeHtml(path) + '">' + html + closeLink;
  };
};
