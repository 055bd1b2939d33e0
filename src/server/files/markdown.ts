import type { Definition, Link, List, Nodes, Paragraph, PhrasingContent, Root, Table } from 'mdast';
import type { ContainerDirective, TextDirective } from 'mdast-util-directive';
import { phrasing } from 'mdast-util-phrasing';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { gfmAutolinkLiteralFromMarkdown } from 'mdast-util-gfm-autolink-literal';
import { gfmStrikethroughFromMarkdown } from 'mdast-util-gfm-strikethrough';
import { gfmTableFromMarkdown } from 'mdast-util-gfm-table';
import { gfmAutolinkLiteral } from 'micromark-extension-gfm-autolink-literal';
import { gfmStrikethrough } from 'micromark-extension-gfm-strikethrough';
import { gfmTable } from 'micromark-extension-gfm-table';
import { parse as parseYaml } from 'yaml';
import { MAX_JSON_DEPTH, jsonDepth } from '@/core/json-depth.ts';
import { encodeAddress, isSafeLink } from '@/core/link.ts';
import { type RichMark, type RichNode, checkRichText } from '@/core/rich-text/index.ts';
import { withoutHtml } from './html-in-markdown.ts';
import { type MarkdownWorld, TooMuch, entryOf, wordsOf } from './markdown-world.ts';
import { DIRECTIVES } from './markdown-directives.ts';
import { tooMuch } from './markdown-bounds.ts';

const EXTENSIONS = {
  extensions: [gfmTable(), gfmStrikethrough({ singleTilde: false }), DIRECTIVES.extension],
  mdastExtensions: [gfmTableFromMarkdown(), gfmStrikethroughFromMarkdown(), DIRECTIVES.mdast],
};

const FOREIGN = {
  extensions: [...EXTENSIONS.extensions, gfmAutolinkLiteral()],
  mdastExtensions: [...EXTENSIONS.mdastExtensions, gfmAutolinkLiteralFromMarkdown()],
};

/**
 * Reads Markdown (CommonMark with GFM tables and strikethrough) as a rich text document. Raw HTML
 * becomes text where it is of no other tool; links and pictures that may not stand leave their
 * words.
 * @throws TooMuch
 */
export function markdownToRichText(source: string, world: MarkdownWorld = {}): RichNode {
  const finding = tooMuch(source);
  if (finding) throw new TooMuch(finding);
  const written: Root = fromMarkdown(source, extensionsFor(source, world));
  const root = world.isForeign ? withoutHtml(written, source, (f) => world.tell?.(f)) : written;
  const content = new MarkdownReader(root, world).blocks(root.children);
  return { type: 'doc', content: content.length > 0 ? content : [{ type: 'paragraph' }] };
}

/** Bare addresses are looked for in words of at most so many characters: longer ones take long. */
const LONG_WORD = /\S{2000}/;

function extensionsFor(source: string, { isForeign = false }: MarkdownWorld): typeof EXTENSIONS {
  return isForeign && !LONG_WORD.test(source) ? FOREIGN : EXTENSIONS;
}

/** The list that items make that stand outside of any. */
const STRAY = 'bulletList';

const MARKS = { strong: 'bold', emphasis: 'italic', delete: 'strike' } as const;

/** How deep directives may stand within each other. */
const MAX_CONTAINERS = 40;

class MarkdownReader {
  /** Where reference links lead: the first definition of a name counts. */
  private readonly definitions = new Map<string, Definition>();
  /** How many directives the one at hand stands within. */
  private depth = 0;

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

