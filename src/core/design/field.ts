/** A prepared option of a choice. */
export interface FieldOption {
  /** Stays when the key is renamed; values are stored under it. */
  id: string;
  key: string;
  label: string;
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
  many: boolean;
  column: boolean;
  /** Holds a value for each language. */
  translated: boolean;
  default?: string | number | boolean | undefined;
  /** Choices, in their order. */
  options?: FieldOption[] | undefined;
  /** Content types a reference may point at, by key. */
  types?: string[] | undefined;
  /** What the other side of a reference is called. */
  otherSide?: string | undefined;
  /** Marks the one reference that makes the tree of pages. */
  sitsWithin?: boolean | undefined;
  /** The subject set of tags or a category, by key. */
  set?: string | undefined;
  /** The level that the highest heading of rich text has on pages, 1 to 3. */
  topHeading?: number | undefined;
}

/** What fields may name of the rest of a design. */
export interface DesignNames {
  types: readonly string[];
  sets: readonly { key: string; kind: 'tags' | 'tree' }[];
}
