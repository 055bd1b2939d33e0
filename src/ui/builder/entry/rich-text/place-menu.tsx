'use client';

import type { Editor } from '@tiptap/core';
import type { TextOffer } from '@/server/queries/text-offer.ts';
import { Menu } from '@/ui/primitives/menu.tsx';

const LOOKS = 'h-7 px-2 hover:bg-hover';

/** Places a part of one of the types that the text lets in. */
export function PlaceMenu({ editor, parts }: { editor: Editor; parts: TextOffer['parts'] }) {
  if (parts.length === 0) return null;
  const items = parts.map(({ id, label, description }) => ({
    key: id,
    label,
    note: description,
    onPick: () =>
      // The menu gives the focus back first.
      setTimeout(() =>
        editor
          .chain()
          .insertContent({ type: 'part', attrs: { type: id, values: {}, fresh: true } })
          .run(),
      ),
  }));
  return <Menu label="Part" className={LOOKS} inToolbar items={items} />;
}

/** Gives the selected words, paragraphs or picture one of the site's styles, or takes it away. */
export function StyleMenus({ editor, styles }: { editor: Editor; styles: TextOffer['styles'] }) {
  if (styles.length === 0) return null;
  const items = styles.map(({ id, label, on }) => ({
    key: id,
    label,
    note: NOTES[on],
    onPick: () => setTimeout(() => give(editor, id, on)),
  }));
  return (
    <Menu
      label="Style"
      className={LOOKS}
      inToolbar
      items={[...items, { key: '', label: 'None', onPick: () => setTimeout(() => none(editor)) }]}
    />
  );
}

const NOTES = {
  words: 'the selected words',
  paragraph: 'the paragraphs at hand',
  picture: 'the selected picture',
} as const;

function give(editor: Editor, style: string, on: keyof typeof NOTES): void {
  const chain = editor.chain().focus();
  if (on === 'words') chain.setMark('styled', { style }).run();
  else if (on === 'picture') chain.updateAttributes('image', { style }).run();
  else chain.updateAttributes('paragraph', { style }).updateAttributes('heading', { style }).run();
}

function none(editor: Editor): void {
  const chain = editor.chain().focus().unsetMark('styled');
  for (const type of ['paragraph', 'heading', 'image']) chain.resetAttributes(type, 'style');
  chain.run();
}
