import { type Scope, type ValueKind, type ValueType, one } from '../types.ts';

/** One argument of a function: the kinds it takes, and whether it takes a list. */
export interface Parameter {
  name: string;
  kinds: readonly ValueKind[] | 'any';
  /** `one`: a single value; `list`: a list (a single value counts as a list of one). */
  takes: 'one' | 'list';
  optional?: boolean;
  /** Only a text or number written in the pattern will do; checked when the pattern is written. */
  literal?: (value: string | number, inAddress: boolean) => string | null;
}

/** A function of the pattern language. Blank first arguments give blank unless `takesBlank`. */
export interface PatternFunction {
  name: string;
  /** What it gives, in one sentence. */
  doc: string;
  parameters: readonly Parameter[];
  returns: (args: ValueType[]) => ValueType;
  takesBlank?: boolean;
  /** Reads the path of the entry given. */
  readsPath?: boolean;
  /** Lists come without blank members. */
  call: (args: unknown[], scope: Scope, types: ValueType[]) => unknown;
  /**
   * `pattern` gives `result` where the entry's fields are `fields` (by kind) and the language
   * English.
   */
  example: {
    pattern: string;
    fields: Record<string, { kind: Exclude<ValueKind, 'object'>; value: unknown }>;
    result: string;
  };
}

/** Kinds whose text form is plain words. */
export const TEXTUAL = [
  'text',
  'choice',
  'path',
  'number',
  'object',
] as const satisfies readonly ValueKind[];
/** Kinds that stand for a day. */
export const DATES = ['date', 'datetime'] as const satisfies readonly ValueKind[];

/** A parameter that takes a single value as text. */
export const textParameter = (name: string): Parameter => ({ name, kinds: TEXTUAL, takes: 'one' });

/** A function that gives words out of one rich text; its example is a heading and a paragraph. */
export function ofRichText(
  name: string,
  doc: string,
  read: (document: unknown) => string | null,
  result: string,
): PatternFunction {
  const content = [
    { type: 'heading', attrs: { level: 2 }, content: [{ type: 'text', text: 'Blue' }] },
    { type: 'paragraph', content: [{ type: 'text', text: 'Sweet.' }] },
  ];
  return {
    name,
    doc,
    parameters: [{ name: 'rich text', kinds: ['richtext'], takes: 'one' }],
    returns: () => one('text'),
    call: ([value]) => read(value),
    example: {
      pattern: `{${name}(story)}`,
      fields: { story: { kind: 'richtext', value: { type: 'doc', content } } },
      result,
    },
  };
}
