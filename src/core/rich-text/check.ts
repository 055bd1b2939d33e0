import { MAX_NESTING, type RichMark, type RichNode, isNode } from './document.ts';
import { type Attribute, MARKS, NODES, type NodeRule } from './nodes.ts';

/** What is wrong with a document, and where: a JSON Pointer (RFC 6901) into it. */
export interface RichFault {
  at: string;
  words: string;
}

const fault = (at: string, words: string): RichFault => ({ at, words });

/** What is first wrong with a document; null where nothing is. Only known nodes and marks pass. */
export function checkRichText(doc: unknown): RichFault | null {
  if (!isNode(doc) || doc.type !== 'doc')
    return fault('', 'A rich text document is an object with "type": "doc".');
  return checkChildren(doc, 'blocks', '', 0);
}

function checkChildren(
  node: RichNode,
  holds: NodeRule['holds'],
  at: string,
  depth: number,
): RichFault | null {
  const { content } = node;
  if (content === undefined) return null;
  if (!Array.isArray(content))
    return fault(`${at}/content`, 'The content of a node is a list of nodes.');
  for (const [i, child] of content.entries()) {
    const wrong = checkNode(child, node.type, holds, `${at}/content/${i}`, depth + 1);
    if (wrong !== null) return wrong;
  }
  return null;
}

function checkNode(
  node: unknown,
  parent: string,
  wanted: NodeRule['holds'],
  at: string,
  depth: number,
): RichFault | null {
  if (depth > MAX_NESTING) return fault(at, `Rich text nests at most ${MAX_NESTING} deep.`);
  if (!isNode(node)) return fault(at, 'A node is an object with a "type".');
  const rule = NODES.get(node.type);
  if (!rule)
    return fault(
      `${at}/type`,
      `Rich text has no "${node.type.slice(0, 40)}"; a "${parent}" holds ${held(wanted)}.`,
    );
  const aside = node.type === 'image' && wanted === 'blocks'; // as documents of earlier versions have it
  const fits = wanted === 'text' ? node.type === 'text' : rule.group === wanted || aside;
  if (!fits)
    return fault(
      at,
      `A "${node.type}" may not stand in a "${parent}", which holds ${held(wanted)}.`,
    );
  if (node.type === 'text' && typeof node.text !== 'string')
    return fault(`${at}/text`, 'A text node has a "text".');
  return (
    checkAttributes(node.attrs, rule.attrs, node.type, `${at}/attrs`) ??
    checkMarks(node.marks, `${at}/marks`) ??
    checkChildren(node, rule.holds, at, depth)
  );
}

function held(wanted: NodeRule['holds']): string {
  if (wanted === 'nothing') return 'nothing';
  const types = [...NODES].flatMap(([type, { group }]) => (group === wanted ? [type] : []));
  return wanted === 'text' ? 'text' : types.join(', ');
}

function checkMarks(marks: unknown, at: string): RichFault | null {
  if (marks === undefined) return null;
  if (!Array.isArray(marks)) return fault(at, 'The marks of a text are a list.');
  for (const [i, mark] of (marks as unknown[]).entries()) {
    const rule = isNode(mark) ? MARKS.get(mark.type) : undefined;
    if (!isNode(mark) || !rule)
      return fault(
        `${at}/${i}/type`,
        `Rich text has no mark "${String((mark as RichMark | null)?.type).slice(0, 40)}"; ` +
          `there are ${[...MARKS.keys()].join(', ')}.`,
      );
    const wrong = checkAttributes(mark.attrs, rule.attrs, mark.type, `${at}/${i}/attrs`);
    if (wrong !== null) return wrong;
    if (mark.type === 'link' && isBlank(mark.attrs?.href) && isBlank(mark.attrs?.entry))
      return fault(`${at}/${i}/attrs`, 'A link has an "href" or the id of an "entry".');
  }
  return null;
}

const isBlank = (value: unknown): boolean => value === undefined || value === null;

/** Attributes that a kind does not know are of no consequence; those it knows must fit. */
function checkAttributes(
  attrs: unknown,
  rules: Readonly<Record<string, Attribute>>,
  type: string,
  at: string,
): RichFault | null {
  if (!isBlank(attrs) && (typeof attrs !== 'object' || Array.isArray(attrs)))
    return fault(at, 'Attributes stand by name in an object.');
  for (const [name, { fits, words, required }] of Object.entries(rules)) {
    const value = (attrs as Record<string, unknown> | undefined)?.[name];
    if (isBlank(value) ? required : !fits(value))
      return fault(`${at}/${name}`, `"${name}" of a "${type}" is ${words}.`);
  }
  return null;
}
