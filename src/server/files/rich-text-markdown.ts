import type { BlockContent, PhrasingContent, Root, RootContent, TableCell } from 'mdast';
import { directiveToMarkdown } from 'mdast-util-directive';
import { gfmStrikethroughToMarkdown } from 'mdast-util-gfm-strikethrough';
import { gfmTableToMarkdown } from 'mdast-util-gfm-table';
import { type Options, toMarkdown } from 'mdast-util-to-markdown';
import { stringify } from 'yaml';
import {
  type RichMark,
  type RichNode,
  isDocument,
  isSameMark,
  normalRichText,
} from '@/core/rich-text/index.ts';
import { DIRECTIVES } from './markdown-directives.ts';
import { JSON_BLOCK, markdownToRichText } from './markdown.ts';
import type { MarkdownWorld } from './markdown-world.ts';

const OPTIONS: Options = {
  bullet: '-',
  rule: '-',
  resourceLink: true,
  extensions: [
    gfmTableToMarkdown({ tablePipeAlign: false }),
    gfmStrikethroughToMarkdown(),
    { ...directiveToMarkdown(), unsafe: DIRECTIVES.unsafe },
  ],
};

/** What of a document Markdown is to give back. */
export interface MarkdownTest {
  world?: MarkdownWorld;
  /** Whether what was read of the Markdown is the document. */
  isSame?: (read: RichNode, doc: RichNode) => boolean;
}

/**
 * A rich text document as Markdown that reads as the same document. What Markdown has no words for
 * stands in it as a block of JSON.
 */
export function richTextToMarkdown(doc: RichNode, test: MarkdownTest = {}): string {
  const content = doc.content ?? [];
  const whole = written(content, test);
  if (whole !== null) return whole;
  const parts = content.map((block) => written([block], test) ?? fenced(block));
  const joined = parts.join('\n');
  if (readsAs(joined, content, test)) return joined;
  return content.map(fenced).join('\n');
}

/** Blocks as Markdown that reads as these; null where none does. */
function written(content: readonly RichNode[], test: MarkdownTest): string | null {
  for (const emphasis of ['*', '_'] as const) {
    try {
      const root: Root = { type: 'root', children: blocks(content) as RootContent[] };
      const text = toMarkdown(root, { ...OPTIONS, emphasis });
      if (readsAs(text, content, test)) return text;
    } catch {
      return null; // what Markdown has no words for, or too much of
    }
  }
  return null;
}

function readsAs(text: string, content: readonly RichNode[], test: MarkdownTest): boolean {
  const { world = {}, isSame = isSameText } = test;
  return isSame(normalRichText(markdownToRichText(text, world)), {
    type: 'doc',
    content: [...content],
  });
}

function isSameText(a: RichNode, b: RichNode): boolean {
  return JSON.stringify(a) === JSON.stringify(b);
}

function fenced(block: RichNode): string {
  return `\`\`\`${JSON_BLOCK}\n${JSON.stringify(block)}\n\`\`\`\n`;
}

function blocks(nodes: readonly RichNode[]): BlockContent[] {
  return nodes.map(styledBlock);
}

/** A block, within the style it has. */
function styledBlock(node: RichNode): BlockContent {
  const { style } = node.attrs ?? {};
  return typeof style === 'string' ? container('style', style, {}, [block(node)]) : block(node);
}

/** A directive around blocks, with its label. */
function container(
  name: string,
  label: string,
  attributes: Record<string, string>,
  children: BlockContent[],
): BlockContent {
  const data = { directiveLabel: true };
  const words = [{ type: 'text' as const, value: label }];
  return {
    ...{ type: 'containerDirective', name, attributes },
    children: [{ type: 'paragraph', data, children: words }, ...children],
  } as BlockContent;
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
  entry: ({ attrs }) => ({
    ...{ name: 'entry', attributes: {} },
    children: [{ type: 'text', value: String(attrs?.entry) }],
  }),
  part,
};
const NAMES: Record<string, string> = {
  bulletList: 'list',
  orderedList: 'list',
  codeBlock: 'code',
  horizontalRule: 'thematicBreak',
  entry: 'leafDirective',
};

function block(node: RichNode): BlockContent {
  return { type: NAMES[node.type] ?? node.type, ...WRITTEN[node.type]!(node) } as BlockContent;
}

/** A part: short values as attributes, rich texts as sections, all others as YAML. */
function part({ attrs }: RichNode): object {
  const { type, values = {} } = attrs as { type: string; values?: Record<string, unknown> };
  const attributes: Record<string, string> = {};
  const rest: Record<string, unknown> = {};
  const sections: BlockContent[] = [];
  for (const [key, value] of Object.entries(values)) {
    const docs = [value].flat().filter(isDocument);
    if (docs.length > 0)
      sections.push(...docs.map((doc) => container('field', key, {}, blocks(doc.content ?? []))));
    else if (isShort(value)) attributes[key] = String(value);
    else rest[key] = value;
  }
  const yaml = { type: 'code', lang: 'yaml', value: stringify(rest).trimEnd() } as const;
  const more = Object.keys(rest).length > 0 ? [yaml] : [];
  return container('part', type, attributes, [...more, ...sections]);
}

function isShort(value: unknown): boolean {
  if (typeof value === 'string') return value.length <= 200 && !/[\r\n]/.test(value);
  return typeof value === 'number' || typeof value === 'boolean';
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
  const all: PhrasingContent[] = [];
  for (let from = 0; from < nodes.length;) {
    const mark = nodes[from]!.marks?.[depth];
    let to = from + 1;
    while (to < nodes.length && mark && goesOn(nodes[to]!.marks?.[depth], mark)) to++;
    const run = nodes.slice(from, to);
    all.push(mark ? marked(mark, run, depth) : leaf(run[0]!));
    from = to;
  }
  return all;
}

function goesOn(other: RichMark | undefined, mark: RichMark): boolean {
  return other !== undefined && isSameMark(other, mark);
}

const MARKS: Record<string, string> = { bold: 'strong', italic: 'emphasis', strike: 'delete' };

function marked(mark: RichMark, run: readonly RichNode[], depth: number): PhrasingContent {
  if (mark.type === 'code')
    return { type: 'inlineCode', value: run.map(({ text }) => text).join('') };
  const children = inline(run, depth + 1);
  if (mark.type === 'link') {
    const { href, entry, title } = mark.attrs as Record<string, string | undefined>;
    const url =
      entry === undefined ? href! : `entry:${encodeURIComponent(entry).replaceAll('%2F', '/')}`;
    return { type: 'link', url, title: title ?? null, children };
  }
  if (mark.type === 'underline') return textDirective('underline', children, {});
  if (mark.type === 'styled')
    return textDirective('style', children, { name: String(mark.attrs?.style) });
  return { type: MARKS[mark.type]!, children } as PhrasingContent;
}

function textDirective(
  name: string,
  children: PhrasingContent[],
  attributes: Record<string, string>,
): PhrasingContent {
  return { type: 'textDirective', name, attributes, children };
}

function leaf({ type, text, attrs }: RichNode): PhrasingContent {
  if (type === 'hardBreak') return { type: 'break' };
  if (type !== 'image') return { type: 'text', value: text! };
  const { src, alt, title, style } = attrs as Record<string, string>;
  if (style === undefined)
    return { type: 'image', url: `media/${src}`, alt: alt!, title: title ?? null };
  const words: PhrasingContent[] = alt ? [{ type: 'text', value: alt }] : [];
  return textDirective('picture', words, { src: src!, ...(title ? { title } : {}), style });
}
