import { type Result, ok, refused } from '../issue.ts';
import {
  type RichFault,
  type RichNode,
  checkRichText,
  mapNodes,
  normalRichText,
} from '../rich-text/index.ts';
import type { Field } from './field.ts';
import { parseItem, printItem } from './item-values.ts';
import type { Given } from './kinds/definition.ts';
import { type FieldTextForm, textFormOf } from './text-form.ts';
import type { Values } from './values-of.ts';

/**
 * A rich text document as it is stored, by the ids of types, fields and styles, from one that may
 * name them by their keys. What is wrong is told by a JSON Pointer into the document.
 */
export function parseText(raw: unknown, field: Field, given: Given): Result<RichNode> {
  const wrong = checkRichText(raw);
  if (wrong) return refusedText(field, wrong);
  const reading = new TextReading(field, given);
  const doc = reading.node(normalRichText(raw), '');
  return reading.fault ? refusedText(field, reading.fault) : ok(doc);
}

/** A stored document with the keys of types, fields and styles, as `parseText` takes it. */
export function printText(stored: unknown, field: Field, zone: string): RichNode {
  const { allParts, allStyles } = textFormOf(field);
  const keyOf = (id: unknown): unknown => allStyles.find((style) => style.id === id)?.key ?? id;
  return mapNodes(stored as RichNode, (node) => {
    const marks = node.marks?.map((mark) =>
      mark.type === 'styled' ? { ...mark, attrs: { style: keyOf(mark.attrs?.style) } } : mark,
    );
    const own = marks ? { ...node, marks } : node;
    if (node.attrs?.style !== undefined)
      return { ...own, attrs: { ...node.attrs, style: keyOf(node.attrs.style) } };
    const part = node.type === 'part' && allParts.find(({ id }) => id === node.attrs?.type);
    if (!part) return own;
    const values = printItem((node.attrs?.values ?? {}) as Values, part.fields, zone);
    return { ...own, attrs: { type: part.key, values } };
  });
}

function refusedText(field: Field, { at, words }: RichFault): Result<never> {
  return refused({
    code: 'wrong-value',
    path: field.key,
    message: `${field.label} is no rich text: at "${at || '/'}": ${words}`,
    fix: 'docs/rich-text.md says what documents hold.',
  });
}

/** How deep parts may stand within each other's texts. */
const MAX_PARTS = 10;

class TextReading {
  /** What is wrong first. */
  fault: RichFault | null = null;
  private readonly form: FieldTextForm;

  constructor(
    field: Field,
    private readonly given: Given,
  ) {
    this.form = textFormOf(field);
  }

  node(node: RichNode, at: string): RichNode {
    const own = node.type === 'part' ? this.part(node, at) : this.styled(node, at);
    const { content } = own;
    if (!content) return own;
    return {
      ...own,
      content: content.map((child, i) => this.node(child, `${at}/content/${i}`)),
    };
  }

  private part(node: RichNode, at: string): RichNode {
    const { type, values: raw = {} } = node.attrs as { type: string; values?: Values };
    const { allParts } = this.form;
    const part = named(allParts, type, this.given);
    if (!part && this.given.isKept?.('type', type)) return node;
    if (!part) {
      const keys = allParts.map(({ key }) => key);
      const there = keys.length === 0 ? 'the site has none' : `there are ${keys.join(', ')}`;
      this.fault ??= { at: `${at}/attrs/type`, words: `"${type}" is no type of parts; ${there}.` };
      return node;
    }
    const within = (this.given.within ?? 0) + 1;
    if (within > MAX_PARTS) {
      this.fault ??= { at, words: `Parts stand at most ${MAX_PARTS} deep within each other.` };
      return node;
    }
    const { values, issues } = parseItem(raw, part.fields, { ...this.given, within });
    for (const { path, message, fix } of issues.slice(0, 1))
      this.fault ??= { at: `${at}/attrs/values/${path}`, words: `${message} ${fix ?? ''}`.trim() };
    return { ...node, attrs: { type: part.id, values } };
  }

  private styled(node: RichNode, at: string): RichNode {
    const marks = node.marks?.map((mark, i) =>
      mark.type === 'styled'
        ? {
            ...mark,
            attrs: { style: this.style(mark.attrs?.style, `${at}/marks/${i}/attrs/style`) },
          }
        : mark,
    );
    const own = marks ? { ...node, marks } : node;
    if (node.attrs?.style === undefined) return own;
    const style = this.style(node.attrs.style, `${at}/attrs/style`);
    return { ...own, attrs: { ...node.attrs, style } };
  }

  private style(name: unknown, at: string): string {
    const { allStyles } = this.form;
    const found = named(allStyles, String(name), this.given);
    if (found) return found.id;
    if (this.given.isKept?.('style', name)) return String(name);
    const keys = allStyles.map(({ key }) => key);
    const there = keys.length === 0 ? 'the site has none' : `there are ${keys.join(', ')}`;
    this.fault ??= { at, words: `"${String(name)}" is no style; ${there}.` };
    return String(name);
  }
}

/** What is called so: forms say ids, files keys, and one may be the other's. */
function named<T extends { id: string; key: string }>(
  all: readonly T[],
  name: string,
  { isKept }: Given,
): T | undefined {
  const byId = all.find(({ id }) => id === name);
  const byKey = all.find(({ key }) => key === name);
  return isKept ? (byId ?? byKey) : (byKey ?? byId);
}
