import type { Definition, Link, List, Nodes, PhrasingContent, Root, Table } from 'mdast';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { gfmStrikethroughFromMarkdown } from 'mdast-util-gfm-strikethrough';
import { gfmTableFromMarkdown } from 'mdast-util-gfm-table';
import { gfmStrikethrough } from 'micromark-extension-gfm-strikethrough';
import { gfmTable } from 'micromark-extension-gfm-table';
import { encodeAddress, isSafeLink } from '@/core/link.ts';
import type { RichMark, RichNode } from '@/core/rich-text.ts';
import { tooMuch } from './markdown-bounds.ts';

/** Something of a text that is not as it was written, with its line, from 1. */
export interface MarkdownFinding {
  line: number;
  words: string;
}

/** What reading Markdown may ask, and whom it tells. */
export interface MarkdownWorld {
  /** Whether there is such a picture; where nobody says, all that lie in the site are taken. */
  hasPicture?: (id: string) => boolean;
  tell?: (finding: MarkdownFinding) => void;
}

/** A text that is too much for a reader of Markdown. */
export class TooMuch extends Error {
  constructor(readonly finding: MarkdownFinding) {
    super(finding.words);
  }
}

const EXTENSIONS = {
  extensions: [gfmTable(), gfmStrikethrough({ singleTilde: false })],
  mdastExtensions: [gfmTableFromMarkdown(), gfmStrikethroughFromMarkdown()],
};

/**
 * Reads Markdown (CommonMark with GFM tables and strikethrough) as a rich text document. Raw HTML
 * becomes text; links and pictures that may not stand leave their words.
 * @throws TooMuch
 */
export function markdownToRichText(source: string, world: MarkdownWorld = {}): RichNode {
  const finding = tooMuch(source);
  if (finding) throw new TooMuch(finding);
  const root: Root = fromMarkdown(source, EXTENSIONS);
  const content = new MarkdownReader(root, world).blocks(root.children);
  return { type: 'doc', content: content.length > 0 ? content : [{ type: 'paragraph' }] };
}

const MARKS = { strong: 'bold', emphasis: 'italic', delete: 'strike' } as const;

class MarkdownReader {
  /** Where reference links lead: the first definition of a name counts. */
  private readonly definitions = new Map<string, Definition>();

  constructor(
    root: Root,
    private readonly world: MarkdownWorld,
  ) {
    const gather = (node: Nodes): void => {
      if (node.type === 'definition' && !this.definitions.has(node.identifier))
        this.definitions.set(node.identifier, node);
      if ('children' in node) node.children.forEach(gather);
    };
    gather(root);
  }

  blocks(nodes: readonly Nodes[]): RichNode[] {
    return nodes.flatMap((node) => this.block(node));
  }

  private block(node: Nodes): RichNode[] {
    switch (node.type) {
      case 'paragraph':
        return [{ type: 'paragraph', content: this.inline(node.children, []) }];
      case 'heading': {
        const content = this.inline(node.children, []);
        return [{ type: 'heading', attrs: { level: node.depth }, content }];
      }
      case 'blockquote':
        return [{ type: 'blockquote', content: orBlank(this.blocks(node.children)) }];
      case 'list':
        return [this.list(node)];
      case 'listItem': {
        const content = this.blocks(node.children);
        const starts = content[0]?.type === 'paragraph';
        return [
          { type: 'listItem', content: starts ? content : [{ type: 'paragraph' }, ...content] },
        ];
      }
      case 'code': {
        const language = node.lang ? { attrs: { language: node.lang } } : {};
        const text = node.value === '' ? {} : { content: [{ type: 'text', text: node.value }] };
        return [{ type: 'codeBlock', ...language, ...text }];
      }
      case 'thematicBreak':
        return [{ type: 'horizontalRule' }];
      case 'table':
        return [this.table(node)];
      case 'html':
        return [{ type: 'paragraph', content: [{ type: 'text', text: node.value }] }];
      default:
        return [];
    }
  }

  private list(node: List): RichNode {
    const loose = node.spread === true || node.children.some((item) => item.spread);
    const attrs = {
      ...(node.ordered && node.start !== 1 ? { start: node.start ?? 1 } : {}),
      ...(loose ? { loose: true } : {}),
    };
    return {
      type: node.ordered ? 'orderedList' : 'bulletList',
      ...(Object.keys(attrs).length > 0 ? { attrs } : {}),
      content: this.blocks(node.children),
    };
  }

