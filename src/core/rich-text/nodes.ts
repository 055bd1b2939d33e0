import { isSafeLink } from '../link.ts';

/** What an attribute may hold, in words and as a test. */
export interface Attribute {
  /** Completes "is …": "a whole number from 1 to 6". */
  words: string;
  fits: (value: unknown) => boolean;
  /** JSON Schema of its values. */
  schema: Record<string, unknown>;
  required?: true;
}

/** Where nodes may stand. */
export type Place = 'blocks' | 'inline' | 'items' | 'rows' | 'cells';

/** A kind of node: what it is called, what it holds and where it stands. */
export interface NodeRule {
  label: string;
  attrs: Readonly<Record<string, Attribute>>;
  holds: Place | 'text' | 'nothing';
  group: Place;
  /** Whether fields say if it may stand: what is no choice is part of another one. */
  choice: boolean;
}

const text = (words = 'a text'): Attribute => ({
  words,
  fits: (value) => typeof value === 'string',
  schema: { type: 'string' },
});
const named = (words: string): Attribute => ({
  words,
  fits: (value) => typeof value === 'string' && value !== '' && value.length <= 200,
  schema: { type: 'string', minLength: 1, maxLength: 200 },
});
const whole = (from: number, to: number): Attribute => ({
  words: `a whole number from ${from} to ${to}`,
  fits: (value) => Number.isInteger(value) && (value as number) >= from && (value as number) <= to,
  schema: { type: 'integer', minimum: from, maximum: to },
});
const yes: Attribute = { words: 'true', fits: (v) => v === true, schema: { const: true } };
const alignment: Attribute = {
  words: '"left", "center" or "right"',
  fits: (value) => value === 'left' || value === 'center' || value === 'right',
  schema: { enum: ['left', 'center', 'right'] },
};
const style = named('the id or key of a style of the site');
const values: Attribute = {
  words: 'values by the keys of fields',
  fits: (value) => typeof value === 'object' && value !== null && !Array.isArray(value),
  schema: { type: 'object' },
};

const node = (
  label: string,
  group: Place,
  holds: NodeRule['holds'],
  attrs: NodeRule['attrs'] = {},
  choice = group === 'blocks',
): NodeRule => ({ label, group, holds, attrs, choice });

/** Every kind of node but the document itself, by its type. */
export const NODES: ReadonlyMap<string, NodeRule> = new Map([
  ['paragraph', node('Paragraph', 'blocks', 'inline', { style }, false)],
  ['heading', node('Heading', 'blocks', 'inline', { level: whole(1, 6), style })],
  ['blockquote', node('Quote', 'blocks', 'blocks')],
  ['bulletList', node('List', 'blocks', 'items', { loose: yes })],
  [
    'orderedList',
    node('Numbered list', 'blocks', 'items', { start: whole(0, 999_999_999), loose: yes }),
  ],
  ['listItem', node('List item', 'items', 'blocks')],
  ['codeBlock', node('Code block', 'blocks', 'text', { language: text() })],
  ['table', node('Table', 'blocks', 'rows')],
  ['tableRow', node('Table row', 'rows', 'cells')],
  ['tableCell', node('Table cell', 'cells', 'blocks', { align: alignment })],
  ['tableHeader', node('Header cell', 'cells', 'blocks', { align: alignment })],
  ['horizontalRule', node('Divider', 'blocks', 'nothing')],
  [
    'entry',
    node('Entry', 'blocks', 'nothing', {
      entry: { ...named('the id of an entry'), required: true },
    }),
  ],
  [
    'part',
    node('Part', 'blocks', 'nothing', {
      type: { ...named('the id or key of a content type'), required: true },
      values,
    }),
  ],
  [
    'image',
    node('Picture', 'inline', 'nothing', { src: text(), alt: text(), title: text(), style }, true),
  ],
  ['hardBreak', node('Line break', 'inline', 'nothing', {}, false)],
  ['text', node('Text', 'inline', 'nothing', {}, false)],
]);

/** A kind of mark on words. */
export interface MarkRule {
  label: string;
  attrs: Readonly<Record<string, Attribute>>;
}

const href: Attribute = {
  words: 'an address of http(s), mailto, tel, or a path of this site',
  fits: isSafeLink,
  schema: { type: 'string' },
};

/** Every kind of mark, by its type. */
export const MARKS: ReadonlyMap<string, MarkRule> = new Map<string, MarkRule>([
  ['bold', { label: 'Bold', attrs: {} }],
  ['italic', { label: 'Italic', attrs: {} }],
  ['strike', { label: 'Struck through', attrs: {} }],
  ['code', { label: 'Code', attrs: {} }],
  ['underline', { label: 'Underlined', attrs: {} }],
  ['link', { label: 'Link', attrs: { href, entry: named('the id of an entry'), title: text() } }],
  ['styled', { label: 'Style', attrs: { style: { ...style, required: true } } }],
]);

/** Kinds of nodes that fields can let in or leave out, by type, with their labels. */
export const BLOCK_CHOICES = [...NODES].flatMap(([type, { label, choice }]) =>
  choice ? [{ type, label }] : [],
);
/** The same of marks; styles are chosen one by one. */
export const MARK_CHOICES = [...MARKS].flatMap(([type, { label }]) =>
  type === 'styled' ? [] : [{ type, label }],
);
