import { blob, index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { entry } from './schema.ts';

/* What editors' tables are read from, and what is kept of their work. Instants as in `schema.ts`. */

/**
 * The newest revision of each entry, as the content table and its search read it: derived. The
 * index of full text, `newest_words`, reads its names and words, and follows them by triggers.
 */
export const newest = sqliteTable('newest', {
  id: integer('id').primaryKey(),
  entry: text('entry')
    .notNull()
    .unique()
    .references(() => entry.id),
  type: text('type').notNull(),
  name: text('name').notNull(),
  /** JSONB: texts as text operators compare them, by column. */
  texts: blob('texts').notNull(),
  words: text('words').notNull(),
});

/** What the content table filters and orders by, a value each: derived. */
export const newestCell = sqliteTable(
  'newest_cell',
  {
    field: text('field').notNull(),
    /** A number or a text. */
    value: blob('value').notNull(),
    id: integer('id').notNull(),
  },
  (t) => [primaryKey({ columns: [t.field, t.value, t.id] }), index('newest_cell_id').on(t.id)],
);

/** The states of each entry over time: derived. `ends` is after all instants where none is known. */
export const stateStretch = sqliteTable(
  'state_stretch',
  {
    id: integer('id').notNull(),
    state: text('state').notNull(),
    starts: integer('starts').notNull(),
    ends: integer('ends').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.state, t.ends, t.starts, t.id] }),
    index('state_stretch_id').on(t.id),
  ],
);

/** What new entries begin with: never public, no entries themselves. */
export const starter = sqliteTable(
  'starter',
  {
    id: text('id').primaryKey(),
    /** Id of the type. */
    type: text('type').notNull(),
    name: text('name').notNull(),
    /** JSON by field id. */
    filled: text('filled').notNull(),
    /** Who saved it last, and when. */
    author: text('author').notNull(),
    saved: integer('saved').notNull(),
  },
  (t) => [index('starter_type').on(t.type, t.name)],
);

/** The columns of the content table that a person has chosen, by type; '' for all types. */
export const chosenColumns = sqliteTable(
  'chosen_columns',
  {
    person: text('person').notNull(),
    type: text('type').notNull(),
    /** JSON: names of columns. */
    columns: text('columns').notNull(),
  },
  (t) => [primaryKey({ columns: [t.person, t.type] })],
);

/** Filters of the content table that somebody has kept, with their names. */
export const savedFilter = sqliteTable('saved_filter', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  /** Whose it is, and of nobody else where it is not shared. */
  person: text('person').notNull(),
  shared: integer('shared', { mode: 'boolean' }).notNull(),
  /** JSON: what the table is narrowed down by, and its order; a type goes by its id. */
  filters: text('filters').notNull(),
});

/** What was done to many entries at once, and what was so before: to take it back by. */
export const bulkChange = sqliteTable(
  'bulk_change',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    person: text('person').notNull(),
    at: integer('at').notNull(),
    /** JSON: what was done. */
    what: text('what').notNull(),
    /** JSON: ids of entries, each with what was so before. */
    done: text('done').notNull(),
    undone: integer('undone', { mode: 'boolean' }).notNull().default(false),
  },
  (t) => [index('bulk_change_person').on(t.person, t.id)],
);

/** Where content was brought in from: how its records become entries, kept to bring them again. */
export const source = sqliteTable('source', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  /** JSON: the mapping; its type goes by its id. */
  mapping: text('mapping').notNull(),
  /** Who brought from it last, and when. */
  person: text('person').notNull(),
  at: integer('at').notNull(),
});

/** Which record of a source became which entry, and what it said. */
export const brought = sqliteTable(
  'brought',
  {
    source: text('source').notNull(),
    record: text('record').notNull(),
    entry: text('entry').notNull(),
    /** The revision that it was saved as: a later one was written here. */
    revision: integer('revision').notNull(),
    /** Tells what it said from what it says. */
    print: text('print').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.source, t.record] }),
    index('brought_entry').on(t.entry, t.source),
  ],
);