  private table(node: Table): RichNode {
    const cellOf = (
      cell: Table['children'][number]['children'][number],
      row: number,
      i: number,
    ) => {
      const align = node.align?.[i];
      return {
        type: row === 0 ? 'tableHeader' : 'tableCell',
        ...(align ? { attrs: { align } } : {}),
        content: [{ type: 'paragraph', content: this.inline(cell.children, []) }],
      };
    };
    return {
      type: 'table',
      content: node.children.map((row, r) => ({
        type: 'tableRow',
        content: row.children.map((cell, i) => cellOf(cell, r, i)),
      })),
    };
  }

  private inline(nodes: readonly PhrasingContent[], marks: RichMark[]): RichNode[] {
    return nodes.flatMap((node) => this.leaf(node, marks));
  }

  private leaf(node: PhrasingContent, marks: RichMark[]): RichNode[] {
    switch (node.type) {
      case 'text':
        return text(node.value.replace(/\n/g, ' '), marks);
      case 'inlineCode':
        return text(node.value, [...marks, { type: 'code' }]);
      case 'html':
        return text(node.value, marks);
      case 'break':
        return [{ type: 'hardBreak', ...marked(marks) }];
      case 'image':
        return this.picture(node.url, node.alt ?? '', node.title, node, marks);
      case 'imageReference': {
        const definition = this.definitions.get(node.identifier);
        const alt = node.alt ?? '';
        return definition
          ? this.picture(definition.url, alt, definition.title, node, marks)
          : text(alt, marks);
      }
      case 'link':
        return this.link(node, node.url, node.title, marks);
      case 'linkReference': {
        const definition = this.definitions.get(node.identifier);
        return definition
          ? this.link(node, definition.url, definition.title, marks)
          : this.inline(node.children, marks);
      }
      case 'strong':
      case 'emphasis':
      case 'delete':
        return this.inline(node.children, [...marks, { type: MARKS[node.type] }]);
      default:
        return [];
    }
  }

  private link(
    node: Pick<Link, 'children' | 'position'>,
    url: string,
    title: string | null | undefined,
    marks: RichMark[],
  ): RichNode[] {
    const href = encodeAddress(url);
    if (!isSafeLink(href)) {
      this.tell(node, `A link to ${short(url)} may not stand; its words stay.`);
      return this.inline(node.children, marks);
    }
    const attrs = { href, ...(title ? { title } : {}) };
    return this.inline(node.children, [...marks, { type: 'link', attrs }]);
  }

  private picture(
    url: string,
    alt: string,
    title: string | null | undefined,
    node: Pick<Nodes, 'position'>,
    marks: RichMark[],
  ): RichNode[] {
    const src = url.replace(/^(\.\/|\/)?media\//, '');
    const elsewhere = /^[a-z][a-z0-9+.-]*:|^\/\//i.test(url);
    if (elsewhere || !(this.world.hasPicture?.(src) ?? true)) {
      this.tell(
        node,
        elsewhere
          ? `A picture of another site, ${short(url)}, may not stand; its words stay.`
          : `There is no picture ${short(url)} below media/; its words stay.`,
      );
      return text(alt, marks);
    }
    const attrs = { src, alt, ...(title ? { title } : {}) };
    return [{ type: 'image', attrs, ...marked(marks) }];
  }

  private tell({ position }: Pick<Nodes, 'position'>, words: string): void {
    this.world.tell?.({ line: position?.start.line ?? 1, words });
  }
}

function text(value: string, marks: RichMark[]): RichNode[] {
  return value === '' ? [] : [{ type: 'text', text: value, ...marked(marks) }];
}

function marked(marks: RichMark[]): { marks?: RichMark[] } {
  return marks.length > 0 ? { marks } : {};
}

function orBlank(blocks: RichNode[]): RichNode[] {
  return blocks.length > 0 ? blocks : [{ type: 'paragraph' }];
}

function short(url: string): string {
  return `"${url.length > 80 ? `${url.slice(0, 80)}…` : url}"`;
}
