import { typePresetsSpec } from './presets.ts';
import { z } from 'zod';
import { didYouMean } from '../did-you-mean.ts';
import { isSafeTarget } from '../link.ts';
import type { Field } from './field.ts';
import { key } from './key.ts';
import { type Edition, languageSpec, tag } from './language-spec.ts';
import { CONTROLS } from './controls.ts';
import { FIELD_KINDS, kindOf } from './kinds/index.ts';
import { blockShape } from './block.ts';
import { withBlockIds, withIds } from './block-ids.ts';
import { listingSpec } from './listing-spec.ts';
import { timingRuleSpec, withRuleIds } from './timing-spec.ts';
import { slugText } from '../pattern/slug.ts';
import { lookSpec } from '../style/look-spec.ts';
import { sentence } from './words.ts';
import { isZone } from '../time/zone.ts';
import { styleSpec, textFormSpec } from './text-form-spec.ts';
import { noteTextForms } from './text-form.ts';

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

const label = z.string().min(1).max(200);
const fieldKey = z
  .string()
  .regex(
    /^[a-z][A-Za-z0-9_]*$/,
    'A field key starts with a small letter and has letters, digits or "_" only.',
  )
  .max(64, 'A field key has at most 64 characters.')
  .refine((k) => !RESERVED_KEYS.includes(k), {
    error: (i) => `"${String(i.input)}" is a name of the pattern language; choose another key.`,
  });

const before = z.strictObject({
  field: key,
  kind: z.enum(FIELD_KINDS.map((k) => k.kind)),
  many: z.boolean().default(false),
  /** What the options of a choice were called, by id. */
  labels: z.record(key, z.string().max(200)).optional(),
  /** What it was computed by. */
  pattern: z.string().max(4000).optional(),
  get replaces() {
    return before.optional();
  },
});

const common = {
  /** Stays when the key is renamed; values are stored under it. Default: the key. */
  id: key.optional(),
  key: fieldKey,
  label: label.optional(),
  help: z.string().max(2000).optional(),
  required: z.boolean().default(false),
  /** No two entries of the type have the same value: texts, numbers, days and instants. */
  unique: z.boolean().optional(),
  /** Holds several values. */
  many: z.boolean().default(false),
  /** Shown as a column of the content table. */
  column: z.boolean().default(false),
  /** Holds a value for each language; texts do unless said otherwise. */
  translated: z.boolean().optional(),
  /** What it was before its kind, or whether it holds several, was changed. */
  replaces: before.optional(),
  /** How many values there are at least and at most, where there are several. */
  minCount: z.int().min(0).max(1000).optional(),
  maxCount: z.int().min(1).max(1000).optional(),
  /** Begins a section of the form with this heading. */
  section: z.string().min(1).max(200).optional(),
  /** Takes half of the form's width. */
  half: z.boolean().optional(),
  /** Another control than that of its kind. */
  control: z.enum(CONTROLS).optional(),
  /** Left out of the form. */
  hidden: z.boolean().optional(),
  /** In the form while another field is filled, or has a value. */
  shownIf: z
    .strictObject({
      field: fieldKey,
      is: z.union([z.string(), z.number(), z.boolean()]).optional(),
    })
    .optional(),
  /** A value for new entries. */
  default: z.union([z.string(), z.number(), z.boolean()]).optional(),
};

function withProperties({ kind, properties }: (typeof FIELD_KINDS)[number]): z.ZodObject {
  return z.strictObject({ ...common, kind: z.literal(kind), ...properties });
}

/** A group holds fields of any kind, groups among them. */
const groupSpec = z.strictObject({
  ...common,
  kind: z.literal('group'),
  get fields(): z.ZodOptional<z.ZodType<Field[]>> {
    return z.array(fieldSpec).max(50).optional() as unknown as z.ZodOptional<z.ZodType<Field[]>>;
  },
});

type GivenField = Partial<Field> & Pick<Field, 'key' | 'kind'>;

/** A field of any kind: what all have, and what its kind has besides. */
export const fieldSpec = z
  .discriminatedUnion(
    'kind',
    FIELD_KINDS.map((kind) =>
      kind.kind === 'group' ? groupSpec : withProperties(kind),
    ) as unknown as [z.ZodObject, ...z.ZodObject[]],
    { error: (i) => unknownKind(i.input) },
  )
  .transform((given): Field => {
    const { id, key: own, label: name, translated, otherKey: there, ...rest } = given as GivenField;
    const otherKey = there ?? (rest.otherSide ? otherKeyOf(rest.otherSide) : undefined);
    const kind = kindOf(rest);
    return {
      id: id ?? own,
      key: own,
      label: name ?? sentence(own),
      ...rest,
      required: rest.required ?? false,
      many: kind.alwaysMany || (!kind.derived && (rest.many ?? false)),
      column: rest.column ?? false,
      translated: translated ?? kind.translated,
      ...(otherKey === undefined ? {} : { otherKey }),
    };
  });

