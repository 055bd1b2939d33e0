import { escapeHtml } from '../text.ts';
import { isSafeLink } from '../link.ts';
import {
  MAX_NESTING,
  type RichMark,
  type RichNode,
  isSameMark,
  nestedMarks,
  plainText,
} from '../rich-text/index.ts';
import { codeHtml } from './code-html.ts';
import type { RenderScope } from './context.ts';
import { pictureHtml } from './picture-html.ts';

type Tags = readonly [open: string, close: string];

const MARKS: ReadonlyMap<string, Tags> = new Map([
  ['bold', ['<strong>', '</strong>']],
  ['italic', ['<em>', '</em>']],
  ['strike', ['<s>', '</s>']],
  ['code', ['<code>', '</code>']],
  ['underline', ['<u>', '</u>']],
]);
const SIMPLE = new Map<string, string>([
  ['blockquote', 'blockquote'],
  ['tableRow', 'tr'],
]);

/**
 * The level that the highest heading has where a field does not say: below the page’s own title.
 */
const TOP_HEADING = 2;

/** What drawing a text asks of the page. */
type TextScope = Pick<RenderScope, 'media' | 'picture'>;

/** How a text is drawn on a page, where it is more than words and pictures. */
export interface TextDrawing<S extends TextScope = TextScope> {
  /** The level that the highest heading has; those above it become that one. */
  topHeading?: number | undefined;
  /** The path of an entry that a link leads to; null while it is not live. */
  pathOf?: (entry: string, scope: S) => string | null;
  /** HTML of an entry that stands in the text; '' while it is not live. */
  entry?: (id: string, scope: S) => string;
  /** HTML of a part by the id of its type; '' where there is nothing to show. */
  part?: (type: string, values: Record<string, unknown>, scope: S) => string;
  /** The id of the next heading, by what it says; none where left out. */
  headingId?: (words: string) => string;
  /** The key of a style by its id; undefined where there is none. */
  style?: (id: string) => string | undefined;
}

/**
 * The HTML of a rich text document. Unknown nodes show their content only; nothing passes
 * unescaped.
 */
export function richTextHtml<S extends TextScope>(
  doc: unknown,
  scope: S,
  how: TextDrawing<S> = {},
): string {
  return new RichTextWriter(scope, how).node(doc as RichNode, 0);
}

class RichTextWriter<S extends TextScope> {
  private readonly topHeading: number;

  constructor(
    private readonly scope: S,
    private readonly how: TextDrawing<S>,
  ) {
    this.topHeading = how.topHeading ?? TOP_HEADING;
  }

  node(n: RichNode | null | undefined, depth: number): string {
    if (!n || depth > MAX_NESTING) return '';
    if (n.type === 'paragraph') {
      const words = this.inline(n.content);
      return words === '' ? '' : `<p${this.styled(n)}>${words}</p>`;
    }
    const tag = SIMPLE.get(n.type);
    if (tag) return `<${tag}>${this.children(n, depth)}</${tag}>`;
    switch (n.type) {
      case 'heading':
        return this.heading(n);
      case 'bulletList':
        return `<ul>${this.items(n, depth)}</ul>`;
      case 'orderedList': {
        const start = whole(n.attrs?.start, 1);
        return `<ol${start === 1 ? '' : ` start="${start}"`}>${this.items(n, depth)}</ol>`;
      }
      case 'codeBlock':
        return codeHtml(n);
      case 'horizontalRule':
        return '<hr>';
      case 'table':
        return this.table(n, depth);
      case 'tableHeader':
        return `<th scope="col"${alignment(n)}>${this.cell(n, depth)}</th>`;
      case 'tableCell':
        return `<td${alignment(n)}>${this.cell(n, depth)}</td>`;
      case 'entry':
        return wrapped('entry-part', this.how.entry?.(String(n.attrs?.entry), this.scope) ?? '');
      case 'part':
        return wrapped('part', this.part(n));
      case 'text':
      case 'hardBreak':
      case 'image':
        return this.inline([n]);
      default:
        return this.children(n, depth);
    }
  }

  private heading(n: RichNode): string {
    const level = Math.min(6, Math.max(this.topHeading, whole(n.attrs?.level, 2)));
    const words = this.inline(n.content);
    if (words === '') return '';
    return `<h${level}${this.idOf(n)}${this.styled(n)}>${words}</h${level}>`;
  }

  private idOf(heading: RichNode): string {
    const { headingId } = this.how;
    const words = headingId ? plainText(heading).trim() : '';
    return words === '' ? '' : ` id="${escapeHtml(headingId!(words))}"`;
  }

  private part({ attrs }: RichNode): string {
    const { type, values } = attrs ?? {};
    const given = typeof values === 'object' && values !== null ? values : {};
    return this.how.part?.(String(type), given as Record<string, unknown>, this.scope) ?? '';
  }

  /** ` class="style-…"` of a node that has a style; '' for others. */
  private styled({ attrs }: Pick<RichNode, 'attrs'>): string {
    const key = attrs?.style === undefined ? undefined : this.how.style?.(String(attrs.style));
    return key === undefined ? '' : ` class="style-${escapeHtml(key)}"`;
  }

  private children({ content }: RichNode, depth: number): string {
    let out = '';
    for (const child of content ?? []) out += this.node(child, depth + 1);
    return out;
  }

