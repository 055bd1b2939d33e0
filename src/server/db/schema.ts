import { sql } from 'drizzle-orm';
import { index, integer, primaryKey, real, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import type { MediaWordsByTag } from '@/core/design/media-words.ts';
import type { WordsByTag } from '@/core/design/subject-words.ts';

/* All instants are integer milliseconds UTC. `starts`/`ends` are half-open; a null end is not known. */

/** Single values of the store, `settled` (the last write's instant) among them. */
export const meta = sqliteTable('meta', {
  key: text('key').primaryKey(),
  value: text('value').notNull(),
});

/** Whoever wrote or did something; names may change, and two may share one. */
export const person = sqliteTable('person', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
});

/**
 * Entries; `deleted` ends their intervals, and their past stays; of those that were `purged`
 * nothing is left but the addresses that they held.
 */
export const entry = sqliteTable(
  'entry',
  {
    id: text('id').primaryKey(),
    /** Id of its content type. */
    type: text('type').notNull(),
    created: integer('created').notNull(),
    /** Id of a person, as all authors are. */
    author: text('author').notNull(),
    /** When it was deleted; its past stays. Null where it is there. */
    deleted: integer('deleted'),
    /** When all that was stored of it was taken away for good; null where it was not. */
    purged: integer('purged'),
    /** Start of the first live interval: derived while it lies ahead, a fact once past. */
    published: integer('published'),
    /** Number of the newest revision: derived. */
    newest: integer('newest').notNull().default(0),
    /** Whether the newest revision never was public and is not planned to be: derived. */
    unpublished: integer('unpublished', { mode: 'boolean' }).notNull().default(false),
  },
  (t) => [
    index('entry_type').on(t.type, t.created, t.id),
    index('entry_published').on(t.published),
    index('entry_unpublished')
      .on(t.id)
      .where(sql`${t.unpublished} = 1`),
  ],
);

/** Immutable saved states, by entry and number. */
export const revision = sqliteTable(
  'revision',
  {
    entry: text('entry')
      .notNull()
      .references(() => entry.id),
    number: integer('number').notNull(),
    saved: integer('saved').notNull(),
    author: text('author').notNull(),
    /** JSON by field id. */
    values: text('values').notNull(),
    /** The naming field's text, for tables and search. */
    name: text('name').notNull(),
    /** The same as searches compare it: accents and case folded. */
    search: text('search').notNull().default(''),
    /** What whoever saved it said of it; '' for nothing. */
    note: text('note').notNull().default(''),
  },
  (t) => [
    primaryKey({ columns: [t.entry, t.number] }),
    index('revision_saved').on(sql`${t.saved} DESC`, t.entry),
    // Few entries have something otherwise than their type.
    index('revision_presets')
      .on(t.entry, t.number)
      .where(sql`json_extract(${t.values}, '$._presets') IS NOT NULL`),
  ],
);

/** Publications and retirements that were asked for. */
export const plannedChange = sqliteTable(
  'planned_change',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    entry: text('entry')
      .notNull()
      .references(() => entry.id),
    language: text('language').notNull(),
    at: integer('at').notNull(),
    sequence: integer('sequence').notNull(),
    action: text('action', { enum: ['publish', 'retire'] }).notNull(),
    revision: integer('revision'),
    /** The local time as typed, and its zone; null where an instant was given. */
    local: text('local'),
    zone: text('zone'),
    person: text('person').notNull(),
  },
  (t) => [
    index('planned_change_at').on(t.at),
    index('planned_change_entry').on(t.entry, t.at, t.sequence),
  ],
);

/** Addresses set by hand, while their intervals run. */
export const byHand = sqliteTable(
  'by_hand',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    entry: text('entry')
      .notNull()
      .references(() => entry.id),
    path: text('path').notNull(),
    starts: integer('starts').notNull(),
    ends: integer('ends'),
  },
  (t) => [index('by_hand_entry').on(t.entry)],
);