  /** In HTML, words stand beside blocks, and items outside of lists. */
  blocks(nodes: readonly Nodes[]): RichNode[] {
    const blocks: RichNode[] = [];
    let words: PhrasingContent[] = [];
    const close = (): void => {
      if (words.length > 0) blocks.push({ type: 'paragraph', content: this.inline(words, []) });
      words = [];
    };
    for (const node of nodes) {
      if (phrasing(node)) {
        words.push(node);
        continue;
      }
      close();
      const last = blocks.at(-1);
      const made = this.block(node);
      if (node.type !== 'listItem') blocks.push(...made);
      else if (last?.type === STRAY) last.content!.push(...made);
      else blocks.push({ type: STRAY, content: made });
    }
    close();
    return blocks;
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
      case 'containerDirective':
        return this.container(node);
      case 'leafDirective':
        return [{ type: 'entry', attrs: { entry: wordsOf(node.children) } }];
      case 'code': {
        if (node.lang === JSON_BLOCK) return [this.json(node.value, node)];
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
        return 'children' in node ? this.blocks(node.children) : [];
    }
  }

  /** A part with its values, blocks of a style; what stands elsewhere than it may keeps its blocks. */
  private container(node: ContainerDirective): RichNode[] {
    this.depth++;
    try {
      if (this.depth > MAX_CONTAINERS)
        throw new TooMuch({
          line: node.position?.start.line ?? 1,
          words: `Parts, fields and styles stand at most ${MAX_CONTAINERS} deep within each other.`,
        });
      return this.contained(node);
    } finally {
      this.depth--;
    }
  }

  private contained(node: ContainerDirective): RichNode[] {
    const [label, ...children] = node.children;
    const name = label && 'children' in label ? wordsOf(label.children as PhrasingContent[]) : '';
    if (node.name === 'style')
      return this.blocks(children).map((block) => {
        const may = block.type === 'paragraph' || block.type === 'heading';
        if (!may)
          this.tell(node, `Paragraphs and headings have styles; a ${block.type} stays plain.`);
        return may ? { ...block, attrs: { ...block.attrs, style: name } } : block;
      });
    if (node.name !== 'part') {
      this.tell(node, `A field "${name}" stands outside of a part; its blocks stay.`);
      return this.blocks(children);
    }
    const values = { ...node.attributes, ...this.valuesOf(children) };
    return [{ type: 'part', attrs: { type: name, values } }];
  }

  /** Values of a part that are more than a line: YAML first, then a section for each rich text. */
  private valuesOf(children: readonly Nodes[]): Record<string, unknown> {
    const values: Record<string, unknown> = {};
    for (const child of children) {
      if (child.type === 'code' && child.lang === 'yaml') Object.assign(values, this.yaml(child));
      else if (child.type === 'containerDirective' && child.name === 'field') {
        const [label, ...blocks] = child.children;
        const key = wordsOf((label as { children: PhrasingContent[] }).children);
        const doc = { type: 'doc', content: orBlank(this.blocks(blocks)) };
        values[key] = key in values ? [values[key], doc].flat() : doc;
      } else this.tell(child, 'In a part stand sections ":::field[KEY]" alone; this is left out.');
    }
    return values;
  }

  private yaml(node: Extract<Nodes, { type: 'code' }>): object {
    try {
      const read: unknown = parseYaml(node.value, { maxAliasCount: 0 });
      if (typeof read === 'object' && read !== null && !Array.isArray(read)) return read;
    } catch {
      // told below
    }
    this.tell(node, 'The values of this part are no YAML of keys and values; they are left out.');
    return {};
  }

