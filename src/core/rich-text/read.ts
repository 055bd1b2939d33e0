import { MAX_NESTING, type RichNode, isNode, nodesOf } from './document.ts';
import { NODES } from './nodes.ts';

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
  for (const node of nodesOf(doc)) {
    const found = node.type === type ? plainText(node) : '';
    if (found !== '') return found;
  }
  return '';
}

/** What a document itself names: pictures by the ids of media, entries it links to or shows. */
export function namedIn(doc: unknown): NamedInText[] {
  const found: NamedInText[] = [];
  if (isNode(doc)) gather(doc, found, 0);
  return found;
}

interface NamedInText {
  of: 'media' | 'entry';
  key: string;
}

// Asked of every text that a page shows: words without marks are passed over at once.
function gather(node: RichNode, found: NamedInText[], depth: number): void {
  const { type, marks, content } = node;
  if (marks !== undefined && Array.isArray(marks))
    for (const mark of marks) if (mark.type === 'link') note(found, 'entry', mark.attrs?.entry);
  if (type === 'text' || depth > MAX_NESTING) return;
  if (type === 'image') note(found, 'media', node.attrs?.src);
  else if (type === 'entry') note(found, 'entry', node.attrs?.entry);
  if (!Array.isArray(content)) return;
  for (const child of content) if (isNode(child)) gather(child, found, depth + 1);
}

function note(found: NamedInText[], of: NamedInText['of'], key: unknown): void {
  if (typeof key === 'string' && key !== '') found.push({ of, key });
}

/** The values of the parts in a document, with the type of each; what is no object is left out. */
export function partsIn(doc: unknown): { type: string; values: Record<string, unknown> }[] {
  const found: { type: string; values: Record<string, unknown> }[] = [];
  for (const { type, attrs } of nodesOf(doc))
    if (type === 'part' && typeof attrs?.type === 'string')
      found.push({ type: attrs.type, values: (attrs.values ?? {}) as Record<string, unknown> });
  return found;
}
