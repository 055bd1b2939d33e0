import { z } from 'zod';
import { withIds } from './block-ids.ts';
import { key } from './key.ts';
import { sentence } from './words.ts';

/**
 * Every operator of a filter, with its words. Which kinds take it is said in
 * `listing/operators.ts`.
 */
export const OPERATORS = [
  'is',
  'is-not',
  'contains',
  'starts-with',
  'has-word',
  'less-than',
  'at-most',
  'more-than',
  'at-least',
  'before',
  'on-or-before',
  'after',
  'on-or-after',
  'between',
  'within-last',
  'within-next',
  'this',
  'on-this-day',
  'any-of',
  'all-of',
  'none-of',
  'blank',
  'not-blank',
] as const;
/** How a condition compares. */
export type Operator = (typeof OPERATORS)[number];

const literal = z.union([z.string(), z.number(), z.boolean()]);
/** What a condition compares with that stands elsewhere. */
const elsewhere = z.union([
  /** A field of the entry on whose page the listing stands, or `entry` for that itself. */
  z.strictObject({ page: z.string().min(1).max(80) }),
  /** What the site is called, and the like. */
  z.strictObject({ site: z.string().min(1).max(80) }),
]);
/** What a condition compares with that stands elsewhere, as it is stored. */
export type ElsewhereSpec = z.output<typeof elsewhere>;

/** A comparison of a field. */
export const conditionSpec = z.strictObject({
  /** Stays when the condition is changed or moved. */
  id: key.optional(),
  field: z.string(),
  op: z.enum(OPERATORS),
  /**
   * One value, or several for *any of*, *all of*, *none of*, two for *between*; none for *blank*
   * and *on this day*. Dates may be relative: `today + 3`. Or where the value stands.
   */
  value: z.union([literal, z.array(literal), elsewhere]).optional(),
});
/** A comparison as it is stored. */
export type ConditionSpec = z.output<typeof conditionSpec>;

/** What stands in a condition itself, as a list; nothing where its value stands elsewhere. */
export function literalsOf({ value }: Pick<ConditionSpec, 'value'>): z.output<typeof literal>[] {
  if (value === undefined || elsewhereOf({ value })) return [];
  return [value as z.output<typeof literal>].flat();
}

/** Where the value of a condition stands; null where it is in the condition itself. */
export function elsewhereOf({ value }: Pick<ConditionSpec, 'value'>): ElsewhereSpec | null {
  return typeof value === 'object' && !Array.isArray(value) ? value : null;
}

/** The ways in which a group's filters hold together. */
export const GROUPS = ['all', 'any', 'none'] as const;
/** Whether all, any or none of a group's filters hold. */
export type GroupKind = (typeof GROUPS)[number];
type Group<K extends GroupKind> = { id?: string | undefined } & { [P in K]: FilterSpec[] };
/** A condition, or a group: all, any or none of its filters hold. */
export type FilterSpec = ConditionSpec | Group<'all'> | Group<'any'> | Group<'none'>;
const group = (kind: GroupKind): z.ZodType<FilterSpec> =>
  z.lazy(() =>
    z.strictObject({ id: key.optional(), [kind]: z.array(filterSpec) }),
  ) as unknown as z.ZodType<FilterSpec>;
/** A condition, or a group of filters. */
export const filterSpec: z.ZodType<FilterSpec> = z.lazy(() =>
  z.union([conditionSpec, group('all'), group('any'), group('none')]),
);

/** How a group's filters hold together, and which they are; null for a condition. */
export function groupOf(filter: FilterSpec): { kind: GroupKind; filters: FilterSpec[] } | null {
  const kind = GROUPS.find((k) => k in filter);
  return kind ? { kind, filters: (filter as Group<typeof kind>)[kind] } : null;
}

/** A filter and all within it, in the order they are written. */
export function* filtersWithin(filter: FilterSpec | undefined): Generator<FilterSpec> {
  if (filter === undefined) return;
  yield filter;
  for (const inner of groupOf(filter)?.filters ?? []) yield* filtersWithin(inner);
}

/** The conditions of a filter, in the order they are written. */
export function conditionSpecs(filter: FilterSpec | undefined): ConditionSpec[] {
  return [...filtersWithin(filter)].filter((f): f is ConditionSpec => 'field' in f);
}

/** A filter with an id on each of its conditions and groups. */
export function withFilterIds(filter: FilterSpec): FilterSpec {
  const ids = withIds([...filtersWithin(filter)], 'c').map(({ id }) => id);
  let next = 0;
  const copy = (old: FilterSpec): FilterSpec => {
    const id = ids[next++]!;
    const inner = groupOf(old);
    if (!inner) return Object.assign({ id }, old, { id });
    return { id, [inner.kind]: inner.filters.map(copy) } as FilterSpec;
  };
  return copy(filter);
}

const direction = z.enum(['ascending', 'descending']);
/** A key of an order as it is stored. */
export interface SortSpec {
  field: string;
  direction: 'ascending' | 'descending';
  blanks: 'first' | 'last';
  from?: 'today' | undefined;
}
/** One key of an order. */
export const sortSpec = z
  .union([
    z.string().transform((field): SortSpec => ({
      field: field.replace(/^-/, ''),
      direction: field.startsWith('-') ? 'descending' : 'ascending',
      blanks: 'last',
    })),
    z.strictObject({
      field: z.string(),
      direction: direction.default('ascending'),
      blanks: z.enum(['first', 'last']).default('last'),
      /** Of dates: by how many days they are away from today. */
      from: z.literal('today').optional(),
    }),
  ])
  .describe('A field key ("-" before it for descending), or {field, direction, blanks, from}.');

