import type { BlockContent, PhrasingContent, Root, RootContent, TableCell } from 'mdast';
import { gfmStrikethroughToMarkdown } from 'mdast-util-gfm-strikethrough';
import { gfmTableToMarkdown } from 'mdast-util-gfm-table';
import { type Options, toMarkdown } from 'mdast-util-to-markdown';
import type { RichMark, RichNode } from '@/core/rich-text.ts';
import { type MarkdownWorld, markdownToRichText } from './markdown.ts';

const OPTIONS: Options = {
  bullet: '-',
  rule: '-',
  resourceLink: true,
  extensions: [gfmTableToMarkdown({ tablePipeAlign: false }), gfmStrikethroughToMarkdown()],
};

/** A rich text document as Markdown that reads as the same document; null where none does. */
export function richTextToMarkdown(doc: RichNode, world: MarkdownWorld = {}): string | null {
  try {
    const root: Root = { type: 'root', children: blocks(doc.content ?? []) as RootContent[] };
    const text = toMarkdown(root, OPTIONS);
    return isSame(markdownToRichText(text, world), doc) ? text : null;
  } catch {
    return null; // what Markdown has no words for, or too much of
  }
}

function isSame(a: RichNode, b: RichNode): boolean {
  return JSON.stringify(a) === JSON.stringify(b);
}

function blocks(nodes: readonly RichNode[]): BlockContent[] {
  return nodes.map(block);
}

const WRITTEN: Record<string, (node: RichNode) => object> = {
  paragraph: ({ content = [] }) => ({ children: inline(content) }),
  heading: ({ attrs, content = [] }) => ({ depth: attrs?.level, children: inline(content) }),
  blockquote: ({ content = [] }) => ({ children: blocks(content) }),
  bulletList: list,
  orderedList: list,
  codeBlock: ({ attrs, content = [] }) => ({
    lang: attrs?.language ?? null,
    value: content.map(({ text }) => text).join(''),
  }),
  horizontalRule: () => ({}),
  table,
};
const NAMES: Record<string, string> = {
  bulletList: 'list',
  orderedList: 'list',
  codeBlock: 'code',
  horizontalRule: 'thematicBreak',
};

function block(node: RichNode): BlockContent {
  return { type: NAMES[node.type] ?? node.type, ...WRITTEN[node.type]!(node) } as BlockContent;
}

function list({ type, attrs, content = [] }: RichNode): object {
  const spread = attrs?.loose === true;
  const ordered = type === 'orderedList';
  const children = content.map((item) => ({
    type: 'listItem',
    spread,
    children: blocks(withoutLeadingBlank(item.content ?? [])),
  }));
  return { ordered, spread, ...(ordered ? { start: attrs?.start ?? 1 } : {}), children };
}

function withoutLeadingBlank(content: readonly RichNode[]): readonly RichNode[] {
  const [first, ...rest] = content;
  const isBlank = first?.type === 'paragraph' && first.content === undefined;
  return isBlank && rest.length > 0 ? rest : content;
}

function table({ content = [] }: RichNode): object {
  const [head] = content;
  const cell = ({ content: held = [] }: RichNode): TableCell => ({
    type: 'tableCell',
    children: inline(held[0]?.content ?? []),
  });
  return {
    align: head?.content?.map(({ attrs }) => attrs?.align ?? null),
    children: content.map((row) => ({ type: 'tableRow', children: row.content?.map(cell) })),
  };
}

/** Nodes in a line, those that share their outer marks within one. */
function inline(nodes: readonly RichNode[], depth = 0): PhrasingContent[] {
  const written: PhrasingContent[] = [];
  for (let from = 0; from < nodes.length;) {
    const mark = nodes[from]!.marks?.[depth];
    let to = from + 1;
    while (to < nodes.length && mark && isSameMark(nodes[to]!.marks?.[depth], mark)) to++;
    const run = nodes.slice(from, to);
    written.push(mark ? marked(mark, run, depth) : leaf(run[0]!));
    from = to;
  }
  return written;
}

function isSameMark(a: RichMark | undefined, b: RichMark): boolean {
  return JSON.stringify(a) === JSON.stringify(b);
}

const MARKS: Record<string, string> = { bold: 'strong', italic: 'emphasis', strike: 'delete' };

function marked(mark: RichMark, run: readonly RichNode[], depth: number): PhrasingContent {
  if (mark.type === 'code')
    return { type: 'inlineCode', value: run.map(({ text }) => text).join('') };
  const children = inline(run, depth + 1);
  if (mark.type === 'link') {
    const { href, title } = mark.attrs as { href: string; title?: string };
    return { type: 'link', url: href, title: title ?? null, children };
  }
  return { type: MARKS[mark.type]!, children } as PhrasingContent;
}

function leaf({ type, text, attrs }: RichNode): PhrasingContent {
  if (type === 'hardBreak') return { type: 'break' };
  if (type !== 'image') return { type: 'text', value: text! };
  const { src, alt, title } = attrs as { src: string; alt: string; title?: string };
  return { type: 'image', url: `media/${src}`, alt, title: title ?? null };
}