/** What the other side of a reference is called in patterns: "companion of" → "companionOf". */
export function otherKeyOf(words: string): string {
  const camel = slugText(words, 'en').replace(/-(.)/g, (_, c: string) => c.toUpperCase());
  const key = (/^[a-z]/.test(camel) ? camel : `other${camel}`).slice(0, 64);
  return RESERVED_KEYS.includes(key) ? `${key}Side` : key;
}

function unknownKind(input: unknown): string {
  const kinds = FIELD_KINDS.map((k) => k.kind);
  const given = (input as { kind?: unknown } | null)?.kind;
  if (typeof given !== 'string') return `A field has a kind: ${kinds.join(', ')}.`;
  const fix = didYouMean(given, kinds, `There are: ${kinds.join(', ')}.`);
  return `There is no field kind "${given.slice(0, 60)}". ${fix}`;
}

const MOST_DAYS = 36_500;
const DAYS = 'This is a number of days, 1 to 36500.';
const daysSpec = z.int(DAYS).min(1, DAYS).max(MOST_DAYS, DAYS);

/** SEO rules of a type, or of the site. */
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
/** SEO rules; what is left out is decided further out. */
export type SeoRules = z.output<typeof seoSpec>;

/** A content type as it is stored. */
export const typeSpec = z
  .strictObject({
    id: key.optional(),
    key,
    label: label.optional(),
    plural: label.optional(),
    description: z.string().max(2000).default(''),
    fields: z
      .array(fieldSpec)
      .min(1, 'A content type needs at least one field.')
      .max(300, 'A content type has at most 300 fields.'),
    naming: z.string().optional(),
    summary: z.string().optional(),
    /** There is exactly one entry of it; patterns read it as `site.<key>`. */
    single: z.boolean().optional(),
    /** The address pattern; a type without one makes no pages of its own. */
    address: z.string().optional(),
    /** When two live entries would share an address: the later is numbered, or refused. */
    clash: z.enum(['number', 'refuse']).default('number'),
    /** What retired pages answer: 410, or 308 to a path or a listing. */
    retired: z
      .union([
        z.literal('gone'),
        z.strictObject({
          path: z.string().startsWith('/').refine(isSafeTarget, 'This is no path of this site.'),
        }),
        z.strictObject({ listing: key }),
      ])
      .default('gone'),
    template: key.optional(),
    /** Further page templates, which entries may choose. */
    templates: z.array(key).max(20, 'Entries choose among at most 20 templates.').optional(),
    card: key.optional(),
    /** What stands around its pages; as the site has it where left out. */
    frame: key.optional(),
    /** What its entries begin with, each until it has it otherwise. */
    presets: typePresetsSpec.default({ author: false, date: 'none' }),
    /** What is done to its entries by itself, and when. */
    timing: z.array(timingRuleSpec).max(20, 'A type has at most 20 timing rules.').optional(),
    /** The same of its entries; as the site has it where left out. */
    retention: z.union([z.literal('ever'), daysSpec]).optional(),
    seo: seoSpec.default({}),
  })
  .transform(({ id, key: own, label: name, plural, naming, timing, ...rest }) => {
    const label = name ?? sentence(own);
    return {
      id: id ?? own,
      key: own,
      label,
      plural: plural ?? `${label} entries`,
      naming: naming ?? (rest.fields.find((f) => kindOf(f).names) ?? rest.fields[0]!).key,
      ...rest,
      ...(timing ? { timing: withRuleIds(timing) } : {}),
    };
  });
/** A content type with its defaults filled in. */
export type ContentType = z.output<typeof typeSpec> & {
  /** Id of the further language it is read in; never stored. */
  edition?: string;
};

/** A template as it is stored. */
export const templateSpec = z
  .strictObject({
    id: key.optional(),
    key,
    label: z.string().optional(),
    kind: z.enum(['page', 'card', 'frame', 'menu']),
    /** The content type it reads; frames and menus have none. */
    type: key.optional(),
    blocks: z.array(blockShape),
    /** Blocks for the frame's named slots other than `main`. */
    slots: z.record(z.string(), z.array(blockShape)).default({}),
  })
  .transform(({ id, key: own, label: name, blocks, slots, ...rest }) => ({
    id: id ?? own,
    key: own,
    label: name ?? sentence(own),
    ...rest,
    ...withBlockIds({ blocks, slots }),
  }));
/** A template with its defaults filled in. */
export type Template = z.output<typeof templateSpec>;

