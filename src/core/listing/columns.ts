import type { Field } from '../design/field.ts';
import type { FilterFamily, Target } from '../design/kinds/definition.ts';
import { isDerived, readsOwnAlone } from '../design/computed.ts';
import { type ShownDate, dateShown, ownPresets } from '../design/presets.ts';
import { kindOf } from '../design/kinds/index.ts';
import type { ContentType } from '../design/spec.ts';
import { type EntryView, type Values, valuesOf } from '../design/values.ts';
import type { Instant, Interval } from '../time/interval.ts';
import { isBlank } from '../pattern/types.ts';
import { plainText } from '../rich-text/index.ts';
import { sortKey } from './sort-key.ts';

/** What listings read of one live interval of an entry. */
export interface ListingRow extends Interval {
  entry: string;
  /** Id of its type. */
  type: string;
  created: Instant;
  published: Instant;
  updated: Instant;
  /** Id of the person who wrote it; left out where nobody is known to have. */
  author?: string;
  values: Values;
}

/** An entry as listings read it, as it is shown. */
export function rowOf(entry: EntryView): ListingRow {
  const { id, type, created, published, updated, values, authorId } = entry;
  return {
    entry: id,
    type: type.id,
    created,
    published: published ?? created,
    updated: updated ?? created,
    from: updated ?? created,
    to: null,
    ...(authorId === undefined ? {} : { author: authorId }),
    values,
  };
}

/** Something of an entry that listings filter or sort by: a field, or one of its own instants. */
export interface Column {
  /** As written in the listing: a field key, or `entry.published`, … */
  name: string;
  label: string;
  family: FilterFamily;
  sortable: boolean;
  field: Field | null;
  /** What its values are keys of; null where they stand for themselves. */
  target: Target | null;
  meta: 'created' | 'published' | 'updated' | null;
  /** Of the date that an entry's byline shows: which one that is where it says nothing itself. */
  shown?: ShownDate;
  /** Whether entries of a type have no such thing, and those of another that is listed do. */
  isAbsent?: true;
}

/** What every entry of some picks, or of those that are named, has. */
const ofAll = { field: null, meta: null, sortable: false } as const;

/** Which entry it is. */
const ITSELF = { ...ofAll, name: 'entry', label: 'the entry', family: 'identity' } as const;

/** Which picks it stands in. */
export const PICKS: Column = {
  ...{ ...ofAll, name: 'entry.picks', label: 'picks it stands in' },
  ...{ family: 'identity', target: { of: 'picks' } },
};

/** Its place among the entries that a listing's conditions name: in picks, or as they are listed. */
export const PLACE: Column = {
  ...{ ...ofAll, name: 'entry.place', label: 'place in the picks', sortable: true },
  ...{ family: 'number', target: null },
};

/** By chance, each day anew. */
export const CHANCE: Column = {
  ...{ ...ofAll, name: 'entry.chance', label: 'chance', sortable: true },
  ...{ family: 'number', target: null },
};

/** Who wrote it, by the person's id. */
export const AUTHOR: Column = {
  ...{ ...ofAll, name: 'entry.author', label: 'author' },
  ...{ family: 'members', target: { of: 'people' } },
};

/** Columns that there is an order by, and no condition. */
export const ORDER_ALONE: ReadonlySet<Column> = new Set([PLACE, CHANCE]);

/** Whether its name has not all that is searched for: 0 where it has, else 1. */
export const MATCH: Column = {
  ...{ ...ofAll, name: 'entry.match', label: 'match' },
  ...{ family: 'number', target: null },
};

/** Whether an entry says itself that listings show it; blank where it is as its type has it. */
export const LISTED: Column = {
  name: 'entry.listed',
  label: 'shown in lists',
  family: 'yesno',
  sortable: false,
  field: null,
  target: null,
  meta: null,
};

