import { escapeHtml } from '../text.ts';
import { isSafeLink } from '../link.ts';
import { MAX_NESTING, type RichMark, type RichNode } from '../rich-text.ts';
import type { RenderScope } from './context.ts';

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

/**
 * The HTML of a rich text document. Unknown nodes show their content only; nothing passes
 * unescaped. Headings above `topHeading` become that level.
 */
export function richTextHtml(
  doc: unknown,
  scope: Pick<RenderScope, 'picture'>,
  topHeading = TOP_HEADING,
): string {
  return new RichTextWriter(scope, topHeading).node(doc as RichNode, 0);
}

class RichTextWriter {
  constructor(
    private readonly scope: Pick<RenderScope, 'picture'>,
    private readonly topHeading: number,
  ) {}

  node(n: RichNode | null | undefined, depth: number): string {
    if (!n || depth > MAX_NESTING) return '';
    if (n.type === 'paragraph') {
      const words = this.inline(n.content);
      return words === '' ? '' : `<p>${words}</p>`;
    }
    const tag = SIMPLE.get(n.type);
    if (tag) return `<${tag}>${this.children(n, depth)}</${tag}>`;
    switch (n.type) {
      case 'heading': {
        const level = Math.min(6, Math.max(this.topHeading, whole(n.attrs?.level, 2)));
        const words = this.inline(n.content);
        return words === '' ? '' : `<h${level}>${words}</h${level}>`;
      }
      case 'bulletList':
        return `<ul>${this.items(n, depth)}</ul>`;
      case 'orderedList': {
        const start = whole(n.attrs?.start, 1);
        return `<ol${start === 1 ? '' : ` start="${start}"`}>${this.items(n, depth)}</ol>`;
      }
      case 'codeBlock':
        return codeBlock(n);
      case 'horizontalRule':
        return '<hr>';
      case 'table':
        return this.table(n, depth);
      case 'tableHeader':
        return `<th scope="col"${alignment(n)}>${this.cell(n, depth)}</th>`;
      case 'tableCell':
        return `<td${alignment(n)}>${this.cell(n, depth)}</td>`;
      case 'text':
      case 'hardBreak':
      case 'image':
        return this.inline([n]);
      default:
        return this.children(n, depth);
    }
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
    const open: RichMark[] = [];
    const close = (): void => {
      out += tagsOf(open.pop()!)[1];
    };
    nodes.forEach((n, i) => {
      const marks = (n.marks ?? []).filter(isKnown);
      while (open.some((mark) => !marks.some((m) => isSame(m, mark)))) close();
      const rest = marks.filter((m) => !open.some((mark) => isSame(m, mark)));
      for (const mark of byReach(rest, nodes, i)) {
        open.push(mark);
        out += tagsOf(mark)[0];
      }
      out += this.leaf(n);
    });
    while (open.length > 0) close();
    return out;
  }

  private leaf(n: RichNode): string {
    if (n.type === 'hardBreak') return '<br>';
    if (n.type === 'image') return this.image(n);
    return typeof n.text === 'string' ? escapeHtml(n.text) : '';
  }

  private image(n: RichNode): string {
    const picture = this.scope.picture(String(n.attrs?.src ?? ''), 800);
    if (!picture) return '';
    const { alt: given, title } = n.attrs ?? {};
    const alt = typeof given === 'string' && given !== '' ? given : picture.alt;
    const named = typeof title === 'string' && title !== '' ? ` title="${escapeHtml(title)}"` : '';
    return `<img src="${escapeHtml(picture.src)}" alt="${escapeHtml(alt)}"${named} width="${picture.width}" height="${picture.height}" loading="lazy">`;
  }
}

/** An attribute that is to be a whole number; what else it holds counts as left out. */
function whole(value: unknown, otherwise: number): number {
  return typeof value === 'number' && Number.isFinite(value) ? Math.floor(value) : otherwise;
}

function codeBlock({ content, attrs }: RichNode): string {
  const text = (content ?? []).map((n) => escapeHtml(n.text ?? '')).join('');
  const { language } = attrs ?? {};
  const named =
    typeof language === 'string' && language !== ''
      ? ` class="language-${escapeHtml(language)}"`
      : '';
  return `<pre><code${named}>${text}${text === '' ? '' : '\n'}</code></pre>`;
}

function alignment({ attrs }: RichNode): string {
  const { align } = attrs ?? {};
  return align === 'left' || align === 'center' || align === 'right'
    ? ` class="align-${align}"`
    : '';
}

function isKnown(mark: RichMark): boolean {
  return MARKS.has(mark.type) || (mark.type === 'link' && isSafeLink(mark.attrs?.href));
}

function isSame(a: RichMark, b: RichMark): boolean {
  return a.type === b.type && a.attrs?.href === b.attrs?.href && a.attrs?.title === b.attrs?.title;
}

/** Marks that go on for longer stand outside those that end sooner. */
function byReach(marks: RichMark[], nodes: readonly RichNode[], from: number): RichMark[] {
  if (marks.length < 2) return marks;
  const reach = (mark: RichMark): number => {
    let n = from;
    while (nodes[n + 1]?.marks?.some((m) => isSame(m, mark))) n++;
    return n;
  };
  const reaches = new Map(marks.map((mark) => [mark, reach(mark)]));
  return [...marks].sort((a, b) => reaches.get(b)! - reaches.get(a)!);
}

function tagsOf(mark: RichMark): Tags {
  const known = MARKS.get(mark.type);
  if (known) return known;
  const { href, title } = mark.attrs ?? {};
  const named = typeof title === 'string' && title !== '' ? ` title="${escapeHtml(title)}"` : '';
  return [`<a href="${escapeHtml(String(href))}"${named}>`, '</a>'];
}
