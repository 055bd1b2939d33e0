import { z } from 'zod';

/** What a key may be besides a field. */
export const PLACES = {
  '@created': 'When it was written',
  '@author': 'Who wrote it',
  '@draft': 'Whether it is a draft',
  '@address': 'Its address',
  '@id': 'What it is known by when it is brought again',
} as const;
/** How records become entries of a type. */
export const mappingSpec = z.strictObject({
  /** Key of the type. */
  type: z.string().max(64),
  /** Folder below the one that was sent; all of it where left out. */
  within: z.string().max(1000).default(''),
  /** What each key or column becomes: a field by its key, or a place (`@created` …). */
  fields: z.record(z.string().max(200), z.string().max(80)).default({}),
  /** Whether entries go live: none, all, or all but drafts. */
  publish: z.enum(['no', 'yes', 'not-drafts']).default('no'),
  /** How days by numbers alone are read. */
  days: z.enum(['dmy', 'mdy']).default('dmy'),
  /** The sign before decimals, for numbers that could be read either way, such as 1.234. */
  decimals: z.enum(['point', 'comma']).default('point'),
  /** What becomes of entries whose records are not there any more. */
  gone: z.enum(['stay', 'retire']).default('stay'),
});
/** How records become entries of a type. */
export type Mapping = z.output<typeof mappingSpec>;
