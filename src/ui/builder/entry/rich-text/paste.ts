import { type Editor, getSchema } from '@tiptap/core';
import { DOMParser as ProseParser, Fragment, type Schema, Slice } from '@tiptap/pm/model';
import { type Removed, type RichNode, normalRichText, withinForm } from '@/core/rich-text/index.ts';
import type { TextOffer } from '@/server/queries/text-offer.ts';
import { extensionsFor } from './extensions.ts';
import { plainHtml } from './plain-html.ts';

/** Everything that texts know, whatever a field lets in. */
const ALL: Pick<TextOffer, 'marks' | 'blocks' | 'levels' | 'dark'> = {
  marks: null,
  blocks: null,
  levels: null,
  dark: [],
};

let everything: Schema | null = null;

/** What a text may hold, as the core asks it. */
export function formOf({ marks, blocks, levels, parts, styles }: TextOffer) {
  const set = <T>(list: readonly T[] | null): Set<T> | null => list && new Set(list);
  return {
    marks: set(marks),
    blocks: set(blocks),
    levels: set(levels),
    parts: new Set(parts.map(({ id }) => id)),
    styles: new Set(styles.map(({ id }) => id)),
  };
}

/**
 * What pasted HTML holds that a text may, with what it may not and what pages have no form for. It
 * is read as everything first, so that nothing goes without being said.
 */
export function readPasted(html: string, text: TextOffer): { doc: RichNode; removed: Removed[] } {
  everything ??= getSchema(extensionsFor(null, { ...text, ...ALL }));
  const { body, pictures } = plainHtml(html);
  const parsed = ProseParser.fromSchema(everything).parse(body, { preserveWhitespace: false });
  const whole = normalRichText(parsed.toJSON());
  const { doc, removed } = withinForm(whole, formOf(text));
  const foreign = pictures.map((words): Removed => ({
    ...{ what: 'Picture of another site', at: '', words },
    node: { type: 'paragraph', content: words === '' ? [] : [{ type: 'text', text: words }] },
  }));
  return { doc, removed: [...removed, ...foreign] };
}

/** Puts a document where the selection is: words go on in the line, blocks stand by themselves. */
export function insertDocument(editor: Editor, doc: RichNode): void {
  const nodes = (doc.content ?? []).map((block) => editor.schema.nodeFromJSON(block));
  const open = (block: RichNode | undefined): number => (block?.type === 'paragraph' ? 1 : 0);
  const slice = new Slice(Fragment.from(nodes), open(doc.content?.[0]), open(doc.content?.at(-1)));
  editor.view.dispatch(
    editor.state.tr.replaceSelection(slice).scrollIntoView().setMeta('uiEvent', 'paste'),
  );
}
