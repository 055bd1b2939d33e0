import { z } from 'zod';
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
  'less-than',
  'at-most',
  'more-than',
  'at-least',
  'before',
  'on-or-before',
  'after',
  'on-or-after',
  'any-of',
  'all-of',
  'none-of',
  'blank',
  'not-blank',
] as const;
/** How a condition compares. */
export type Operator = (typeof OPERATORS)[number];

const literal = z.union([z.string(), z.number(), z.boolean()]);

/** A comparison of a field. */
export const conditionSpec = z.strictObject({
  field: z.string(),
  op: z.enum(OPERATORS),
  /**
   * One value, or several for *any of*, *all of*, *none of*; none for *blank*. Dates may be
   * relative: `today + 3`.
   */
  value: z.union([literal, z.array(literal)]).optional(),
});
/** A comparison as it is stored. */
export type ConditionSpec = z.output<typeof conditionSpec>;

/** A group of filters: all, any or none of them hold. */
export type FilterSpec =
  ConditionSpec | { all: FilterSpec[] } | { any: FilterSpec[] } | { none: FilterSpec[] };
/** A condition, or a group of filters. */
export const filterSpec: z.ZodType<FilterSpec> = z.lazy(() =>
  z.union([
    conditionSpec,
    z.strictObject({ all: z.array(filterSpec) }),
    z.strictObject({ any: z.array(filterSpec) }),
    z.strictObject({ none: z.array(filterSpec) }),
  ]),
);

const direction = z.enum(['ascending', 'descending']);
/** One key of an order. */
export const sortSpec = z
  .union([
    z.string().transform((field) => ({
      field: field.replace(/^-/, ''),
      direction: field.startsWith('-') ? ('descending' as const) : ('ascending' as const),
      blanks: 'last' as const,
    })),
    z.strictObject({
      field: z.string(),
      direction: direction.default('ascending'),
      blanks: z.enum(['first', 'last']).default('last'),
    }),
  ])
  .describe('A field key ("-" before it for descending), or {field, direction, blanks}.');
/** A key of an order as it is stored. */
export type SortSpec = z.output<typeof sortSpec>;

const PAGE_SIZE = 'How many stand on a page is a whole number from 1 to 500.';

/** A listing as it is stored. */
export const listingSpec = z
  .strictObject({
    id: key.optional(),
    key,
    label: z.string().optional(),
    type: key,
    where: filterSpec.optional(),
    sort: z.array(sortSpec).max(8, 'A listing has at most 8 sort keys.').default([]),
    pageSize: z.int(PAGE_SIZE).min(1, PAGE_SIZE).max(500, PAGE_SIZE).default(12),
    /** Where it is a page of its own; none where it stands only in templates. */
    address: z
      .string()
      .regex(
        /^(\/[a-z0-9._~-]+)+$/,
        'A listing\'s address is made of "/" and small letters, digits, "-", ".", "_" or "~".',
      )
      .optional(),
    card: key.optional(),
    /** A page template without a type, for the listing's own pages. */
    template: key.optional(),
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
  .transform((l) => ({ ...l, id: l.id ?? l.key, label: l.label ?? sentence(l.key) }));
/** Which entries, in what order, how many to a page, drawn as which card, and where. */
export type Listing = z.output<typeof listingSpec>;
