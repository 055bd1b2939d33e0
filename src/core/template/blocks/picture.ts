import type { CompileBlock } from '../context.ts';
import { classes } from '../html.ts';
import { escapeHtml } from '../../text.ts';
import { valuesOf } from '../../design/values.ts';

/** A picture of a media field, at a width in CSS px. */
export const picture: CompileBlock<'picture'> = ({ field, width, style }, c) => {
  const bound = c.field(field, 'field', ['media']);
  const open = `<figure${classes('picture', style)}>`;
  return (scope) => {
    const id = valuesOf(scope.own?.values ?? {}, bound?.id ?? '')[0];
    const found = id === undefined ? null : scope.picture(String(id), width);
    if (!found) return '';
    return `${open}<img src="${escapeHtml(found.src)}" srcset="${escapeHtml(found.srcset)}" alt="${escapeHtml(found.alt)}" width="${found.width}" height="${found.height}"></figure>`;
  };
};
