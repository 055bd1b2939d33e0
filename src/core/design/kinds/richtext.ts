import { ok } from '../../issue.ts';
import { one } from '../../pattern/types.ts';
import { checkRichText } from '../../rich-text.ts';
import { type FieldType, notA } from './definition.ts';

/** Text with form: a ProseMirror document. Markdown is read into one. */
export const richtext: FieldType = {
  kind: 'richtext',
  words: 'rich text',
  valueType: () => one('richtext'),
  parse: (raw, field, { markdown }) => {
    if (typeof raw === 'string') return ok(raw.trim() === '' ? null : markdown(raw));
    const wrong = checkRichText(raw);
    return wrong === null ? ok(raw) : notA(field, 'Markdown or a rich text document', raw, wrong);
  },
  family: 'presence',
  sortable: false,
};
