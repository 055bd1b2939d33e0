import { MAX_NESTING, type RichMark, type RichNode } from './document.ts';
import { MARKS, NODES } from './nodes.ts';
import { plainText } from './read.ts';

/** What a text may hold; null where all of a sort may stand. */
export interface TextForm {
  /** Types of marks and of nodes that are a choice. */
  marks: ReadonlySet<string> | null;
  blocks: ReadonlySet<string> | null;
  /** Levels of headings. */
  levels: ReadonlySet<number> | null;
  /** Ids of the content types whose values may be parts, and of styles. */
  parts: ReadonlySet<string>;
  styles: ReadonlySet<string>;
}

/** Something that was taken out of a text, or made into something plainer. */
export interface Removed {
  /** What it was, as screens name it: "Table". */
  what: string;
  /** A JSON Pointer to where it stood. */
  at: string;
  /** Its words; '' where it has none. */
  words: string;
  /** What stood there. */
  node: RichNode;
}

/**
 * A document with what a form allows and nothing else. Words stay: of a mark the words, of a
 * heading, list, quote, table or code its paragraphs; only what has no words goes as a whole.
 */
export function withinForm(doc: RichNode, form: TextForm): { doc: RichNode; removed: Removed[] } {
  const removed: Removed[] = [];
  const fitting = new Fitting(form, removed);
  if ((doc.content ?? []).every((node) => fitting.fits(node, 1))) return { doc, removed };
  const content = fitting.blocks(doc.content ?? [], '', 0);
  if (removed.length === 0) return { doc, removed };
  return { doc: { ...doc, content: content.length > 0 ? content : [PARAGRAPH] }, removed };
}

const PARAGRAPH: RichNode = { type: 'paragraph' };

class Fitting {
  constructor(
    private readonly form: TextForm,
    private readonly removed: Removed[],
  ) {}

  /** Whether a node may stand with all that it holds: so do most, and nothing is copied. */
  fits(node: RichNode, depth: number): boolean {
    const { marks, attrs, content } = node;
    return (
      depth <= MAX_NESTING &&
      this.reason(node) === null &&
      (!marks || marks.every((mark) => this.isFitting(mark))) &&
      (attrs?.style === undefined || this.form.styles.has(String(attrs.style))) &&
      (!content || content.every((child) => this.fits(child, depth + 1)))
    );
  }

  blocks(nodes: readonly RichNode[], at: string, depth: number): RichNode[] {
    return nodes.flatMap((node, i) => this.node(node, `${at}/content/${i}`, depth + 1));
  }

  private node(node: RichNode, at: string, depth: number): RichNode[] {
    if (depth > MAX_NESTING) return [];
    const reason = this.reason(node);
    const fitting = this.fitted(node, at);
    const content = node.content && this.blocks(node.content, at, depth);
    if (reason === null) return [content ? { ...fitting, content } : fitting];
    this.removed.push({ what: reason, at, words: plainText(node), node });
    return plainer(fitting, content ?? [], this.form);
  }

  /** What keeps a node from standing, as screens name it; null where nothing does. */
  private reason({ type, attrs }: RichNode): string | null {
    const rule = NODES.get(type);
    if (!rule) return `“${type}”`;
    const { blocks, levels, parts } = this.form;
    if (rule.choice && blocks && !blocks.has(type)) return rule.label;
    if (type === 'heading' && levels && !levels.has(Number(attrs?.level)))
      return `Heading of level ${String(attrs?.level)}`;
    if (type === 'part' && !parts.has(String(attrs?.type))) return rule.label;
    return null;
  }

  /** A node with the marks and the style that may stand. */
  private fitted(node: RichNode, at: string): RichNode {
    const { marks, attrs } = node;
    const kept = marks?.filter((mark) => this.isFitting(mark));
    for (const mark of marks ?? [])
      if (!kept!.includes(mark))
        this.removed.push({
          what: MARKS.get(mark.type)?.label ?? `“${mark.type}”`,
          ...{ at, words: node.text ?? '', node },
        });
    const own = { ...node };
    if (marks && kept!.length < marks.length) {
      if (kept!.length > 0) own.marks = kept!;
      else delete own.marks;
    }
    if (attrs?.style === undefined || this.form.styles.has(String(attrs.style))) return own;
    this.removed.push({ what: 'Style', at, words: plainText(node), node });
    const { style: _, ...rest } = attrs;
    own.attrs = rest;
    if (Object.keys(rest).length === 0) delete own.attrs;
    return own;
  }

  private isFitting({ type, attrs }: RichMark): boolean {
    if (!MARKS.has(type)) return false;
    if (type === 'styled') return this.form.styles.has(String(attrs?.style));
    return !this.form.marks || this.form.marks.has(type);
  }
}

/** What stands in the place of a node that may not: its words, in the plainest form they have. */
function plainer(node: RichNode, content: RichNode[], form: TextForm): RichNode[] {
  switch (node.type) {
    case 'heading': {
      const level = nearestLevel(Number(node.attrs?.level), form);
      if (level === null) return [{ ...PARAGRAPH, content }];
      return [{ ...node, attrs: { ...node.attrs, level }, content }];
    }
    case 'codeBlock': {
      const lines = plainLines(node);
      return lines.map((text) => ({ ...PARAGRAPH, content: [{ type: 'text', text }] }));
    }
    case 'bulletList':
    case 'orderedList':
    case 'table':
      return content.flatMap(({ type, content: inner = [] }) =>
        type === 'tableRow' ? inner.flatMap((cell) => cell.content ?? []) : inner,
      );
    case 'blockquote':
      return content;
    default:
      return [];
  }
}

function nearestLevel(level: number, { levels, blocks }: TextForm): number | null {
  if (!levels || (blocks && !blocks.has('heading'))) return null;
  const sorted = [...levels].sort((a, b) => Math.abs(a - level) - Math.abs(b - level) || a - b);
  return sorted[0] ?? null;
}

function plainLines({ content = [] }: RichNode): string[] {
  const text = content.map((n) => n.text ?? '').join('');
  return text.split('\n').filter((line) => line.trim() !== '');
}
