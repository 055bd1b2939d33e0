import { MAX_NESTING, type RichNode, isNode } from './document.ts';
import { plainText } from './read.ts';

/** A document as lines of text, a block each, with signs for what is no paragraph. */
export function textLines(doc: unknown): string[] {
  return isNode(doc) ? linesOf(doc, '', 0) : [];
}

function linesOf(node: RichNode, sign: string, depth: number): string[] {
  if (depth > MAX_NESTING) return [];
  const content = node.content ?? [];
  const within = (more: string): string[] =>
    content.flatMap((child, i) =>
      linesOf(child, `${i === 0 ? sign : blank(sign)}${more}`, depth + 1),
    );
  switch (node.type) {
    case 'doc':
      return within('');
    case 'heading':
      return [`${sign}${'#'.repeat(Number(node.attrs?.level) || 1)} ${lineOf(node)}`];
    case 'blockquote':
      return within('> ');
    case 'listItem':
      return within('• ');
    case 'bulletList':
    case 'orderedList':
      return content.flatMap((item) => linesOf(item, sign, depth + 1));
    case 'codeBlock':
      return content.flatMap(({ text = '' }) => text.split('\n').map((line) => `${sign}  ${line}`));
    case 'table':
      return content.map((row) => `${sign}${(row.content ?? []).map(plainText).join(' | ')}`);
    case 'horizontalRule':
      return [`${sign}———`];
    case 'entry':
      return [`${sign}[${String(node.attrs?.entry)}]`];
    case 'part':
      return [`${sign}[${JSON.stringify(node.attrs?.values ?? {})}]`];
    default:
      return [`${sign}${lineOf(node)}`].filter((line) => line.trim() !== '');
  }
}

function blank(sign: string): string {
  return ' '.repeat(sign.length);
}

/** The words of a line, pictures by their names. */
function lineOf(node: RichNode): string {
  const pictures = (node.content ?? []).flatMap(({ type, attrs }) =>
    type === 'image' ? [`[${String(attrs?.src)}]`] : [],
  );
  return [plainText(node), ...pictures].filter((words) => words !== '').join(' ');
}
