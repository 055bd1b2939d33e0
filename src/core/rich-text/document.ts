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

/** How deep a document may nest. */
export const MAX_NESTING = 100;

/** Whether a value has the outer form of a node. */
export function isNode(value: unknown): value is RichNode {
  return (
    typeof value === 'object' && value !== null && typeof (value as RichNode).type === 'string'
  );
}

/** Whether a value is a document within another value, as parts hold them. */
export function isDocument(value: unknown): value is RichNode {
  return isNode(value) && value.type === 'doc';
}

/** A node with something done to all that stand in it, from the outermost in. */
export function mapNodes(node: RichNode, act: (node: RichNode) => RichNode): RichNode {
  const own = act(node);
  const { content } = own;
  return content ? { ...own, content: content.map((child) => mapNodes(child, act)) } : own;
}

/** Every node of a document, itself first, down to the nesting that documents may have. */
export function* nodesOf(doc: unknown, depth = 0): Generator<RichNode> {
  if (!isNode(doc) || depth > MAX_NESTING) return;
  yield doc;
  if (Array.isArray(doc.content)) for (const child of doc.content) yield* nodesOf(child, depth + 1);
}
