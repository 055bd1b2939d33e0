import Image from '@tiptap/extension-image';
import StarterKit from '@tiptap/starter-kit';
import { Extension } from '@tiptap/core';
import { TABLE } from './table.ts';

/** Lists keep whether their items stand apart: the page shows it. */
const Loose = Extension.create({
  name: 'loose',
  addGlobalAttributes: () => [
    {
      types: ['bulletList', 'orderedList'],
      attributes: { loose: { default: null, rendered: false } },
    },
  ],
});

/**
 * What rich text documents may hold, as the editor knows it: the nodes and marks of
 * `core/rich-text`.
 */
export const EXTENSIONS = [
  StarterKit.configure({ heading: { levels: [1, 2, 3, 4, 5, 6] }, link: { openOnClick: false } }),
  Loose,
  Image.configure({ inline: true }),
  ...TABLE,
];