  /** A block that Markdown has no words for, as JSON. */
  private json(value: string, node: Extract<Nodes, { type: 'code' }>): RichNode {
    const content = [{ type: 'text', text: value }];
    let block: unknown;
    if (jsonDepth(value) > MAX_JSON_DEPTH) {
      const words = `A block "${JSON_BLOCK}" nests at most ${MAX_JSON_DEPTH} deep; it stays as code.`;
      this.tell(node, words);
      return { type: 'codeBlock', content };
    }
    try {
      block = JSON.parse(value);
    } catch {
      this.tell(node, `A block "${JSON_BLOCK}" holds JSON, and this is none; it stays as code.`);
      return { type: 'codeBlock', content };
    }
    const wrong = checkRichText({ type: 'doc', content: [block] });
    if (!wrong) return block as RichNode;
    this.tell(node, `At "${wrong.at.slice('/content/0'.length) || '/'}": ${wrong.words}`);
    return { type: 'codeBlock', content };
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
      content: node.children.flatMap((item: Nodes) =>
        this.block(item.type === 'listItem' ? item : itemOf(item)),
      ),
    };
  }

  private table(node: Table): RichNode {
    // In HTML, a table may have no headers: then they are blank here.
    const isBare =
      this.world.isForeign === true &&
      node.children.length > 1 &&
      node.children[0]!.children.every((cell) => cell.children.length === 0);
    const rows = isBare ? node.children.slice(1) : node.children;
    const cellOf = (
      cell: Table['children'][number]['children'][number],
      row: number,
      i: number,
    ) => {
      const align = node.align?.[i];
      return {
        type: row === 0 && !isBare ? 'tableHeader' : 'tableCell',
        ...(align ? { attrs: { align } } : {}),
        content: orBlank(this.blocks(cell.children)),
      };
    };
    return {
      type: 'table',
      content: rows.map((row, r) => ({
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
      case 'textDirective':
        return this.directive(node, marks);
      case 'strong':
      case 'emphasis':
      case 'delete':
        return this.inline(node.children, [...marks, { type: MARKS[node.type] }]);
      default:
        return this.withinWords(node, marks);
    }
  }

  /** Blocks within words, as HTML may have them, leave their words. */
  private withinWords(node: Nodes, marks: RichMark[]): RichNode[] {
    if ('children' in node) return this.inline(node.children as PhrasingContent[], marks);
    return 'value' in node ? text(node.value, marks) : [];
  }

  private directive(node: TextDirective, marks: RichMark[]): RichNode[] {
    const { src, title, style, name } = node.attributes ?? {};
    if (node.name === 'underline')
      return this.inline(node.children, [...marks, { type: 'underline' }]);
    if (node.name === 'picture')
      return this.picture(src ?? '', wordsOf(node.children), title, node, marks).map((one) =>
        one.type === 'image' && style ? { ...one, attrs: { ...one.attrs, style } } : one,
      );
    if (name)
      return this.inline(node.children, [...marks, { type: 'styled', attrs: { style: name } }]);
    this.tell(node, 'A style is named: ":style[words]{name=KEY}"; its words stay.');
    return this.inline(node.children, marks);
  }

  private link(
    node: Pick<Link, 'children' | 'position'>,
    url: string,
    title: string | null | undefined,
    marks: RichMark[],
  ): RichNode[] {
    const entry = entryOf(url) ?? this.world.findEntry?.(url) ?? null;
    if (entry !== null) {
      const attrs = { entry, ...(title ? { title } : {}) };
      return this.inline(node.children, [...marks, { type: 'link', attrs }]);
    }
    const href = encodeAddress(url);
    // From elsewhere: what is named by its place among files leads nowhere here.
    const isLost = this.world.findEntry && !/^([a-z][a-z0-9+.-]*:|[/#])/i.test(url);
    if (isLost || !isSafeLink(href)) {
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
    const found = this.world.findPicture?.(url) ?? null;
    const src = found ?? url.replace(/^(\.\/|\/)?media\//, '');
    const elsewhere = /^[a-z][a-z0-9+.-]*:|^\/\//i.test(url);
    if (found === null && (elsewhere || !(this.world.hasPicture?.(src) ?? true))) {
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

/** The info of fenced blocks that are JSON of rich text. */
export const JSON_BLOCK = 'rich-text';

function text(value: string, marks: RichMark[]): RichNode[] {
  return value === '' ? [] : [{ type: 'text', text: value, ...marked(marks) }];
}

function marked(marks: RichMark[]): { marks?: RichMark[] } {
  return marks.length > 0 ? { marks } : {};
}

/** What stands among the items of a list, as one of them. */
function itemOf(node: Nodes): Nodes {
  return { type: 'listItem', children: [node as Paragraph] };
}

function orBlank(blocks: RichNode[]): RichNode[] {
  return blocks.length > 0 ? blocks : [{ type: 'paragraph' }];
}

function short(url: string): string {
  return `"${url.length > 80 ? `${url.slice(0, 80)}…` : url}"`;
}
