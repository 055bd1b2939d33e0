import { stablePath } from '@/core/site/pictures.ts';
import { type AnyExtension, Extension, Mark } from '@tiptap/core';
import Code from '@tiptap/extension-code';
import Image from '@tiptap/extension-image';
import Link from '@tiptap/extension-link';
import { Plugin } from '@tiptap/pm/state';
import { Decoration, DecorationSet } from '@tiptap/pm/view';
import StarterKit from '@tiptap/starter-kit';
import { BLOCK_CHOICES, MARK_CHOICES, nodesOf } from '@/core/rich-text/index.ts';
import type { TextOffer } from '@/server/queries/text-offer.ts';
import { EntryNode } from './entry-node.tsx';
import { PartNode } from './part-node.tsx';
import { TABLE } from './table.ts';

const LEVELS = [1, 2, 3, 4, 5, 6] as const;

/** Lists keep whether their items stand apart; blocks and pictures their style: pages show it. */
const Kept = Extension.create({
  name: 'kept',
  addGlobalAttributes: () => [
    {
      types: ['bulletList', 'orderedList'],
      attributes: { loose: { default: null, rendered: false } },
    },
    {
      types: ['paragraph', 'heading', 'image'],
      attributes: {
        style: {
          default: null,
          renderHTML: ({ style }) => (style ? { 'data-style': style as string } : {}),
          parseHTML: (element) => element.dataset.style ?? null,
        },
      },
    },
  ],
});

/** Leads to the toolbar by key from anywhere in the text. */
const ToToolbar = Extension.create({
  name: 'toToolbar',
  addKeyboardShortcuts: () => ({
    'Alt-F10': ({ editor }) => {
      const box = editor.view.dom.closest('.rich');
      box?.querySelector<HTMLElement>('[role=toolbar] button')?.focus();
      return true;
    },
  }),
});

/** Words of a named style of the site. */
const Styled = Mark.create({
  name: 'styled',
  excludes: '',
  addAttributes: () => ({
    style: {
      default: null,
      renderHTML: ({ style }) => ({ 'data-words-style': style as string }),
      parseHTML: (element) => element.dataset.wordsStyle ?? null,
    },
  }),
  parseHTML: () => [{ tag: 'span[data-words-style]' }],
  renderHTML: ({ HTMLAttributes }) => ['span', HTMLAttributes, 0],
});

/** Links to addresses, and to entries wherever their pages are. */
const EntryLink = Link.extend({
  addAttributes() {
    return {
      ...this.parent?.(),
      href: { default: null, parseHTML: (e: HTMLElement) => e.getAttribute('href') },
      entry: {
        default: null,
        renderHTML: ({ entry }: { entry?: string }) => (entry ? { 'data-to-entry': entry } : {}),
        parseHTML: (element: HTMLElement) => element.dataset.toEntry ?? null,
      },
    };
  },
  parseHTML: () => [{ tag: 'a[href]' }, { tag: 'a[data-to-entry]' }],
});

/** Pictures of the site's media, by the names they have below it. */
const pictures: AnyExtension = Image.extend({
  parseHTML: () => [
    {
      tag: 'img[data-media]',
      getAttrs: (element) => ({
        src: element.dataset.media,
        alt: element.dataset.alt === undefined ? null : element.getAttribute('alt'),
        title: element.getAttribute('title'),
      }),
    },
  ],
  renderHTML: ({ node: { attrs } }) => {
    const { src, alt, title, style } = attrs as Record<string, string | null>;
    const own = alt ? { 'data-alt': '' } : {};
    const more = {
      ...(title ? { title } : {}),
      ...(style ? { 'data-style': style } : {}),
      ...own,
    };
    const address = stablePath(src ?? '', 640);
    return ['img', { 'data-media': src, src: address, alt: alt || src, ...more }];
  },
}).configure({ inline: true });

/** Marks the links that lead to what is not live: on pages their words stand alone. */
const darkLinks = (dark: readonly string[]): Extension =>
  Extension.create({
    name: 'darkLinks',
    addProseMirrorPlugins: () => [
      new Plugin({
        props: {
          decorations: ({ doc }) => {
            const found: Decoration[] = [];
            doc.descendants((node, at) => {
              const link = node.marks.find(({ type }) => type.name === 'link');
              if (link && dark.includes(String(link.attrs.entry)))
                found.push(
                  Decoration.inline(at, at + node.nodeSize, {
                    class: 'dark-link',
                    title: 'Not live at this instant: on pages these words stand without a link.',
                  }),
                );
            });
            return DecorationSet.create(doc, found);
          },
        },
      }),
    ],
  });

/** Which marks and nodes an editor knows: those that may stand, and those that stand there. */
export function knownIn(doc: unknown, { marks, blocks, levels }: TextOffer) {
  const used = { marks: new Set<string>(), blocks: new Set<string>(), levels: new Set<number>() };
  for (const node of nodesOf(doc)) {
    used.blocks.add(node.type);
    if (node.type === 'heading') used.levels.add(Number(node.attrs?.level));
    for (const { type } of node.marks ?? []) used.marks.add(type);
  }
  return {
    mark: (type: string): boolean => !marks || marks.includes(type) || used.marks.has(type),
    block: (type: string): boolean => !blocks || blocks.includes(type) || used.blocks.has(type),
    levels: LEVELS.filter((level) => !levels || levels.includes(level) || used.levels.has(level)),
  };
}

/** What makes an editor another one: what stands in a text that may not, and what is not live. */
export function besides(doc: unknown, text: TextOffer): string {
  const [all, own] = [knownIn(doc, text), knownIn(null, text)];
  const more = [
    ...BLOCK_CHOICES.map(({ type }) => (all.block(type) === own.block(type) ? '' : type)),
    ...MARK_CHOICES.map(({ type }) => (all.mark(type) === own.mark(type) ? '' : type)),
    ...all.levels.filter((level) => !own.levels.includes(level)),
  ];
  return [...more, ...text.dark].filter((one) => one !== '').join(' ');
}

/**
 * What an editor of a text knows: the nodes and marks of `core/rich-text` that it may hold.
 */
export function extensionsFor(doc: unknown, text: TextOffer): AnyExtension[] {
  const { mark, block, levels } = knownIn(doc, text);
  const only = <T>(is: boolean, options: T): T | false => (is ? options : false);
  return [
    StarterKit.configure({
      bold: only(mark('bold'), {}),
      italic: only(mark('italic'), {}),
      strike: only(mark('strike'), {}),
      code: false,
      underline: only(mark('underline'), {}),
      heading: only(block('heading') && levels.length > 0, { levels: [...levels] }),
      blockquote: only(block('blockquote'), {}),
      bulletList: only(block('bulletList'), {}),
      orderedList: only(block('orderedList'), {}),
      listItem: only(block('bulletList') || block('orderedList'), {}),
      listKeymap: only(block('bulletList') || block('orderedList'), {}),
      codeBlock: only(block('codeBlock'), {}),
      horizontalRule: only(block('horizontalRule'), {}),
      link: false,
    }),
    ...(mark('code') ? [Code.extend({ excludes: '' })] : []),
    ...(mark('link') ? [EntryLink.configure({ openOnClick: false, autolink: false })] : []),
    Kept,
    ToToolbar,
    Styled,
    ...(block('image') ? [pictures] : []),
    ...(block('table') ? TABLE : []),
    PartNode,
    EntryNode,
    darkLinks(text.dark),
  ];
}