/** A set of subjects; its subjects are content. */
export const subjectSetSpec = z
  .strictObject({
    id: key.optional(),
    key,
    label: z.string().optional(),
    kind: z.enum(['tags', 'tree']),
  })
  .transform(({ id, key: own, label: name, kind }) => ({
    id: id ?? own,
    key: own,
    label: name ?? sentence(own),
    kind,
  }));

/** Picks: entries chosen and ordered by hand; which ones is content. */
export const picksSpec = z
  .strictObject({
    id: key.optional(),
    key,
    label: z.string().optional(),
    /** What it is for, shown where entries are chosen for it. */
    description: z.string().max(2000).default(''),
  })
  .transform(({ id, key: own, label: name, description }) => ({
    id: id ?? own,
    key: own,
    label: name ?? sentence(own),
    description,
  }));
/** Picks as a design has them. */
export type Picks = z.output<typeof picksSpec>;

/** A redirect set by hand; 308 unless set otherwise (RFC 9110 §15.4). */
export const redirectSpec = z.strictObject({
  /** Stays when the redirect is changed. */
  id: key.optional(),
  from: z.string().startsWith('/', 'A redirect starts at a path: "/old".').max(3072),
  to: z
    .string()
    .max(4096)
    .refine(
      isSafeTarget,
      'A redirect leads to a path of this site ("/new"), or to http(s)://…, mailto:… or tel:….',
    ),
  /** Whether it leads on all below its path, too, with what follows there. */
  prefix: z.boolean().optional(),
  status: z
    .union(
      [z.literal(301), z.literal(302), z.literal(307), z.literal(308)],
      'A redirect answers with 301, 302, 307 or 308.',
    )
    .default(308),
});

/** What holds for the whole site. */
export const siteSpec = z.strictObject({
  name: z.string().min(1),
  strapline: z.string().default(''),
  /** Where the site is public: scheme and host, no path. */
  url: z
    .url({ protocol: /^https?$/, error: 'The address of a site is http(s)://HOST.' })
    .refine(isOrigin, 'The address of a site is a scheme and a host, without path, user or query.')
    .transform((u) => new URL(u).origin),
  /** IANA time zone. */
  zone: z.string().refine(isZone, {
    error: (i) => `"${String(i.input)}" is not an IANA time zone, such as "Europe/Dublin".`,
  }),
  /** BCP 47 tag of the language pages are written in. */
  language: tag,
  /** What `/` shows: an entry or a listing. */
  front: z
    .union([z.strictObject({ entry: z.string() }), z.strictObject({ listing: key })])
    .optional(),
  frame: key.optional(),
  /** The picture of share cards that have none of their own: its file name below `media/`. */
  sharePicture: z.string().min(1).max(400).optional(),
  /** Seconds for which a page may be reused without asking again, 0 to 60. */
  freshness: z.int().min(0).max(60).default(0),
  /** For how many days versions are kept that were never public; for ever where left out. */
  retention: daysSpec.optional(),
  /** Site-wide defaults of the SEO rules. */
  seo: seoSpec.default({}),
});

/** A whole design as it is stored. */
export const designSpec = z
  .strictObject({
    site: siteSpec,
    types: z.array(typeSpec),
    listings: z.array(listingSpec).default([]),
    templates: z.array(templateSpec).default([]),
    subjectSets: z.array(subjectSetSpec).default([]),
    picks: z.array(picksSpec).default([]),
    textForms: z.array(textFormSpec).default([]),
    styles: z.array(styleSpec).default([]),
    redirects: z.array(redirectSpec).default([]),
    /** The languages that it is in besides the site's own. */
    languages: z
      .array(languageSpec)
      .max(30, 'A site has at most 30 further languages.')
      .default([]),
    /** Style sheet of the public pages. */
    css: z.string().max(500_000, 'A style sheet has at most 500,000 characters.').default(''),
    /** The site's style; where it is left out, the style sheet is all there is. */
    look: lookSpec.optional(),
    slugVersion: z.int().default(1),
  })
  .transform((design) => {
    noteTextForms(design);
    return { ...design, redirects: withIds(design.redirects, 'r') };
  });
/** The whole design of a site: one versioned document of plain values. */
export type Design = Omit<z.output<typeof designSpec>, 'types'> & {
  types: ContentType[];
  /** Set where it is read in a further language; never stored. */
  edition?: Edition;
};

/** Whether an address is nothing but scheme, host and port. */
function isOrigin(address: string): boolean {
  if (!URL.canParse(address)) return false;
  const { username, password, pathname, search, hash } = new URL(address);
  return `${username}${password}${search}${hash}` === '' && /^\/*$/.test(pathname);
}
