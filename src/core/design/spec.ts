import { z } from 'zod';
import { blockSpec } from './block-spec.ts';
import { listingSpec } from './listing-spec.ts';
import { sentence } from './words.ts';
import { isZone } from '../time/zone.ts';

/** Field keys that roots of the pattern language already use. */
export const RESERVED_KEYS = [
  'entry',
  'site',
  'page',
  'within',
  'item',
  'subject',
  'value',
  'locale',
];

/** A key: used in patterns, files and addresses of settings. */
export const key = z
  .string()
  .regex(
    /^[a-z][A-Za-z0-9_-]*$/,
    'A key starts with a small letter and has letters, digits, "_" or "-" only.',
  );
const fieldKey = z
  .string()
  .regex(
    /^[a-z][A-Za-z0-9_]*$/,
    'A field key starts with a small letter and has letters, digits or "_" only.',
  )
  .refine((k) => !RESERVED_KEYS.includes(k), {
    error: (i) => `"${String(i.input)}" is a name of the pattern language; choose another key.`,
  });

/** The kinds of field there are. */
export const FIELD_KINDS = [
  'text',
  'paragraphs',
  'richtext',
  'number',
  'yesno',
  'date',
  'datetime',
  'choice',
  'media',
  'reference',
  'tags',
  'category',
] as const;
export type FieldKind = (typeof FIELD_KINDS)[number];

const TRANSLATED_KINDS: readonly FieldKind[] = ['text', 'paragraphs', 'richtext'];

const option = z.union([
  key.transform((k) => ({ key: k, label: k })),
  z.strictObject({ key, label: z.string().min(1) }),
]);

export const fieldSpec = z
  .strictObject({
    /** Stays when the key is renamed; values are stored under it. Default: the key. */
    id: key.optional(),
    key: fieldKey,
    label: z.string().optional(),
    kind: z.enum(FIELD_KINDS),
    help: z.string().optional(),
    required: z.boolean().default(false),
    /** Holds several values. */
    many: z.boolean().default(false),
    /** Shown as a column of the content table. */
    column: z.boolean().default(false),
    /** Choices, in their order. */
    options: z.array(option).optional(),
    /** Content types a reference may point at. */
    types: z.array(key).optional(),
    /** What the other side of the reference is called. */
    otherSide: z.string().optional(),
    /** Marks the one reference that makes the tree of pages. */
    sitsWithin: z.boolean().default(false),
    /** The subject set of tags or a category. */
    set: key.optional(),
    /** Holds a value for each language; texts do unless said otherwise. */
    translated: z.boolean().optional(),
    /** A value for new entries. */
    default: z.union([z.string(), z.number(), z.boolean()]).optional(),
  })
  .transform((f) => ({
    ...f,
    id: f.id ?? f.key,
    label: f.label ?? sentence(f.key),
    many: f.kind === 'tags' ? true : f.many,
    translated: f.translated ?? TRANSLATED_KINDS.includes(f.kind),
  }));
export type Field = z.output<typeof fieldSpec>;

export const seoSpec = z.strictObject({
  title: z.string().optional(),
  description: z.string().optional(),
  /** Whether search engines may list the pages, and follow their links. */
  index: z.boolean().optional(),
  follow: z.boolean().optional(),
  /** A pattern for the canonical address, where it is not the page itself. */
  canonical: z.string().optional(),
  /** The field whose picture stands on share cards. */
  picture: z.string().optional(),
  /** Open Graph type (ogp.me). */
  shareType: z.enum(['website', 'article', 'profile']).optional(),
  sitemap: z.boolean().optional(),
});
export type SeoRules = z.output<typeof seoSpec>;

export const typeSpec = z
  .strictObject({
    id: key.optional(),
    key,
    label: z.string().optional(),
    plural: z.string().optional(),
    description: z.string().default(''),
    fields: z.array(fieldSpec).min(1, 'A content type needs at least one field.'),
    naming: z.string().optional(),
    summary: z.string().optional(),
    /** The address pattern; a type without one makes no pages of its own. */
    address: z.string().optional(),
    /** When two live entries would share an address: the later is numbered, or refused. */
    clash: z.enum(['number', 'refuse']).default('number'),
    /** What retired pages answer: 410, or 308 to a path or a listing. */
    retired: z
      .union([
        z.literal('gone'),
        z.strictObject({ path: z.string().startsWith('/') }),
        z.strictObject({ listing: key }),
      ])
      .default('gone'),
    template: key.optional(),
    card: key.optional(),
    seo: seoSpec.default({}),
  })
  .transform((t) => {
    const label = t.label ?? sentence(t.key);
    const naming = t.naming ?? (t.fields.find((f) => f.kind === 'text') ?? t.fields[0]!).key;
    return { ...t, id: t.id ?? t.key, label, plural: t.plural ?? `${label} entries`, naming };
  });
export type ContentType = z.output<typeof typeSpec>;

export const templateSpec = z
  .strictObject({
    key,
    label: z.string().optional(),
    kind: z.enum(['page', 'card', 'frame']),
    /** The content type it reads; a frame has none. */
    type: key.optional(),
    blocks: z.array(blockSpec),
    /** Blocks for the frame's named slots other than `main`. */
    slots: z.record(z.string(), z.array(blockSpec)).default({}),
  })
  .transform((t) => ({ ...t, label: t.label ?? sentence(t.key) }));
export type Template = z.output<typeof templateSpec>;

export const subjectSetSpec = z
  .strictObject({
    key,
    label: z.string().optional(),
    kind: z.enum(['tags', 'tree']),
  })
  .transform((s) => ({ ...s, label: s.label ?? sentence(s.key) }));

export const redirectSpec = z.strictObject({
  from: z.string().startsWith('/', 'A redirect starts at a path: "/old".'),
  to: z.string().min(1),
  status: z.union([z.literal(301), z.literal(302), z.literal(307), z.literal(308)]).default(308),
});

export const siteSpec = z.strictObject({
  name: z.string().min(1),
  strapline: z.string().default(''),
  /** Where the site is public: scheme and host, no path. */
  url: z.url({ protocol: /^https?$/ }).transform((u) => u.replace(/\/+$/, '')),
  /** IANA time zone. */
  zone: z.string().refine(isZone, {
    error: (i) => `"${String(i.input)}" is not an IANA time zone, such as "Europe/Dublin".`,
  }),
  /** BCP 47 tag of the language pages are written in. */
  language: z.string().refine((l) => tagOf(l) !== null, {
    error: (i) => `"${String(i.input)}" is not a language tag, such as "en" or "de".`,
  }),
  /** What `/` shows: an entry or a listing. */
  front: z
    .union([z.strictObject({ entry: z.string() }), z.strictObject({ listing: key })])
    .optional(),
  frame: key.optional(),
  /** Seconds for which a page may be reused without asking again, 0 to 60. */
  freshness: z.int().min(0).max(60).default(0),
  /** Site-wide defaults of the SEO rules. */
  seo: seoSpec.default({}),
});

export const designSpec = z.strictObject({
  site: siteSpec,
  types: z.array(typeSpec),
  listings: z.array(listingSpec).default([]),
  templates: z.array(templateSpec).default([]),
  subjectSets: z.array(subjectSetSpec).default([]),
  redirects: z.array(redirectSpec).default([]),
  /** Style sheet of the public pages. */
  css: z.string().default(''),
  slugVersion: z.int().default(1),
});
/** The whole design of a site: one versioned document of plain values. */
export type Design = z.output<typeof designSpec>;

function tagOf(language: string): string | null {
  try {
    return Intl.getCanonicalLocales(language)[0] ?? null;
  } catch {
    return null;
  }
}
