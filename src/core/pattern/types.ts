import type { Issue } from '../issue.ts';

/** What a value is. `path` keeps its slashes in addresses; `object` has members of its own. */
export type ValueKind =
  | 'text'
  | 'number'
  | 'yesno'
  | 'date'
  | 'datetime'
  | 'richtext'
  | 'choice'
  | 'media'
  | 'path'
  | 'object';

/** The type of an expression. */
export interface ValueType {
  kind: ValueKind;
  many: boolean;
  /** What an object's members are; set for kind `object`. */
  object?: ObjectType;
  /** The word for a choice's value; set for kind `choice`. */
  label?: (value: string) => string;
  /** A number that names something, a year say: written without grouping. */
  plain?: boolean;
}

/** Something with members: an entry of some type, a subject, or a root such as `site`. */
export interface ObjectType {
  /** In words, for messages: "a variety", "the site". */
  name: string;
  member(name: string): Member | undefined;
  memberNames(): string[];
  /** The member whose text stands for the object itself; none for roots such as `site`. */
  naming?: string;
}

/** One named value of an object. `read` returns null, or an empty list, where blank. */
export interface Member {
  type: () => ValueType;
  read(owner: unknown, scope: Scope): unknown;
  /** Set where the value of `field` is the text itself, if it is a string. */
  isPlainText?: boolean;
  /** Why an address may not read it, where it may not. */
  notInAddress?: string;
  /** The field behind the member, where there is one: for traces, data needs and renames. */
  field?: string;
  /** What the field is called. */
  label?: string;
  /** Paths of the parts of the design that it stands for, where it is a field. */
  parts?: readonly string[];
  /** Id of the single type whose entry it stands for, where it does. */
  single?: string;
  /** Set where it stands for the entries whose reference leads to its owner. */
  otherSide?: { type: string; field: string; many: boolean };
  /** Set on members that stand for other entries. */
  reference?: boolean;
}

/**
 * What evaluation may ask of its surroundings. Nothing else is read: no clock, no locale of the
 * machine.
 */
export interface Scope {
  /** BCP 47 tag of the page's language. */
  language: string;
  /** IANA zone of the site. */
  zone: string;
  /** What the environment's own members are read from; null where it has none. */
  own: unknown;
  /** Values of the further roots, by name; the root `entry` is `own`. */
  roots: Record<string, unknown>;
  /** In an address: `yyyy-MM-dd` dates and canonical numbers instead of the language's forms. */
  address: boolean;
  /** Absolute address of an entry; null while it has none. */
  urlOf(entry: unknown): string | null;
  /** Address of a picture at a width in CSS px. */
  imageUrl(media: unknown, width: number): string | null;
  /** Steps left; evaluation stops with an issue at zero. */
  steps: number;
  issues: Issue[];
}

/** What a pattern may name: members of its own object, and roots. */
export interface Environment {
  own: ObjectType | null;
  roots: Map<string, Member>;
}

/** Where the result goes; decides escaping. */
export type Context = 'address' | 'text' | 'attribute' | 'metadata' | 'value';

/** A single-valued type of a kind. */
export function one(kind: Exclude<ValueKind, 'object'>): ValueType {
  return { kind, many: false };
}

/** In plain words, for messages. */
export function typeInWords(type: ValueType): string {
  const words: Record<ValueKind, string> = {
    text: 'text',
    number: 'a number',
    yesno: 'a yes/no value',
    date: 'a date',
    datetime: 'a date-time',
    richtext: 'rich text',
    choice: 'a choice',
    media: 'a picture or file',
    path: 'an address',
    object: type.object?.name ?? 'an object',
  };
  return type.many ? `a list (each ${words[type.kind]})` : words[type.kind];
}

/** Missing, null, empty or white-space text, or an empty list. `0` and *no* are not blank. */
export function isBlank(value: unknown): boolean {
  if (value === null || value === undefined) return true;
  if (typeof value === 'string') return value.trim() === '';
  return Array.isArray(value) && value.every(isBlank);
}
