import { escapeHtml } from '../text.ts';
import { type RichNode, isSafeLink } from '../rich-text.ts';
import type { RenderScope } from './context.ts';

const MARK_TAGS: Record<string, string> = { bold: 'strong', italic: 'em', strike: 's', code: 'code', underline: 'u' };
const SIMPLE: Record<string, string> = { blockquote: 'blockquote', bulletList: 'ul', tableRow: 'tr' };

/** The HTML of a rich text document. Unknown nodes show their content only; nothing passes unescaped. */
export function richTextHtml(doc: unknown, scope: RenderScope): string {
  return node(doc as RichNode, scope, 0);
}

function node(n: RichNode | null | undefined, scope: RenderScope, depth: number): string {
  if (!n || depth > 40) return '';
  if (n.type === 'text') return marked(n);
  if (n.type === 'hardBreak') return '<br>';
  if (n.type === 'horizontalRule') return '<hr>';
  if (n.type === 'image') return image(n, scope);
  let inner = '';
  if (n.content) for (const child of n.content) inner += node(child, scope, depth + 1);
  if (n.type === 'paragraph') return `<p>${inner}</p>`;
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

// A list item of one paragraph, with or without a list below it, needs no paragraph element.
function tight(n: RichNode): boolean {
  return (n.content ?? []).filter((c) => c.type === 'paragraph').length === 1 && n.content?.[0]?.type === 'paragraph';
}

function marked(n: RichNode): string {
  let html = escapeHtml(n.text ?? '');
  if (!n.marks) return html;
  for (const mark of n.marks) {
    if (mark.type === 'link') {
      if (isSafeLink(mark.attrs?.href)) html = `<a href="${escapeHtml(mark.attrs.href)}">${html}</a>`;
      continue;
    }
    const tag = MARK_TAGS[mark.type];
    if (tag) html = `<${tag}>${html}</${tag}>`;
  }
  return html;
}

function image(n: RichNode, scope: RenderScope): string {
  const picture = scope.picture(String(n.attrs?.src ?? ''), 800);
  if (!picture) return '';
  const alt = typeof n.attrs?.alt === 'string' && n.attrs.alt !== '' ? n.attrs.alt : picture.alt;
  return `<img src="${escapeHtml(picture.src)}" alt="${escapeHtml(alt)}" width="${picture.width}" height="${picture.height}" loading="lazy">`;
}
