import { isSafeLink } from './link.ts';

/** A node of a rich text document: ProseMirror's JSON form. */
export interface RichNode {
  type: string;
  attrs?: Record<string, unknown>;
  content?: RichNode[];
  marks?: RichMark[];
  text?: string;
}
/** A mark on words: bold, a link, … */
export interface RichMark {
  type: string;
  attrs?: Record<string, unknown>;
}

type Attributes = Record<string, (value: unknown) => boolean>;

/** What a kind of node may hold: its attributes, and the groups its children are of. */
interface NodeRule {
  attrs?: Attributes;
  holds: 'blocks' | 'inline' | 'text' | 'items' | 'rows' | 'cells' | 'nothing';
  group: 'blocks' | 'inline' | 'items' | 'rows' | 'cells';
}

const isText = (value: unknown): boolean => typeof value === 'string';
const isWhole =
  (from: number, to: number) =>
  (value: unknown): boolean =>
    Number.isInteger(value) && (value as number) >= from && (value as number) <= to;
const isAlignment = (value: unknown): boolean =>
  value === 'left' || value === 'center' || value === 'right';

const NODES = new Map<string, NodeRule>([
  ['paragraph', { holds: 'inline', group: 'blocks' }],
  ['heading', { holds: 'inline', group: 'blocks', attrs: { level: isWhole(1, 6) } }],
  ['blockquote', { holds: 'blocks', group: 'blocks' }],
  ['bulletList', { holds: 'items', group: 'blocks', attrs: { loose: (v) => v === true } }],
  [
    'orderedList',
    {
      holds: 'items',
      group: 'blocks',
      attrs: { start: isWhole(0, 999_999_999), loose: (v) => v === true },
    },
  ],
  ['listItem', { holds: 'blocks', group: 'items' }],
  ['codeBlock', { holds: 'text', group: 'blocks', attrs: { language: isText } }],
  ['table', { holds: 'rows', group: 'blocks' }],
  ['tableRow', { holds: 'cells', group: 'rows' }],
  ['tableCell', { holds: 'blocks', group: 'cells', attrs: { align: isAlignment } }],
  ['tableHeader', { holds: 'blocks', group: 'cells', attrs: { align: isAlignment } }],
  ['horizontalRule', { holds: 'nothing', group: 'blocks' }],
  [
    'image',
    { holds: 'nothing', group: 'inline', attrs: { src: isText, alt: isText, title: isText } },
  ],
  ['hardBreak', { holds: 'nothing', group: 'inline' }],
  ['text', { holds: 'nothing', group: 'inline' }],
]);
const MARKS = new Map<string, Attributes>([
  ['bold', {}],
  ['italic', {}],
  ['strike', {}],
  ['code', {}],
  ['underline', {}],
  ['link', { href: isSafeLink, title: isText }],
]);

/** How deep a document may nest. */
export const MAX_NESTING = 100;

function isNode(value: unknown): value is RichNode {
  return (
    typeof value === 'object' && value !== null && typeof (value as RichNode).type === 'string'
  );
}

/**
 * What is wrong with a document, in words; null where nothing is. Only known nodes and marks
 * pass.
 */
export function checkRichText(doc: unknown): string | null {
  if (!isNode(doc) || doc.type !== 'doc')
    return 'A rich text document starts with a node of type "doc".';
  return checkChildren(doc, 'blocks', 0);
}

function checkChildren(node: RichNode, holds: NodeRule['holds'], depth: number): string | null {
  const { content } = node;
  if (content === undefined) return null;
  if (!Array.isArray(content)) return 'The content of a node is a list.';
  for (const child of content) {
    const wrong = checkNode(child, node.type, holds, depth + 1);
    if (wrong !== null) return wrong;
  }
  return null;
}

function checkNode(
  node: unknown,
  parent: string,
  wanted: NodeRule['holds'],
  depth: number,
): string | null {
  if (depth > MAX_NESTING) return `Rich text nests at most ${MAX_NESTING} deep.`;
  if (!isNode(node)) return 'Every node of a rich text document has a type.';
  const rule = NODES.get(node.type);
  if (!rule) return `Rich text has no "${node.type.slice(0, 40)}".`;
  const aside = node.type === 'image' && wanted === 'blocks'; // as documents of earlier versions have it
  const fits = wanted === 'text' ? node.type === 'text' : rule.group === wanted || aside;
  if (!fits) return `A "${node.type}" may not stand in a "${parent}".`;
  if (node.type === 'text' && typeof node.text !== 'string') return 'A text node has a text.';
  return (
    checkAttributes(node.attrs, rule.attrs ?? {}, node.type) ??
    checkMarks(node.marks) ??
    checkChildren(node, rule.holds, depth)
  );
}

