import { z } from 'zod';
import { defineBlock } from '../definition.ts';
import { classes, element } from '../html.ts';
import { valueKindOf } from '../../design/field-values.ts';
import type { Field } from '../../design/field.ts';
import { textFormOf } from '../../design/text-form.ts';
import type { EntryView, Values } from '../../design/values.ts';
import { type RichNode, namedIn } from '../../rich-text/index.ts';
import type { BlockCompiler, Render, RenderScope } from '../context.ts';
import { headingIds } from '../heading-ids.ts';
import { type TextDrawing, richTextHtml } from '../rich-text-html.ts';
import { storedText } from '../stored-text.ts';

/** A rich text field, with its form. */
export const richText = defineBlock({
  block: 'richText',
  label: 'Rich text',
  doc: 'A rich text field, with its form.',
  spec: {
    field: z.string(),
  },
  holds: { field: 'field' },
  compile: ({ field, style }, c) => {
    const bound = c.field(field, 'field', (f) => valueKindOf(f) === 'richtext', 'rich text');
    const attributes = classes('rich-text', style);
    const draw = bound ? textOf(bound.field, c, c.linkedTexts.has(field)) : () => '';
    return (scope) => {
      const owner = bound?.owner(scope);
      return owner ? element('div', attributes, draw(owner)) : '';
    };
  },
  example: {
    block: { block: 'richText', field: 'story' },
    html: '<div class="rich-text"><p>Once.</p></div>',
  },
});

/**
 * Draws a field's text with what it may hold, and nothing else; its headings with ids where links
 * lead to them.
 */
function textOf(field: Field, c: BlockCompiler, isLinked: boolean): Render {
  const form = textFormOf(field);
  const part = c.part();
  const styles = new Map(form.allStyles.map(({ id, key }) => [id, key]));
  const drawing: TextDrawing<RenderScope> = {
    topHeading: field.topHeading,
    pathOf: (id, scope) => scope.entry(id)?.path ?? null,
    entry: (id, scope) => drawn(scope.entry(id), part, scope),
    part: (id, values, scope) =>
      drawn(valuesAsEntry(c.typeOf(id), values, scope.own!), part, scope),
    style: (id) => styles.get(id),
  };
  return (scope) => {
    const doc = storedText(field, scope);
    if (!doc) return '';
    const named = entriesIn(doc);
    if (named.length > 0) scope.entries(named);
    const how = isLinked
      ? { ...drawing, headingId: headingIds(field.key, scope.language) }
      : drawing;
    return richTextHtml(doc, scope, how);
  };
}

/** By document: what is stored does not change. */
const NAMED = new WeakMap<RichNode, readonly string[]>();

/** Ids of the entries that a text names, so that they are read in one step. */
function entriesIn(doc: RichNode): readonly string[] {
  let named = NAMED.get(doc);
  if (!named) {
    named = namedIn(doc).flatMap(({ of, key }) => (of === 'entry' ? [key] : []));
    NAMED.set(doc, named);
  }
  return named;
}

function drawn(entry: EntryView | null, part: Render, scope: RenderScope): string {
  return entry ? part(scope.of(entry)) : '';
}

/** The values of a part as its card reads them: those of an entry that stands where its text does. */
function valuesAsEntry(
  type: EntryView['type'] | undefined,
  values: Values,
  own: EntryView,
): EntryView | null {
  return type
    ? { ...own, id: `${own.id}#${type.id}`, type, values, path: null, isPart: true }
    : null;
}
