import type { Field } from '../design/field.ts';
import type { ContentType } from '../design/spec.ts';
import type { ConditionSpec, Listing, Operator } from '../design/listing-spec.ts';
import type { Interval } from '../time/interval.ts';
import type { Column } from './columns.ts';
import type { Operand } from './operand.ts';

/** A condition whose field and value fit each other. */
export interface Condition {
  kind: 'condition';
  column: Column;
  op: Operator;
  operand: Operand;
  spec: ConditionSpec;
  /**
   * What is asked of the live entries that the column leads to, one for each of their types that
   * has it; an operator that denies holds where none of them fulfils it.
   */
  through?: readonly Through[];
}

/** What is asked of the entries of a type that a reference leads to. */
export interface Through {
  type: ContentType;
  /** Of an operator that affirms. */
  condition: Condition;
}

/** A checked tree of filters. */
export type Filter = Condition | { kind: 'all' | 'any' | 'none'; filters: Filter[] };

/** A checked sort key. */
export interface SortKey {
  column: Column;
  descending: boolean;
  blanks: 'first' | 'last';
  /** By how far a date is away from the day of the instant. */
  from?: 'today';
}

/** An entry that stands first over a stretch of time. */
export interface Pin extends Interval {
  entry: string;
}

/** What a listing has a page for each value of. */
export interface Fan {
  column: Column;
  per: 'subject' | 'choice' | 'entry' | 'author' | 'year' | 'month';
  /** Whether its own page leads to those of its values, in place of showing entries. */
  hasIndex: boolean;
}

/** What there can be a page for each of, by a column. */
export function fansOf({ family, target }: Column): readonly Fan['per'][] {
  if (family === 'day' || family === 'instant') return ['year', 'month'];
  if (family === 'choice') return ['choice'];
  if (family === 'members' && target?.of === 'entries') return ['entry'];
  if (target?.of === 'people') return ['author'];
  return target?.of === 'subjects' ? ['subject'] : [];
}

/** What values are found by counting them. */
const COUNTED: ReadonlySet<Fan['per']> = new Set(['entry', 'author']);

/** The columns whose values are counted. */
export function countedColumns({ each, visitor }: ListingPlan): readonly Column[] {
  return [...(each && COUNTED.has(each.per) ? [each.column] : []), ...(visitor?.filters ?? [])];
}

/** What visitors may do with a listing. */
export interface VisitorPlan {
  /** By whose values they narrow it. */
  filters: readonly Column[];
  /** Whose words they search; those that the type has. */
  search: readonly Field[];
  orders: readonly { key: string; label: string; sort: SortKey[] }[];
}

/** Words that entries of a listing must have. */
export interface Search {
  text: string;
  fields: readonly Field[];
  /** The field that names entries, where it is searched. */
  naming: Field | null;
}

/** A listing ready to be asked: independent of instant and of how rows are kept. */
export interface ListingPlan {
  listing: Listing;
  type: ContentType;
  zone: string;
  filter: Filter;
  sort: SortKey[];
  /** Entries that stand first, in this order, each while its stretch lasts. */
  pins: readonly Pin[];
  /** What it has a page for each value of; null where it has none. */
  each: Fan | null;
  visitor: VisitorPlan | null;
  /** The words that its entries have; left out where nothing is searched for. */
  search?: Search;
  /** The listing by whose index it is read, where it has none of its own. */
  base?: ListingPlan;
  /** The same list of entries of further types. */
  also: readonly ListingPlan[];
  /** The id its index is named by, where that is not the listing's. */
  index?: string;
}

/** What filters ask of the rest of the site, as of an instant. */
export interface FilterWorld {
  /** The keys of subjects at and below one. */
  keysWithin(set: string, key: string): string[];
  /** Keys of subjects that stand for nothing any more. */
  gone(set: string): readonly string[];
  /** Who stands in picks, by their id, in their order; whether live or not. */
  picked(picks: string): readonly string[];
}

/** Operators that deny, with what they deny. */
export const DENIED: Partial<Record<Operator, Operator>> = {
  'is-not': 'is',
  'none-of': 'any-of',
  blank: 'not-blank',
};

/** Every condition of a filter, in the order it reads. */
export function conditionsOf(filter: Filter): Condition[] {
  return filter.kind === 'condition' ? [filter] : filter.filters.flatMap(conditionsOf);
}

/**
 * The condition that names the entries of a listing, where all of them must be of those: those of
 * picks, or of a list.
 */
export function namedBy(filter: Filter): Condition | null {
  const required = filter.kind === 'all' ? filter.filters : [filter];
  const named = required.find(
    (f) => f.kind === 'condition' && f.column.family === 'identity' && isOneOf(f),
  );
  return (named as Condition | undefined) ?? null;
}

function isOneOf({ op }: Condition): boolean {
  return op === 'is' || op === 'any-of';
}