function checkMarks(marks: unknown): string | null {
  if (marks === undefined) return null;
  if (!Array.isArray(marks)) return 'The marks of a text are a list.';
  for (const mark of marks as unknown[]) {
    const rule = isNode(mark) ? MARKS.get(mark.type) : undefined;
    if (!isNode(mark) || !rule)
      return `Rich text has no mark "${String((mark as RichMark | null)?.type).slice(0, 40)}".`;
    if (mark.type === 'link' && !isSafeLink(mark.attrs?.href))
      return 'A link leads to http(s), mailto, tel, or a path of this site.';
    const wrong = checkAttributes(mark.attrs, rule, mark.type);
    if (wrong !== null) return wrong;
  }
  return null;
}

/** Attributes that a kind does not know are of no consequence; those it knows must fit. */
function checkAttributes(attrs: unknown, rules: Attributes, type: string): string | null {
  if (attrs === undefined || attrs === null) return null;
  if (typeof attrs !== 'object' || Array.isArray(attrs)) return 'Attributes stand by name.';
  for (const [name, fits] of Object.entries(rules)) {
    const value = (attrs as Record<string, unknown>)[name];
    if (value !== undefined && value !== null && !fits(value))
      return `"${name}" of a "${type}" does not fit.`;
  }
  return null;
}

/**
 * A checked document with what its kinds know and nothing else: no blank texts, no attributes
 * that say nothing.
 */
export function normalRichText(doc: unknown): RichNode {
  return normalNode(doc as RichNode);
}

function normalNode(node: RichNode): RichNode {
  const blocks = NODES.get(node.type)?.holds ?? 'blocks';
  const out: RichNode = { type: node.type };
  const attrs = normalAttributes(node.attrs, NODES.get(node.type)?.attrs ?? {});
  if (attrs) out.attrs = attrs;
  if (node.content) {
    const content = node.content
      .filter((n) => n.type !== 'text' || n.text !== '')
      .map(normalNode)
      .map((n) =>
        n.type === 'image' && blocks === 'blocks' ? { type: 'paragraph', content: [n] } : n,
      );
    if (content.length > 0) out.content = content;
  }
  if (node.text !== undefined) out.text = node.text;
  if (node.marks && node.marks.length > 0)
    out.marks = node.marks.map((mark) => {
      const known = normalAttributes(mark.attrs, MARKS.get(mark.type) ?? {});
      return { type: mark.type, ...(known ? { attrs: known } : {}) };
    });
  return out;
}

function normalAttributes(
  attrs: Record<string, unknown> | undefined,
  rules: Attributes,
): Record<string, unknown> | null {
  const known = Object.keys(rules).flatMap((name) => {
    const value = attrs?.[name];
    return value === undefined || value === null ? [] : [[name, value] as const];
  });
  return known.length === 0 ? null : Object.fromEntries(known);
}

/** A document of paragraphs: a blank line begins another. */
export function paragraphsOf(text: string): RichNode {
  const content = text
    .split(/\n\s*\n/)
    .map((words) => words.trim())
    .filter((words) => words !== '')
    .map((words) => ({ type: 'paragraph', content: [{ type: 'text', text: words }] }));
  return { type: 'doc', content: content.length > 0 ? content : [{ type: 'paragraph' }] };
}

/** All words of a document: blocks separated by a space, white space folded. */
export function plainText(doc: unknown): string {
  const out: string[] = [];
  const walk = (node: unknown, depth: number): void => {
    if (!isNode(node) || depth > MAX_NESTING) return;
    if (typeof node.text === 'string') out.push(node.text);
    if (node.type === 'hardBreak') out.push(' ');
    if (Array.isArray(node.content)) for (const child of node.content) walk(child, depth + 1);
    if (NODES.get(node.type)?.group !== 'inline') out.push(' ');
  };
  walk(doc, 0);
  return out.join('').replace(/\s+/gu, ' ').trim();
}

/**
 * The words of the first non-blank node of a type, anywhere in the document; '' where there is
 * none.
 */
export function firstOf(doc: unknown, type: 'paragraph' | 'heading'): string {
  if (!isNode(doc)) return '';
  if (doc.type === type) return plainText(doc);
  for (const child of Array.isArray(doc.content) ? doc.content : []) {
    const found = firstOf(child, type);
    if (found !== '') return found;
  }
  return '';
}

/** The pictures of a document, by the ids of media. */
export function picturesOf(doc: unknown): string[] {
  if (!isNode(doc)) return [];
  const own = doc.type === 'image' && typeof doc.attrs?.src === 'string' ? [doc.attrs.src] : [];
  return [...own, ...(Array.isArray(doc.content) ? doc.content : []).flatMap(picturesOf)];
}
