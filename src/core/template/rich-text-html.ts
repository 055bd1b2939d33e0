import { escapeHtml } from '../text.ts';
import { type RichNode, isSafeLink } from '../rich-text.ts';
import type { RenderScope } from './context.ts';

const MARKS: Record<string, readonly [string, string]> = {
  bold: ['<strong>', '</strong>'],
  italic: ['<em>', '</em>'],
  strike: ['<s>', '</s>'],
  code: ['<code>', '</code>'],
  underline: ['<u>', '</u>'],
};
const SIMPLE: Record<string, string> = {
  blockquote: 'blockquote',
  bulletList: 'ul',
  tableRow: 'tr',
};

/** The HTML of a rich text document. Unknown nodes show their content only; nothing passes unescaped. */
export function richTextHtml(doc: unknown, scope: RenderScope): string {
  return node(doc as RichNode, scope, 0);
}

function node(n: RichNode | null | undefined, scope: RenderScope, depth: number): string {
  if (!n || depth > 40) return '';
  if (n.type === 'text') return n.marks ? marked(n, n.marks) : escapeHtml(n.text ?? '');
  if (n.type === 'paragraph') return `<p>${children(n, scope, depth)}</p>`;
  if (n.type === 'hardBreak') return '<br>';
  if (n.type === 'horizontalRule') return '<hr>';
  if (n.type === 'image') return image(n, scope);
  const inner = children(n, scope, depth);
  const tag = SIMPLE[n.type];
  if (tag) return `<${tag}>${inner}</${tag}>`;
  switch (n.type) {
    case 'heading': {
      const level = Math.min(6, Math.max(2, Math.floor(Number(n.attrs?.level)) || 2));
      return `<h${level}>${inner}</h${level}>`;
    }
    case 'orderedList': {
      const start = Math.floor(Number(n.attrs?.start ?? 1));
      return `<ol${start > 1 ? ` start="${start}"` : ''}>${inner}</ol>`;
    }
    case 'listItem':
      return `<li>${tight(n) ? inner.replace(/^<p>([\s\S]*?)<\/p>/, '$1') : inner}</li>`;
    case 'codeBlock':
      return `<pre><code>${inner}</code></pre>`;
    case 'table':
      return `<table><tbody>${inner}</tbody></table>`;
    case 'tableHeader':
      return `<th scope="col">${inner}</th>`;
    case 'tableCell':
      return `<td>${inner}</td>`;
    default:
      return inner;
  }
}

function children({ content }: RichNode, scope: RenderScope, depth: number): string {
  let out = '';
  if (content) for (const child of content) out += node(child, scope, depth + 1);
  return out;
}

// A list item of one paragraph, with or without a list below it, needs no paragraph element.
function tight(n: RichNode): boolean {
  return (
    (n.content ?? []).filter((c) => c.type === 'paragraph').length === 1 &&
    n.content?.[0]?.type === 'paragraph'
  );
}

function marked({ text }: RichNode, marks: NonNullable<RichNode['marks']>): string {
  let html = escapeHtml(text ?? '');
  for (const mark of marks) {
    const tags = MARKS[mark.type];
    if (tags) html = tags[0] + html + tags[1];
    else if (mark.type === 'link' && isSafeLink(mark.attrs?.href))
      html = `<a href="${escapeHtml(mark.attrs.href)}">${html}</a>`;
  }
  return html;
}

function image(n: RichNode, scope: RenderScope): string {
  const picture = scope.picture(String(n.attrs?.src ?? ''), 800);
  if (!picture) return '';
  const alt = typeof n.attrs?.alt === 'string' && n.attrs.alt !== '' ? n.attrs.alt : picture.alt;
  return `<img src="${escapeHtml(picture.src)}" alt="${escapeHtml(alt)}" width="${picture.width}" height="${picture.height}" loading="lazy">`;
}
