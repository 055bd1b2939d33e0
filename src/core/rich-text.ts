/** A node of a rich text document: ProseMirror's JSON form. */
export interface RichNode {
  type: string;
  attrs?: Record<string, unknown>;
  content?: RichNode[];
  marks?: { type: string; attrs?: Record<string, unknown> }[];
  text?: string;
}

const BLOCKS = new Set([
  'paragraph',
  'heading',
  'blockquote',
  'listItem',
  'bulletList',
  'orderedList',
  'codeBlock',
  'tableRow',
  'table',
  'horizontalRule',
]);

function isNode(value: unknown): value is RichNode {
  return (
    typeof value === 'object' && value !== null && typeof (value as RichNode).type === 'string'
  );
}

/** All words of a document: blocks separated by a space, white space folded. */
export function plainText(doc: unknown): string {
  const out: string[] = [];
  const walk = (node: unknown): void => {
    if (!isNode(node)) return;
    if (node.text !== undefined) out.push(node.text);
    if (node.type === 'hardBreak') out.push(' ');
    node.content?.forEach(walk);
    if (BLOCKS.has(node.type) || node.type === 'tableCell' || node.type === 'tableHeader')
      out.push(' ');
  };
  walk(doc);
  return out.join('').replace(/\s+/gu, ' ').trim();
}

/** The words of the first non-blank node of a type, anywhere in the document; '' where there is none. */
export function firstOf(doc: unknown, type: 'paragraph' | 'heading'): string {
  if (!isNode(doc)) return '';
  if (doc.type === type) return plainText(doc);
  for (const child of doc.content ?? []) {
    const found = firstOf(child, type);
    if (found !== '') return found;
  }
  return '';
}

const NODES = new Set([...BLOCKS, 'doc', 'text', 'hardBreak', 'tableCell', 'tableHeader', 'image']);
const MARKS = new Set(['bold', 'italic', 'strike', 'code', 'link', 'underline']);
const MAX_DEPTH = 40;

/** What is wrong with a document, in words; null where nothing is. Only known nodes and marks pass. */
export function checkRichText(doc: unknown): string | null {
  if (!isNode(doc) || doc.type !== 'doc')
    return 'A rich text document starts with a node of type "doc".';
  return checkNode(doc, 0);
}

function checkNode(node: unknown, depth: number): string | null {
  if (depth > MAX_DEPTH) return `Rich text nests at most ${MAX_DEPTH} deep.`;
  if (!isNode(node)) return 'Every node of a rich text document has a type.';
  if (!NODES.has(node.type)) return `Rich text has no "${node.type.slice(0, 40)}".`;
  if (node.type === 'text' && typeof node.text !== 'string') return 'A text node has a text.';
  for (const mark of node.marks ?? []) {
    if (!MARKS.has(mark?.type))
      return `Rich text has no mark "${String(mark?.type).slice(0, 40)}".`;
    if (mark.type === 'link' && !isSafeLink(mark.attrs?.href))
      return 'A link leads to http(s), mailto, tel, or a path of this site.';
  }
  if (node.content !== undefined && !Array.isArray(node.content))
    return 'The content of a node is a list.';
  for (const child of node.content ?? []) {
    const wrong = checkNode(child, depth + 1);
    if (wrong !== null) return wrong;
  }
  return null;
}

/** Whether a link target is http(s), mailto, tel, a path or a fragment. */
export function isSafeLink(href: unknown): href is string {
  return typeof href === 'string' && /^(https?:\/\/|mailto:|tel:|\/(?!\/)|#|\?)/i.test(href);
}