  /**
   * In a list whose items stand close together, an item of one paragraph needs no paragraph
   * element.
   */
  private items({ content, attrs }: RichNode, depth: number): string {
    const loose = attrs?.loose === true;
    return (content ?? [])
      .map((item) => {
        const blocks = item.content ?? [];
        const paragraphs = blocks.filter((b) => b.type === 'paragraph' && b.content?.length).length;
        const inner = blocks.map((block) =>
          !loose && paragraphs === 1 && block.type === 'paragraph'
            ? this.inline(block.content)
            : this.node(block, depth + 2),
        );
        return `<li>${inner.join('')}</li>`;
      })
      .join('');
  }

  /** Rows of header cells at the beginning are the head. */
  private table({ content }: RichNode, depth: number): string {
    const rows = content ?? [];
    const isHead = (row: RichNode): boolean =>
      (row.content ?? []).length > 0 && row.content!.every((c) => c.type === 'tableHeader');
    const first = rows.findIndex((row) => !isHead(row));
    const heads = first < 0 ? rows.length : first;
    const draw = (part: RichNode[]): string => part.map((r) => this.node(r, depth + 1)).join('');
    const head = heads === 0 ? '' : `<thead>${draw(rows.slice(0, heads))}</thead>`;
    const body = heads === rows.length ? '' : `<tbody>${draw(rows.slice(heads))}</tbody>`;
    return `<table>${head}${body}</table>`;
  }

  private cell(n: RichNode, depth: number): string {
    const [only, more] = n.content ?? [];
    if (only?.type === 'paragraph' && more === undefined) return this.inline(only.content);
    return this.children(n, depth);
  }

  /** Words and pictures with their marks; most have none, or one that ends with them. */
  private inline(nodes: readonly RichNode[] = []): string {
    let out = '';
    let marked = false;
    for (const n of nodes) {
      const { marks } = n;
      if (marks === undefined || marks.length === 0) {
        out += this.leaf(n);
        marked = false;
        continue;
      }
      const tags = marks.length > 1 || marked ? undefined : MARKS.get(marks[0]!.type);
      if (tags === undefined) return this.runs(nodes);
      out += tags[0] + this.leaf(n) + tags[1];
      marked = true;
    }
    return out;
  }

  /** A run of words in bold is one element, whatever else changes in it. */
  private runs(nodes: readonly RichNode[]): string {
    let out = '';
    const open: [RichMark, Tags][] = [];
    const said = nodes.map(({ marks }) => ({ marks: marks?.filter((m) => this.tagsOf(m)) ?? [] }));
    nestedMarks(said).forEach((marks, i) => {
      const ends = open.findIndex(([mark], n) => !marks[n] || !isSameMark(marks[n], mark));
      while (ends >= 0 && open.length > ends) out += open.pop()![1][1];
      for (const mark of marks.slice(open.length)) {
        const tags = this.tagsOf(mark)!;
        open.push([mark, tags]);
        out += tags[0];
      }
      out += this.leaf(nodes[i]!);
    });
    while (open.length > 0) out += open.pop()![1][1];
    return out;
  }

  /** What a mark opens and closes with; null for one that says nothing here. */
  private tagsOf(mark: RichMark): Tags | null {
    const known = MARKS.get(mark.type);
    if (known) return known;
    if (mark.type === 'styled') {
      const attributes = this.styled(mark);
      return attributes === '' ? null : [`<span${attributes}>`, '</span>'];
    }
    return mark.type === 'link' ? this.linkTags(mark) : null;
  }

  private linkTags({ attrs }: RichMark): Tags | null {
    const { href, entry, title } = attrs ?? {};
    const to = typeof entry === 'string' ? this.how.pathOf?.(entry, this.scope) : href;
    // What is not there now keeps its words, marked for those who want to draw that.
    if (typeof entry === 'string' && !to) return ['<span class="no-link">', '</span>'];
    if (!isSafeLink(to)) return null;
    const named = typeof title === 'string' && title !== '' ? ` title="${escapeHtml(title)}"` : '';
    return [`<a href="${escapeHtml(to)}"${named}>`, '</a>'];
  }

  private leaf(n: RichNode): string {
    if (n.type === 'hardBreak') return '<br>';
    if (n.type === 'image') return this.image(n);
    return typeof n.text === 'string' ? escapeHtml(n.text) : '';
  }

  private image(n: RichNode): string {
    const medium = this.scope.media(String(n.attrs?.src ?? ''));
    const picture = medium && this.scope.picture(medium, { width: 800 });
    if (!picture) return '';
    const { alt: given, title } = n.attrs ?? {};
    const alt = typeof given === 'string' && given !== '' ? given : picture.alt;
    const named = typeof title === 'string' && title !== '' ? ` title="${escapeHtml(title)}"` : '';
    return pictureHtml({ ...picture, alt }, { styled: this.styled(n), named });
  }
}

/** A block of its own kind in a text; '' where it shows nothing. */
function wrapped(name: string, html: string): string {
  return html === '' ? '' : `<div class="${name}">${html}</div>`;
}

/** An attribute that is to be a whole number; what else it holds counts as left out. */
function whole(value: unknown, otherwise: number): number {
  return typeof value === 'number' && Number.isFinite(value) ? Math.floor(value) : otherwise;
}

function alignment({ attrs }: RichNode): string {
  const { align } = attrs ?? {};
  return align === 'left' || align === 'center' || align === 'right'
    ? ` class="align-${align}"`
    : '';
}
