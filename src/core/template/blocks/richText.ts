import type { CompileBlock } from '../context.ts';
import { classes, element } from '../html.ts';
import { richTextHtml } from '../rich-text-html.ts';

/** A rich text field, with its form. */
export const richText: CompileBlock<'richText'> = ({ field, style }, c) => {
  const bound = c.field(field, 'field', ['richtext']);
  const attributes = classes('rich-text', style);
  return (scope) =>
    element('div', attributes, richTextHtml(scope.own?.values[bound?.id ?? ''], scope));
};
