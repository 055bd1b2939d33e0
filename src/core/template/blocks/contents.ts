import { z } from 'zod';
import { valueKindOf } from '../../design/field-values.ts';
import { escapeHtml } from '../../text.ts';
import { storedText } from '../stored-text.ts';
import { defineBlock } from '../definition.ts';
import { type HeadingLine, headingsOf } from '../heading-ids.ts';
import { classes } from '../html.ts';
import { wordsOf } from '../words.ts';

/** The headings of a rich text of this page, as links to them. */
export const contents = defineBlock({
  block: 'contents',
  label: 'Table of contents',
  doc: 'The headings of a rich text of this page, as links to them.',
  spec: {
    field: z.string(),
    /** With fewer headings than these it is left out. */
    atLeast: z.int().min(1).max(20).default(2),
    /** Words above it; those of the language where left out. */
    heading: z.string().optional(),
  },
  holds: { field: 'field' },
  compile: ({ field, atLeast, heading, style }, c) => {
    const bound = c.field(field, 'field', (f) => valueKindOf(f) === 'richtext', 'rich text');
    const open = `<nav${classes('contents', style)} aria-label="`;
    return (scope) => {
      const owner = bound?.owner(scope);
      const doc = owner && storedText(bound!.field, owner);
      if (!doc) return '';
      const lines = headingsOf(doc, bound!.field.key, scope.language);
      if (lines.length < atLeast) return '';
      const words = escapeHtml(heading ?? wordsOf(scope.language).onThisPage);
      return `${open}${words}"><h2>${words}</h2>${nested(lines)}</nav>`;
    };
  },
  example: {
    block: { block: 'contents', field: 'guide' },
    html: '<nav class="contents" aria-label="On this page"><h2>On this page</h2><ul><li><a href="#guide-sowing">Sowing</a><ul><li><a href="#guide-depth">Depth</a></li></ul></li><li><a href="#guide-picking">Picking</a></li></ul></nav>',
  },
});

/** Lists within lists, by the levels of the headings. */
function nested(lines: readonly HeadingLine[]): string {
  let out = '';
  for (let i = 0; i < lines.length;) {
    const { id, level, words } = lines[i]!;
    let end = i + 1;
    while (end < lines.length && lines[end]!.level > level) end++;
    const within = nested(lines.slice(i + 1, end));
    out += `<li><a href="#${escapeHtml(id)}">${escapeHtml(words)}</a>${within}</li>`;
    i = end;
  }
  return out === '' ? '' : `<ul>${out}</ul>`;
}