/** The date that an entry's byline shows; blank where it shows none. */
function shownColumn({ presets }: ContentType): Column {
  return {
    ...{ ...ofAll, name: 'entry.shownDate', label: 'date shown', sortable: true },
    ...{ family: 'instant', target: null, shown: presets.date },
  };
}

const META = ['created', 'published', 'updated'] as const;

/** What listings ask of entries of a type, by name: its columns, their names, picks. */
export function listedColumns(type: ContentType): Map<string, Column> {
  const columns = columnsOf(type);
  const naming = type.naming === null ? undefined : columns.get(type.naming);
  if (naming) columns.set(NAME, { ...naming, name: NAME, label: 'name' });
  const itself: Column = { ...ITSELF, target: { of: 'entries', types: [type.key] } };
  for (const column of [shownColumn(type), itself, PICKS, PLACE, CHANCE, AUTHOR])
    columns.set(column.name, column);
  return columns;
}

/** The column of the field that names an entry, whatever that is called. */
const NAME = 'entry.name';

/** Where entries of a type have nothing of a kind that those of another have. */
export function absentOf(column: Column): Column {
  return { ...column, field: null, meta: null, isAbsent: true };
}

/** The columns of a type, by name. */
export function columnsOf(type: ContentType): Map<string, Column> {
  const columns = new Map<string, Column>();
  for (const field of type.fields)
    if (!isDerived(field) || readsOwnAlone(field, type.fields))
      columns.set(field.key, fieldColumn(field));
  for (const meta of META)
    columns.set(`entry.${meta}`, {
      name: `entry.${meta}`,
      label: meta,
      family: 'instant',
      sortable: true,
      field: null,
      target: null,
      meta,
    });
  return columns;
}

function fieldColumn(field: Field): Column {
  const type = kindOf(field);
  const single = !field.many;
  const family =
    single || type.family === 'members' || type.family === 'choice' ? type.family : 'presence';
  return {
    name: field.key,
    label: field.label,
    family,
    sortable: single && type.sortable,
    field,
    target: type.target(field),
    meta: null,
  };
}

/**
 * What filters compare: folded text, number, boolean, day, instant, or a list of keys; null where
 * blank.
 */
export function cell(row: ListingRow, column: Column): unknown {
  if (column.name === LISTED.name) return ownPresets(row.values).listed ?? null;
  if (column.meta) return row[column.meta];
  if (column.shown) return dateShown(row.values, column.shown, row);
  if (column.name === AUTHOR.name) return row.author ? [row.author] : [];
  if (column.isAbsent) return isKeyed(column) ? [] : null;
  const values = valuesOf(row.values, column.field!.id);
  if (isKeyed(column)) return values;
  const value = values[0];
  if (column.family === 'presence')
    return values.some((v) => !isBlank(isDocument(v) ? plainText(v) : v)) ? true : null;
  if (typeof value === 'string')
    return isBlank(value) ? null : column.family === 'text' ? foldText(value) : value;
  return value ?? null;
}

/** Whether its cells are lists of keys. */
function isKeyed({ family }: Column): boolean {
  return family === 'members' || family === 'choice';
}

function isDocument(value: unknown): boolean {
  return (
    typeof value === 'object' && value !== null && (value as { type?: unknown }).type === 'doc'
  );
}

/**
 * What sorting compares: sort key, number, day, or a choice's place among its options; null where
 * blank.
 */
export function sortCell(row: ListingRow, column: Column): string | number | null {
  if (column.meta) return row[column.meta];
  if (column.shown) return dateShown(row.values, column.shown, row);
  if (column.isAbsent) return null;
  const value = valuesOf(row.values, column.field!.id)[0];
  if (isBlank(value)) return null;
  if (column.family === 'text') return sortKey(String(value));
  if (column.family === 'choice')
    return column.field!.options?.findIndex((o) => o.id === value) ?? null;
  if (typeof value === 'boolean') return value ? 1 : 0;
  return value as string | number;
}

/** Text as text operators compare it: case ignored, accents respected. */
export function foldText(text: string): string {
  return text.normalize('NFC').toLowerCase();
}