/** What was, is and will be live: derived. */
export const liveInterval = sqliteTable(
  'live_interval',
  {
    entry: text('entry')
      .notNull()
      .references(() => entry.id),
    language: text('language').notNull(),
    starts: integer('starts').notNull(),
    ends: integer('ends'),
    revision: integer('revision').notNull(),
    sharedRevision: integer('shared_revision').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.entry, t.language, t.starts] }),
    index('live_interval_starts').on(t.starts),
    index('live_interval_ends').on(t.ends),
  ],
);

/** Who holds which path when: derived. */
export const address = sqliteTable(
  'address',
  {
    path: text('path').notNull(),
    language: text('language').notNull(),
    entry: text('entry')
      .notNull()
      .references(() => entry.id),
    starts: integer('starts').notNull(),
    ends: integer('ends'),
    /** `purged`: whoever held it was taken away for good, and it leads nowhere. */
    role: text('role', { enum: ['current', 'redirect', 'purged'] }).notNull(),
    base: text('base').notNull(),
  },
  (t) => [
    // Nothing that changes later: ends change by the hundred thousand where addresses move.
    index('address_path').on(t.path, t.starts),
    index('address_entry').on(t.entry, t.starts),
    index('address_starts').on(t.starts),
    // Most do not end: those are not among them.
    index('address_ends')
      .on(t.ends)
      .where(sql`${t.ends} IS NOT NULL`),
    index('address_base').on(t.base, t.starts),
  ],
);

/**
 * Which revisions refer to which entries, to which subjects (`#`, their set's id, `/`, their key)
 * and to which media (`/`, their id), by field: derived from the revisions.
 */
export const referenceEdge = sqliteTable(
  'reference_edge',
  {
    target: text('target').notNull(),
    field: text('field').notNull(),
    entry: text('entry').notNull(),
    revision: integer('revision').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.target, t.field, t.entry, t.revision] }),
    index('reference_edge_entry').on(t.entry),
  ],
);

/** Publications and addresses that could not be had: derived. */
export const refusal = sqliteTable(
  'refusal',
  {
    entry: text('entry').notNull(),
    at: integer('at').notNull(),
    code: text('code').notNull(),
    message: text('message').notNull(),
    fix: text('fix').notNull(),
    cancelled: integer('cancelled', { mode: 'boolean' }).notNull(),
    /** The base that could not be had. */
    base: text('base'),
    byHand: integer('by_hand', { mode: 'boolean' }).notNull().default(false),
  },
  (t) => [
    primaryKey({ columns: [t.entry, t.at] }),
    index('refusal_at').on(t.at),
    index('refusal_base').on(t.base),
  ],
);

/** Tags and categories, each as it stood over a stretch of time. */
export const subject = sqliteTable(
  'subject',
  {
    set: text('set').notNull(),
    key: text('key').notNull(),
    starts: integer('starts').notNull(),
    ends: integer('ends'),
    name: text('name').notNull(),
    slug: text('slug').notNull(),
    description: text('description').notNull(),
    picture: text('picture'),
    parent: text('parent'),
    /** Key of the subject that it is one with; null where it stands for itself. */
    merged: text('merged'),
    /** What further languages say of it, by their tags; null where none does. */
    languages: text('languages', { mode: 'json' }).$type<WordsByTag>(),
    /** Its place among those beside it: of a key, not of a stretch. */
    position: real('position').notNull(),
    /** Who made it so; null where a folder brought it. */
    author: text('author'),
  },
  (t) => [
    primaryKey({ columns: [t.set, t.key, t.starts] }),
    index('subject_starts').on(t.set, t.starts),
    index('subject_ends').on(t.set, t.ends),
    index('subject_name').on(t.set, sql`${t.name} COLLATE NOCASE`),
    index('subject_slug').on(t.set, t.slug),
  ],
);

