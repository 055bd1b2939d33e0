import { z } from 'zod';
import { orderSpec } from '@/core/design/other-order.ts';
import { presetsSpec } from '@/core/design/presets.ts';

/** An instant, or a moment relative to loading: kept as text until the site's zone is known. */
const moment = z.union([z.string().min(1), z.number()]).transform(String);
const revisionNumber = z.int().min(1);

/** `from/to` as in ISO 8601, or from alone, or both by name. */
const live = z.union([
  z.string().transform((text) => {
    const [from, to] = text.split('/') as [string, string | undefined];
    return {
      from: from.trim(),
      to: to === undefined || to.trim() === '' || to.trim() === '..' ? null : to.trim(),
      revision: null as number | null,
      language: undefined as string | undefined,
    };
  }),
  z.strictObject({
    from: moment,
    to: moment.nullable().default(null),
    revision: revisionNumber.nullable().default(null),
    /** BCP 47; the site's own where left out. */
    language: z.string().max(100).optional(),
  }),
]);

const plan = z.strictObject({
  at: moment,
  do: z.enum(['publish', 'retire']),
  revision: revisionNumber.nullable().default(null),
  /** Its place among those of its instant; default: that in the list. */
  sequence: z.int().min(0).optional(),
  /** The local time as it was typed, and the zone it was meant in. */
  local: z.string().max(64).nullable().default(null),
  zone: z.string().max(100).nullable().default(null),
  /** Who asked for it; default: the entry's author. */
  person: z.string().max(200).optional(),
  language: z.string().max(100).optional(),
});
const byHand = z.union([
  z
    .string()
    .transform((path) => ({ path, from: null as string | null, to: null as string | null })),
  z.strictObject({
    path: z.string(),
    from: moment.nullable().default(null),
    to: moment.nullable().default(null),
  }),
]);
/** An address held before the folder was saved, and what it was dealt for where that is another. */
const held = z.strictObject({
  path: z.string(),
  base: z
    .string()
    .regex(/^((hand:|front:)?\/|front:$)/, 'A base is a path, "hand:" or "front:" and a path.')
    .optional(),
  /** The base it was to have instead and could not. */
  refused: z.string().max(4096).nullable().default(null),
  /** `redirect`: the pattern's path of what stood at `/`. */
  role: z.enum(['current', 'redirect']).default('current'),
  from: moment,
  to: moment.nullable().default(null),
  language: z.string().max(100).optional(),
});
/** When a revision was live before the folder was saved. */
const was = z.strictObject({
  from: moment,
  to: moment.nullable().default(null),
  revision: revisionNumber,
  /** Whose values are shown that are the same in every language; default: the revision's. */
  shared: revisionNumber.optional(),
  language: z.string().max(100).optional(),
});
/** What could not be had before the folder was saved. */
const refused = z.strictObject({
  at: moment,
  code: z.enum(['clash', 'blank-segment', 'cycle', 'too-long', 'nothing-left']),
  message: z.string().max(10_000),
  fix: z.string().max(10_000),
  cancelled: z.boolean().default(false),
  base: z.string().max(4096).nullable().default(null),
  byHand: z.boolean().default(false),
});
/** What was so before the folder was saved in a language besides the site's own. */
const facts = z.strictObject({
  was: z.array(was.extend({ fallback: z.boolean().default(false) })).default([]),
  held: z.array(held).default([]),
  refused: z.array(refused).default([]),
});
/** What fields say in other languages, by BCP 47 tags and the keys of fields. */
const languages = z.record(z.string().max(100), z.record(z.string(), z.unknown())).optional();
/** Values by field id, as they are stored. */
const stored = z.record(z.string().max(64), z.json()).default({});
const note = z.string().max(500).optional();
const name = z.string().max(4_000_000).optional();
const listOf = <T extends z.ZodType>(
  item: T,
): z.ZodPipe<z.ZodTransform<unknown, unknown>, z.ZodArray<T>> =>
  z.preprocess(
    (v) => (v === undefined || v === null ? [] : Array.isArray(v) ? v : [v]),
    z.array(item),
  ) as never;

/** Ids read like paths; names that files give are made into such ids. */
export const ENTRY_ID = /^[A-Za-z0-9][A-Za-z0-9._/#-]*$/;

function isId(id: string): boolean {
  const parts = id.split('/');
  return ENTRY_ID.test(id) && parts.every((part) => part !== '' && !/^\.+$/.test(part));
}

/** An id made of a file's path: what an id cannot hold becomes a hyphen. */
export function idOfPath(path: string): string {
  const parts = path
    .normalize('NFD')
    .replace(/[\u0300-\u036f]/g, '')
    .split('/')
    .map((part) => part.replace(/[^A-Za-z0-9._#-]+/g, '-').replace(/^[^A-Za-z0-9]+/, ''));
  return parts
    .map((part) => part || 'x')
    .join('/')
    .slice(0, 200);
}

/** What stands under `entry:` in a file of entries: everything that is not a field. */
export const entryForm = z.strictObject({
  id: z
    .union([z.string().min(1).max(200), z.number()])
    .transform(String)
    .refine(isId, {
      error:
        'An id starts with a letter or digit and has letters, digits, ".", "_", "/", "#" and "-" only, at most 200.',
    })
    .optional(),
  type: z.string().optional(),
  /** Id of a type that the design of the folder does not have any more. */
  typeId: z.string().max(64).optional(),
  created: moment.optional(),
  author: z.string().max(200).default(''),
  /** When the newest revision was saved. */
  saved: moment.optional(),
  /** Who saved it; default: the author. */
  savedBy: z.string().max(200).optional(),
  /** Its number, where versions between it and the one before are not kept. */
  number: revisionNumber.optional(),
  /** What the newest revision is called where its naming field says otherwise. */
  name,
  /** What whoever saved it said of it. */
  note,
  deleted: moment.optional(),
  live: listOf(live),
  plans: listOf(plan),
  address: listOf(byHand),
  /** All addresses held so far; left out, they are worked out by the design of the folder. */
  held: listOf(held),
  /** Facts of a saved site: when it was live, and what could not be had. */
  was: z.array(was).optional(),
  refused: listOf(refused),
  /** The same facts in further languages, by their ids. */
  further: z.record(z.string().max(64), facts).default({}),
  /** What it says in other languages than the site's own. */
  languages,
  stored,
  /** What it has otherwise than its type presets. */
  presets: presetsSpec.optional(),
  /** In which order those that lead here stand, by reference (`type/field`, their ids). */
  order: orderSpec.optional(),
  /** Older revisions, oldest first: the fields in which they differ. */
  revisions: listOf(
    z.strictObject({
      saved: moment,
      number: revisionNumber.optional(),
      author: z.string().max(200).optional(),
      name,
      note,
      presets: presetsSpec.optional(),
      order: orderSpec.optional(),
      values: z.record(z.string(), z.unknown()).default({}),
      /** As of the newest where left out, and the values are on top of that. */
      languages,
      /** Whether the values are all there are, and not on top of the newest. */
      whole: z.boolean().default(false),
      stored,
    }),
  ),
});
/** What stands under `entry:`, read. */
export type EntryForm = z.output<typeof entryForm>;

/** An entry as its file gives it. */
export interface RawEntry {
  file: string;
  /** Its place in the file, for messages. */
  lineOf(path: readonly (string | number)[]): number;
  /** The id it has if it gives none. */
  defaultId: string;
  type: string;
  form: EntryForm;
  fields: Record<string, unknown>;
  /** Markdown below the front matter, and the line of the file it begins at. */
  body: { text: string; line: number } | null;
}
