import type { z } from 'zod';
import { type Issue, type Result, refused } from '../../issue.ts';
import type { ValueType } from '../../pattern/types.ts';
import type { RichNode } from '../../rich-text/index.ts';
import type { Instant } from '../../time/interval.ts';
import type { ControlName } from '../controls.ts';
import type { DesignNames, Field } from '../field.ts';
import type { Values } from '../values-of.ts';

/** What turning a given value into a stored one may need. */
export interface Given {
  /** For relative dates (ms UTC). */
  now: Instant;
  zone: string;
  /** Turns text into a rich text document: Markdown where files are read, paragraphs elsewhere. */
  richText: (source: string) => RichNode;
  /** How many texts the value stands within, by parts of them; 0 where left out. */
  within?: number;
  /** Whether a group's item keeps what none of its fields holds: what it held before. */
  isKept?: (name: string, value: unknown) => boolean;
}

/** What limits of values may ask for: the day, and files by their ids, null where one is gone. */
export interface LimitWorld extends Pick<Given, 'now' | 'zone'> {
  file?: (id: string) => { mime: string; bytes: number } | null;
}

/** How filters treat a kind: which operators it takes and what they compare. */
export type FilterFamily =
  | 'text'
  | 'number'
  | 'yesno'
  | 'day'
  | 'instant'
  | 'choice'
  | 'members'
  | 'presence'
  /** Which entry it is: of no field. */
  | 'identity';

/** What values of a kind are keys of; null for kinds that hold their values themselves. */
export type Target =
  | { of: 'entries'; types: readonly string[] | null }
  | { of: 'subjects'; set: string; tree: boolean }
  | { of: 'media' }
  | { of: 'picks' }
  | { of: 'people' }
  | { of: 'link' }
  | { of: 'group' };

/** Something else of the site that a value names. */
export type Mention =
  | { of: 'entry'; key: string }
  | { of: 'subject'; key: string; set: string }
  | { of: 'media'; key: string };

/** What showing a value to people may look up. */
export interface DisplayWorld {
  language: string;
  zone: string;
  /** The name of a subject or an entry; null where there is none. */
  nameOf(mention: Mention): string | null;
}

/** What inventing a value may look up: keys that are there, in their order. */
export interface StandInWorld {
  subjects(set: string): readonly string[];
}

/** Values of fields that stand within another value, by field id. */
export interface ItemValues {
  fields: readonly Field[];
  values: Values;
}

/** A value as a file gives it, as it is stored, written back, and shown in English in UTC. */
export interface KindExample {
  field: Partial<Field>;
  raw: unknown;
  stored: unknown;
  printed: unknown;
  shown: string;
  /** Something the kind refuses. */
  wrong: unknown;
}

/** One kind of field, with everything that belongs to it. */
export interface FieldKind<K extends string = string> {
  kind: K;
  /** As screens name it: "Rich text". */
  label: string;
  /** In the middle of a sentence: "rich text", "a date". */
  words: string;
  /** What it is for, in a sentence. */
  doc: string;
  /** How people name the kind when they write it down; in small letters. */
  spoken: readonly string[];
  /** Words in a field's name that suggest this kind where none is said; in small letters. */
  suggestedBy: readonly string[];
  /** Settings that only fields of this kind have. */
  properties: z.ZodRawShape;
  /** Whether the first field of this kind names an entry where nothing else is said. */
  names: boolean;
  /** Whether its values are kept for each language where nothing else is said. */
  translated: boolean;
  /** Whether its values are worked out, and never written. */
  derived: boolean;
  /** Whether it always holds several values. */
  alwaysMany: boolean;
  /** Its type in patterns; of kinds with a target only `many` counts. */
  valueType: (field: Field) => ValueType;
  /** One value from a site folder or a form. */
  parse: (raw: unknown, field: Field, given: Given) => Result<unknown>;
  /** A stored value as a site folder has it: `parse` gives the same again. */
  print: (stored: unknown, field: Field, zone: string) => unknown;
  /** A stored value as JSON gives it. */
  toJson: (stored: unknown) => unknown;
  /**
   * A stored value in plain words, for a field that takes the place of this one; null where it has
   * none.
   */
  asText: (stored: unknown, field: Pick<Field, 'options'>, zone: string) => string | null;
  /** The words of a stored value that a search finds; '' where it has none of its own. */
  searched: (stored: unknown, field: Field) => string;
  /** Plain words as `parse` takes them; null where they can be no value of this kind. */
  fromText: (text: string, language: string) => string | null;
  control: ControlName;
  /** Controls that a field may have instead. */
  otherControls: (field: Field) => readonly ControlName[];
  /** What keeps a value from being public, as ends of sentences: "has at most 80 characters …". */
  limits: (stored: unknown, field: Field, given: LimitWorld) => string[];
  /** A value as tables show it. */
  display: (stored: unknown, field: Field, world: DisplayWorld) => string;
  family: FilterFamily;
  sortable: boolean;
  target: (field: Field) => Target | null;
  /** What a value itself names; what its items name is asked of them. */
  mentions: (stored: unknown, field: Field) => Mention[];
  /** The values of further fields that stand within a value: a group's, a text's parts'. */
  items: (stored: unknown, field: Field) => ItemValues[];
  /** An invented value; null for none. */
  standIn: (field: Field, world: StandInWorld) => unknown;
  /** Where automatic pages show it. */
  automatic: 'sheet' | 'picture' | 'body' | 'items';
  /** What is wrong with a field of this kind beyond its shape. */
  check: (field: Field, path: string, names: DesignNames) => Issue[];
  example: KindExample;
}

/** What most kinds share. */
export const PLAIN = {
  properties: {},
  suggestedBy: [],
  names: false,
  translated: false,
  derived: false,
  alwaysMany: false,
  print: (stored) => stored,
  toJson: (stored) => stored,
  asText: (stored) => String(stored),
  fromText: (text) => text,
  searched: () => '',
  otherControls: () => [],
  limits: () => [],
  display: (stored) => String(stored),
  target: () => null,
  mentions: () => [],
  items: () => [],
  automatic: 'sheet',
  check: () => [],
} satisfies Partial<FieldKind>;

/** Says that a raw value is none of this kind. */
export function notA(
  field: Field,
  wanted: string,
  raw: unknown,
  fix: string,
): ReturnType<typeof refused> {
  const shown =
    typeof raw === 'string'
      ? `"${raw.length > 60 ? `${raw.slice(0, 60)}…` : raw}"`
      : JSON.stringify(raw)?.slice(0, 60);
  return refused({
    code: 'wrong-value',
    path: field.key,
    message: `${field.label} takes ${wanted}; here stands ${shown}.`,
    fix,
  });
}