/** Who stands in which picks over which stretch of time, and where in their order. */
export const pick = sqliteTable(
  'pick',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    /** Id of the picks. */
    picks: text('picks').notNull(),
    entry: text('entry')
      .notNull()
      .references(() => entry.id),
    starts: integer('starts').notNull(),
    ends: integer('ends'),
    position: real('position').notNull(),
  },
  (t) => [
    index('pick_position').on(t.picks, t.position, t.id),
    index('pick_entry').on(t.entry, t.picks),
    index('pick_starts').on(t.picks, t.starts),
    index('pick_ends').on(t.picks, t.ends),
    index('pick_any_starts').on(t.starts),
    index('pick_any_ends').on(t.ends),
  ],
);

/**
 * Pictures, other files and fonts, each over the stretches of time in which it was as it was; the
 * files stand in the data folder, by their hash.
 */
export const media = sqliteTable(
  'media',
  {
    /** Its name: that of its file below the site folder's `media/`. */
    id: text('id').notNull(),
    starts: integer('starts').notNull(),
    ends: integer('ends'),
    hash: text('hash').notNull(),
    mime: text('mime').notNull(),
    bytes: integer('bytes').notNull(),
    /** Size in px, upright; 0 of what is no picture. */
    width: integer('width').notNull(),
    height: integer('height').notNull(),
    alt: text('alt').notNull(),
    /** Whether it says nothing that a page does not say: then it needs no alternative text. */
    decorative: integer('decorative', { mode: 'boolean' }).notNull(),
    caption: text('caption').notNull(),
    credit: text('credit').notNull(),
    /** Where what matters in it lies, in per cent from the left and the top. */
    focusX: integer('focus_x').notNull(),
    focusY: integer('focus_y').notNull(),
    /** What further languages say of it, by their tags; null where none does. */
    languages: text('languages', { mode: 'json' }).$type<MediaWordsByTag>(),
    /** Name, alternative text, caption and credit as searches compare them. */
    search: text('search').notNull(),
    /** Who made it so; null where a folder brought it. */
    author: text('author'),
  },
  (t) => [
    primaryKey({ columns: [t.id, t.starts] }),
    index('media_hash').on(t.hash),
    index('media_starts').on(sql`${t.starts} DESC`, t.id),
  ],
);

/**
 * Releases, each with the design from its instant on: that is the one before with the release's
 * edits applied. By instant, then id.
 */
export const designVersion = sqliteTable(
  'design_version',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    starts: integer('starts').notNull(),
    /** JSON of the whole design: derived from the edits, but where a folder brought it. */
    spec: text('spec').notNull(),
    author: text('author').notNull(),
    saved: integer('saved').notNull(),
    /** JSON of the edits, as they took hold; null where the design was put there as a whole. */
    edits: text('edits'),
    /** JSON: revisions published with it, and those live before. */
    published: text('published').notNull().default('[]'),
    /** The release that this one takes back; null for others. */
    undoes: integer('undoes'),
  },
  (t) => [index('design_version_starts').on(t.starts)],
);

/** Edits of the design in the order in which they were made. */
export const designEdit = sqliteTable(
  'design_edit',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    person: text('person').notNull(),
    made: integer('made').notNull(),
    /** JSON of the edit, as it took hold. */
    edit: text('edit').notNull(),
    /** `open` stands on the bench; `undone` can be done again by whoever undid it. */
    state: text('state', { enum: ['open', 'undone', 'discarded', 'released'] }).notNull(),
    /** When it was undone; those undone together share it. */
    undone: integer('undone'),
    /** The release that took it. */
    release: integer('release'),
  },
  (t) => [
    index('design_edit_open')
      .on(t.id)
      .where(sql`${t.state} = 'open'`),
    index('design_edit_person').on(t.person, t.state, t.id),
  ],
);

/**
 * What each of the latest public changes changed, by keys of read sets: which pages are made anew
 * is told from it. `generation` is the counter `public`.
 */
export const publicChange = sqliteTable(
  'public_change',
  { generation: integer('generation').notNull(), key: text('key').notNull() },
  (t) => [primaryKey({ columns: [t.generation, t.key] })],
);

/** Monotonic counters: `total`, `design`, `media`, `subjects`, `bench`. */
export const siteChange = sqliteTable('site_change', {
  scope: text('scope').primaryKey(),
  generation: integer('generation').notNull(),
});
