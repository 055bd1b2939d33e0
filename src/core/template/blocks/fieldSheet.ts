import type { CompileBlock } from '../context.ts';
import { classes, element } from '../html.ts';
import { escapeHtml } from '../../text.ts';

/** Fields with their labels; blank ones are left out. */
export const fieldSheet: CompileBlock<'fieldSheet'> = ({ fields, style }, c) => {
  const rows = fields.map((key, i) => {
    const field = c.type?.fields.find((f) => f.key === key);
    const words = c.pattern(`{${key}}`, `fields/${i + 1}`);
    return { label: escapeHtml(field?.label ?? key), words };
  });
  const attributes = classes('field-sheet', style);
  return (scope) => {
    let out = '';
    for (const { label, words } of rows) {
      const html = words(scope);
      if (html !== null) out += `<dt>${label}</dt><dd>${html}</dd>`;
    }
    return element('dl', attributes, out);
  };
};
