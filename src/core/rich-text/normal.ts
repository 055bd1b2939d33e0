import type { RichMark, RichNode } from './document.ts';
import { nestedMarks } from './nesting.ts';
import { type Attribute, MARKS, NODES } from './nodes.ts';

/**
 * A checked document with what its kinds know and nothing else: no blank texts, no attributes
 * that say nothing, marks as they nest, and texts of the same marks in one.
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
    const own = node.content.filter((n) => n.type !== 'text' || n.text !== '').map(normalNode);
    const content = joined(withNestedMarks(own)).map((n) =>
      n.type === 'image' && blocks === 'blocks' ? { type: 'paragraph', content: [n] } : n,
    );
    if (content.length > 0) out.content = content;
  }
  if (node.text !== undefined) out.text = node.text;
  if (node.marks && node.marks.length > 0) out.marks = normalMarks(node.marks);
  return out;
}

function normalMarks(marks: readonly RichMark[]): RichMark[] {
  return marks.map((mark) => {
    const known = normalAttributes(mark.attrs, MARKS.get(mark.type)?.attrs ?? {});
    return { type: mark.type, ...(known ? { attrs: known } : {}) };
  });
}

/** Nodes with their marks in the order in which they nest. */
function withNestedMarks(nodes: RichNode[]): RichNode[] {
  if (!nodes.some(({ marks }) => marks && marks.length > 1)) return nodes;
  return nestedMarks(nodes).map((marks, i) =>
    marks.length > 1 ? { ...nodes[i]!, marks } : nodes[i]!,
  );
}

/** Texts that follow each other with the same marks, as one text. */
function joined(nodes: readonly RichNode[]): RichNode[] {
  const out: RichNode[] = [];
  for (const node of nodes) {
    const last = out.at(-1);
    const joins =
      last?.type === 'text' &&
      node.type === 'text' &&
      JSON.stringify(last.marks) === JSON.stringify(node.marks);
    if (joins) out[out.length - 1] = { ...last, text: `${last.text}${node.text}` };
    else out.push(node);
  }
  return out;
}

function normalAttributes(
  attrs: Record<string, unknown> | undefined,
  rules: Readonly<Record<string, Attribute>>,
): Record<string, unknown> | null {
  const known = Object.keys(rules).flatMap((name) => {
    const value = attrs?.[name];
    return value === undefined || value === null ? [] : [[name, value] as const];
  });
  return known.length === 0 ? null : Object.fromEntries(known);
}
