import { slugText } from '../pattern/slug.ts';
import { type RichNode, plainText } from '../rich-text/index.ts';

/** A heading of a text that links can lead to. */
export interface HeadingLine {
  id: string;
  /** As it is written; the drawn one may be lower. */
  level: number;
  words: string;
}

/**
 * Gives the headings of a text their ids, one after the other, as they come: a prefix and what they
 * say, numbered where two say the same.
 */
export function headingIds(prefix: string, language: string): (words: string) => string {
  const given = new Set<string>();
  return (words) => {
    const base = `${prefix}-${slugText(words, language) || 'part'}`;
    let id = base;
    for (let n = 2; given.has(id); n++) id = `${base}-${n}`;
    given.add(id);
    return id;
  };
}

/** The headings of a text that say something, in their order. */
export function headingsOf(doc: RichNode, prefix: string, language: string): HeadingLine[] {
  const known = FOUND.get(doc);
  if (known?.prefix === prefix && known.language === language) return known.lines;
  const lines = find(doc, prefix, language);
  FOUND.set(doc, { prefix, language, lines });
  return lines;
}

/** The headings of texts that were looked through already: one revision's is shown many times. */
const FOUND = new WeakMap<RichNode, { prefix: string; language: string; lines: HeadingLine[] }>();

function find(doc: RichNode, prefix: string, language: string): HeadingLine[] {
  const idOf = headingIds(prefix, language);
  const found: HeadingLine[] = [];
  const walk = (node: RichNode): void => {
    const words = node.type === 'heading' ? plainText(node).trim() : '';
    if (words !== '') found.push({ id: idOf(words), level: Number(node.attrs?.level ?? 2), words });
    for (const child of node.content ?? []) walk(child);
  };
  walk(doc);
  return found;
}