const MOST_PINS = 50;

/** An entry that stands first in a listing, over a stretch of time or always. */
const pinSpec = z.union([
  z
    .string()
    .min(1)
    .max(200)
    .transform((entry) => ({ entry })),
  z.strictObject({
    entry: z.string().min(1).max(200),
    /** From when, and until when: ISO 8601, local in the site's zone or with an offset. */
    from: z.string().max(40).optional(),
    to: z.string().max(40).optional(),
  }),
]);

/** An entry that stands first, as it is stored. */
export type PinSpec = { entry: string; from?: string | undefined; to?: string | undefined };

/** What a listing's pages for each value are made by. */
const eachSpec = z.strictObject({
  /** A field of subjects, a choice or a date, or `entry.published`, … */
  by: z.string(),
  /** Of dates: a page for each year, or for each year and each of its months. */
  per: z.enum(['year', 'month']).optional(),
  /** What stands at its address: links to the pages of all values, or all its entries. */
  index: z.enum(['values', 'entries']).default('values'),
  /** Patterns of a value's page that may read `value`, `site` and `page`. */
  title: z.string().optional(),
  description: z.string().optional(),
  intro: z.string().optional(),
});
/** What a listing's pages for each value are made by, as it is stored. */
export type EachSpec = z.output<typeof eachSpec>;

/** An order that visitors choose. */
const orderSpec = z.strictObject({
  key,
  label: z.string().min(1).max(80).optional(),
  sort: z.array(sortSpec).min(1).max(8, 'An order has at most 8 sort keys.'),
});

/** What visitors do with a listing's pages, by parameters of their address. */
const visitorSpec = z.strictObject({
  /** Fields by whose values they narrow it: choices, yes/no, subjects, references. */
  filters: z.array(z.string()).max(12, 'Visitors narrow a list by at most 12 fields.').default([]),
  /** Fields of texts whose words they search. */
  search: z.array(z.string()).max(20, 'At most 20 fields are searched.').default([]),
  /** Orders besides the listing's own. */
  orders: z.array(orderSpec).max(12, 'Visitors choose from at most 12 orders.').default([]),
});
/** What visitors do with a listing's pages, as it is stored. */
export type VisitorSpec = z.output<typeof visitorSpec>;

const PAGE_SIZE = 'How many stand on a page is a whole number from 1 to 500.';

/** A listing as it is stored. */
export const listingSpec = z
  .strictObject({
    id: key.optional(),
    key,
    label: z.string().optional(),
    type: key,
    /** Further types whose entries stand in it. */
    also: z.array(key).max(20, 'A listing has at most 20 further types.').optional(),
    where: filterSpec.optional(),
    sort: z.array(sortSpec).max(8, 'A listing has at most 8 sort keys.').default([]),
    /** Entries that stand first, in this order, while they are in it. */
    pins: z
      .array(pinSpec)
      .max(MOST_PINS, `At most ${MOST_PINS} entries stand first in a listing.`)
      .optional(),
    /** How many of its first it leaves out, and how many of the others it has at most. */
    skip: z.int().min(1).max(10_000).optional(),
    most: z.int().min(1).max(10_000).optional(),
    pageSize: z.int(PAGE_SIZE).min(1, PAGE_SIZE).max(500, PAGE_SIZE).default(12),
    /** Where it is a page of its own; none where it stands only in templates. */
    address: z
      .string()
      .regex(
        /^(\/[a-z0-9._~-]+)+$/,
        'A listing\'s address is made of "/" and small letters, digits, "-", ".", "_" or "~".',
      )
      .optional(),
    /** Its pages for each value that has entries, below its address, which leads to them. */
    each: eachSpec.optional(),
    /** Its newest entries for feed readers, beside its pages. */
    feed: z.strictObject({ size: z.int().min(1).max(100).default(20) }).optional(),
    /** How visitors of its own pages narrow, search and order it. */
    visitor: visitorSpec.optional(),
    card: key.optional(),
    /** A page template without a type, for the listing's own pages. */
    template: key.optional(),
    /** What stands around its own pages; as the site has it where left out. */
    frame: key.optional(),
    /** Words above the first card, as a pattern that may read `site` and `page`. */
    intro: z.string().optional(),
    /** Words shown in place of an empty list. */
    empty: z.string().default('Nothing here at the moment.'),
    seo: z
      .strictObject({
        title: z.string().optional(),
        description: z.string().optional(),
        index: z.boolean().optional(),
        sitemap: z.boolean().optional(),
      })
      .default({}),
  })
  .transform(({ id, key: own, label: name, type, where, ...rest }) => ({
    id: id ?? own,
    key: own,
    label: name ?? sentence(own),
    type,
    ...(where === undefined ? {} : { where: withFilterIds(where) }),
    ...rest,
  }));
/** Which entries, in what order, how many to a page, drawn as which card, and where. */
export type Listing = z.output<typeof listingSpec>;
