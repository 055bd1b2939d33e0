import type { ControlName } from './controls.ts';
import type { FormatName } from './media-formats.ts';

/** A prepared option of a choice. */
export interface FieldOption {
  /** Stays when the key is renamed; values are stored under it. */
  id: string;
  key: string;
  label: string;
}

/** Where a link leads: to an entry, wherever its page is, or to an address; and its words. */
export interface LinkValue {
  entry?: string;
  to?: string;
  words?: string;
}

/** What a field was before its kind, or whether it holds several, was changed. */
export interface FieldBefore {
  /** Its id: values stored so far stand under it. */
  field: string;
  kind: string;
  many: boolean;
  /** What the options of a choice were called, by id. */
  labels?: Record<string, string> | undefined;
  /** What it was computed by. */
  pattern?: string | undefined;
  replaces?: FieldBefore | undefined;
}

/** A named, typed slot of a content type. What only some kinds have is optional. */
export interface Field {
  /** Stays when the key is renamed; values are stored under it. */
  id: string;
  key: string;
  label: string;
  /** Names one of the kinds in `kinds/index.ts`. */
  kind: string;
  help?: string | undefined;
  required: boolean;
  /** No two entries of the type have the same value. */
  unique?: boolean | undefined;
  many: boolean;
  column: boolean;
  /** Its values so far are read as values of this field where it has none of its own. */
  replaces?: FieldBefore | undefined;
  /** Holds a value for each language. */
  translated: boolean;
  default?: string | number | boolean | undefined;
  /** How many values there are at least and at most, where there are several. */
  minCount?: number | undefined;
  maxCount?: number | undefined;
  /** Begins a section of the form with this heading. */
  section?: string | undefined;
  /** Takes half of the form’s width. */
  half?: boolean | undefined;
  /** Another control than that of its kind. */
  control?: ControlName | undefined;
  /** Left out of the form. */
  hidden?: boolean | undefined;
  /** In the form while another field is filled, or has a value (of a choice its key). */
  shownIf?: { field: string; is?: string | number | boolean | undefined } | undefined;
  /** Lengths in characters. */
  /** Formats that files may have, as their media types end. */
  formats?: FormatName[] | undefined;
  /** The most that a file may have, in kilobytes of 1,000 bytes. */
  maxKilobytes?: number | undefined;
  minLength?: number | undefined;
  maxLength?: number | undefined;
  /** Of numbers. */
  min?: number | undefined;
  max?: number | undefined;
  decimals?: number | undefined;
  unit?: string | undefined;
  /** Says where an entry stands among those of its type. */
  position?: boolean | undefined;
  /** Of days and instants: `yyyy-MM-dd`, or `today ± days`. */
  earliest?: string | undefined;
  latest?: string | undefined;
  /** Choices, in their order. */
  options?: FieldOption[] | undefined;
  /** The fields of a group. */
  fields?: Field[] | undefined;
  /** What a computed field is worked out by. */
  pattern?: string | undefined;
  /** Content types a reference may point at, by key. */
  types?: string[] | undefined;
  /** What the other side of a reference is called, in words and in patterns. */
  otherSide?: string | undefined;
  otherKey?: string | undefined;
  /** Marks the one reference that makes the tree of pages. */
  sitsWithin?: boolean | undefined;
  /** How many entries may sit within nothing. */
  atTop?: number | undefined;
  /** The subject set of tags or a category, by key. */
  set?: string | undefined;
  /** The level that the highest heading of rich text has on pages, 1 to 3. */
  topHeading?: number | undefined;
  /** What rich text may hold: the key of a form of texts; all where left out. */
  form?: string | undefined;
}

/** What fields may name of the rest of a design. */
export interface DesignNames {
  types: readonly string[];
  sets: readonly { key: string; kind: 'tags' | 'tree' }[];
  textForms: readonly { key: string }[];
}
