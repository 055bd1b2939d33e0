import { type Option, optionsOf } from './offers.ts';
import { statement } from '../store/statement.ts';
import type { SiteView } from './site-view.ts';
import { type Listing, type Operator } from '@/core/design/listing-spec.ts';
import type { ContentType, Design } from '@/core/design/spec.ts';
import {
  type Column,
  ORDER_ALONE,
  PICKS,
  columnsOf,
  listedColumns,
} from '@/core/listing/columns.ts';
import { OPERATORS_OF, OPERATOR_WORDS } from '@/core/listing/operators.ts';
import { PAGE_ENTRY, canCompare } from '@/core/listing/of-page.ts';
import { isNarrowing } from '@/core/listing/visitors.ts';
import { type Fan, fansOf } from '@/core/listing/plan.ts';
import { withinSentence } from '@/core/design/words.ts';
import type { Instant } from '@/core/time/interval.ts';

/** A field a listing may filter or sort by, with what its controls offer. */
export interface ListingColumn {
  name: string;
  /** As it reads within the sentence. */
  label: string;
  family: string;
  sortable: boolean;
  /** What a listing can have a page for each of, by it. */
  fans: readonly Fan['per'][];
  /** Whether visitors can narrow the list by its values. */
  narrows: boolean;
  operators: { op: Operator; words: string }[];
  options: Option[];
  /** What it can be compared with that stands elsewhere: `page:` or `site:` and a name. */
  elsewhere: Option[];
  /** Types whose entries it is compared with, null for all; undefined where it is not. */
  entryTypes?: string[] | null;
}

/** What conditions on a type's entries may ask of them. */
export function listingColumns(
  view: SiteView,
  type: ContentType,
  looking: { at: Instant; language: string },
): ListingColumn[] {
  return columnWords(view, columnsOf(type).values(), looking);
}

/** What the conditions and the order of a listing may ask, through references included. */
export function columnsOfListing(
  view: SiteView,
  { address }: Listing,
  types: readonly ContentType[],
  { at, design }: { at: Instant; design: Design },
): { words: ListingColumn[]; columns: Map<string, Column> } {
  const columns = new Map<string, Column>();
  const all = types.flatMap((type) => [...listedColumns(type).values()]);
  for (const column of [...all, ...all.flatMap((c) => beyond(c, design))])
    if (!columns.has(column.name)) columns.set(column.name, column);
  const elsewhere = (column: Column): Option[] => [
    ...(address === undefined ? ofPages(column, design) : []),
    ...(column.family === 'text' ? OF_SITE : []),
  ];
  const { language } = design.site;
  const words = columnWords(view, columns.values(), { at, language }).map((word) => {
    const column = columns.get(word.name)!;
    const options = column.name === PICKS.name ? picksOf(design) : word.options;
    return { ...word, options, elsewhere: elsewhere(column) };
  });
  return { words, columns };
}

/** What a reference's entries may be asked, by its name and theirs. */
function beyond({ family, target, name, label }: Column, { types }: Design): Column[] {
  if (family !== 'members' || target?.of !== 'entries') return [];
  const led = types.filter(({ key }) => target.types?.includes(key) ?? true);
  const own = new Map([...led].reverse().flatMap((type) => [...listedColumns(type)]));
  return [...own.values()]
    .filter((column) => column.family !== 'identity' && !ORDER_ALONE.has(column))
    .map((column) => ({
      ...column,
      name: `${name}.${column.name}`,
      label: `${label} › ${column.label}`,
      sortable: false,
    }));
}

/** The fields of pages' entries that a column can be compared with. */
function ofPages(column: Column, { types }: Design): Option[] {
  const fields = types.flatMap((type) => type.fields).filter((field) => canCompare(column, field));
  // Fields of one key count as one, as its first type calls it.
  const labels = new Map(fields.toReversed().map(({ key, label }) => [key, label.toLowerCase()]));
  const all = [...labels.values()];
  const own = [...labels].reverse().map(([key, label]) => ({
    value: `page:${key}`,
    label: `the page’s ${label}${all.filter((l) => l === label).length > 1 ? ` (${key})` : ''}`,
  }));
  const itself = { value: `page:${PAGE_ENTRY}`, label: 'the page’s own entry' };
  return [...(column.target?.of === 'entries' ? [itself] : []), ...own];
}

const OF_SITE: Option[] = ['name', 'url', 'strapline'].map((key) => ({
  value: `site:${key}`,
  label: `the site’s ${key === 'url' ? 'address' : key}`,
}));

function picksOf({ picks }: Design): Option[] {
  return picks.map(({ key, label }) => ({ value: key, label }));
}

function columnWords(
  view: SiteView,
  columns: Iterable<Column>,
  { at, language }: { at: Instant; language: string },
): ListingColumn[] {
  return [...columns].map((c) => ({
    name: c.name,
    label: withinSentence(c.label, language),
    family: c.family,
    sortable: c.sortable,
    fans: fansOf(c),
    narrows: isNarrowing(c) && !c.name.includes('.'),
    operators: (ORDER_ALONE.has(c) ? [] : OPERATORS_OF[c.family]).map((op) => ({
      op,
      words: OPERATOR_WORDS[op],
    })),
    options: optionsIn(view, c, at),
    elsewhere: [],
    ...(c.target?.of === 'entries' ? { entryTypes: c.target.types && [...c.target.types] } : {}),
  }));
}

/** What a condition on a column may be compared with: options go by their keys there. */
function optionsIn(view: SiteView, { field, family, target }: Column, at: Instant): Option[] {
  if (target?.of === 'people') return peopleOf(view);
  if (!field) return [];
  if (family !== 'choice') return optionsOf(view, field, at);
  return (field.options ?? []).map(({ key, label }) => ({ value: key, label }));
}

const MOST_PEOPLE = 500;

/** Those who wrote something, by their names. */
function peopleOf({ connection }: SiteView): Option[] {
  const sql = `SELECT id AS value, name AS label FROM person
    WHERE id IN (SELECT author FROM entry) ORDER BY name, id LIMIT ${MOST_PEOPLE}`;
  return statement<Option>(connection, sql).all();
}
