import { hitIn } from '@/core/content/hit.ts';
import { withComputed } from '@/core/design/computed.ts';
import { displayValues } from '@/core/design/field-values.ts';
import type { ControlName } from '@/core/design/controls.ts';
import type { Field } from '@/core/design/field.ts';
import { kindOf } from '@/core/design/kinds/index.ts';
import type { ContentType } from '@/core/design/spec.ts';
import { sentence } from '@/core/design/words.ts';
import type { Issue } from '@/core/issue.ts';
import { formatStyled } from '@/core/pattern/date-format.ts';
import { stateAt } from '@/core/publication/state.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { asOf } from '../store/as-of.ts';
import { personName } from '../store/persons.ts';
import { chosenColumns } from '../store/preferences.ts';
import { startersOf } from '../store/starters.ts';
import { statement } from '../store/statement.ts';
import { valuesOfType } from '../store/stored-values.ts';
import { UntilWrite } from '../store/until-write.ts';
import { settledInstant } from '../store/write.ts';
import type { ContentFilters } from '@/core/content/filters.ts';
import { type ContentAsked, type StateAsked, askedOf } from '../store/newest/content-filters.ts';
import { listFound } from './content-found.ts';
import { displayWorld } from './display.ts';
import { formFields } from './form-type.ts';
import type { FormField } from './form-field.ts';
import { type FilterColumns, filterColumns } from './filter-columns.ts';
import { type LifeIn, type LifeSpan, livesElsewhere } from './life-span.ts';
import { type KeptFilter, keptFilters } from './kept-filters.ts';
import type { SiteView } from './site-view.ts';

/** A row of the content table. */
export interface ContentRow {
  id: string;
  type: string;
  typeLabel: string;
  name: string;
  state: StateAsked;
  spans: LifeSpan[];
  /** The same in further languages. */
  elsewhere: LifeIn[];
  path: string | null;
  /** Values of the fields that are edited in the table, by their ids. */
  values: Record<string, unknown>;
  /** Texts of the chosen columns, by their names. */
  cells: Record<string, string>;
  /** Where searched words stand in it, marked as `hitIn` marks them; null where none do. */
  hit: string | null;
  saved: Instant;
  /** When it was made. */
  created: Instant;
}

/** A type, as something to create an entry of. */
export interface TypeCount {
  type: string;
  label: string;
  /** What one of them is called. */
  one: string;
  description: string;
  /** The address pattern of its pages; null where it has none of its own. */
  address: string | null;
  /** Whether there is one entry of it and no more. */
  single: boolean;
  count: number;
  /** What new ones can begin with. */
  starters: { id: string; name: string }[];
}

/** Something that can stand in a column of the content table. */
export interface ContentColumn {
  /** Id of a field, or a name of what every entry has. */
  name: string;
  label: string;
  numeric: boolean;
  sortable: boolean;
  /** Whether it stands in the table. */
  shown: boolean;
}

/** What the content table shows. */
export interface ContentTable {
  /** The first rows; others are asked for by their places. */
  rows: ContentRow[];
  total: number;
  columns: ContentColumn[];
  counts: TypeCount[];
  /** What conditions may ask of. */
  asked: FilterColumns;
  /** What is wrong with the conditions. */
  issues: Issue[];
  kept: KeptFilter[];
  /** Id of the field that rows are put in order by where the table is sorted by it; else null. */
  position: string | null;
  /** The fields that are edited in the table. */
  fields: FormField[];
  /** Id of the type that is shown; null for all. */
  typeId: string | null;
}

type Row = {
  id: string;
  type: string;
  name: string;
  values: string;
  saved: number;
  created: number;
  deleted: number | null;
  author: string;
  published: number | null;
  words: string;
  revisions: string;
  spans: string | null;
  path: string | null;
};

/** So many rows come at once. */
export const ROWS_AT_ONCE = 100;

/**
 * All entries with their state as of an instant: the newest revision by then, the first one for
 * those not yet written. Filters and searches read the newest of all.
 */
export function contentTable(
  view: SiteView,
  actor: Actor,
  at: Instant,
  filters: ContentFilters,
): ContentTable {
  permit(actor, 'read-unpublished', SITE);
  const site = view.at(at)?.site;
  if (!site) return NO_SITE;
  const asked = askedOf(site, filters);
  const found = listFound(view, site, filters, at);
  const columns = columnsFor(view.connection, actor, asked);
  const shown = columns.filter((c) => c.shown).map(({ name }) => name);
  return {
    rows: rowsOf(view, found.slice(0, ROWS_AT_ONCE), { at, filters, columns: shown }),
    total: found.length,
    columns,
    counts: typeCounts(view, site, at),
    asked: filterColumns(view, site, asked, { filters, at }),
    issues: asked.issues,
    kept: keptFilters(view.connection, site, actor),
    position: positionOf(asked),
    fields: asked.type
      ? formFields(
          view,
          simpleFields(asked.type, shown),
          {},
          { at, entry: null, type: asked.type.id, role: actor.role },
        )
      : [],
    typeId: asked.type?.id ?? null,
  };
}

/** The field that rows are put in order by; only where they stand by it, the lowest first. */
function positionOf({ type, order }: ContentAsked): string | null {
  const field = type?.fields.find((f) => f.position && f.id === order?.column.name);
  return field && !order!.descending ? field.id : null;
}

/** Fields whose one short value is changed in the table. */
function simpleFields({ fields, naming }: ContentType, shown: readonly string[]): Field[] {
  return fields.filter(
    (f) => !f.many && SIMPLE.has(kindOf(f).control) && (shown.includes(f.id) || f.key === naming),
  );
}

const SIMPLE = new Set<ControlName>(['line', 'number', 'yes-no', 'day', 'option', 'subject']);

const NO_SITE: ContentTable = {
  rows: [],
  total: 0,
  columns: [],
  counts: [],
  asked: { columns: [], names: {}, at: 0 },
  issues: [],
  kept: [],
  fields: [],
  position: null,
  typeId: null,
};

/** Which rows of the content table are asked for, from a place on. */
export interface RowsAsked {
  at: Instant;
  filters: ContentFilters;
  from: number;
}

/** Rows of the content table from a place on, and how many there are. */
export function contentRows(
  view: SiteView,
  actor: Actor,
  { at, filters, from }: RowsAsked,
): { rows: ContentRow[]; total: number } {
  permit(actor, 'read-unpublished', SITE);
  const site = view.at(at)?.site;
  if (!site) return { rows: [], total: 0 };
  const found = listFound(view, site, filters, at);
  const columns = columnsFor(view.connection, actor, askedOf(site, filters));
  const shown = columns.filter((c) => c.shown).map(({ name }) => name);
  const numbers = found.slice(from, from + ROWS_AT_ONCE);
  return { rows: rowsOf(view, numbers, { at, filters, columns: shown }), total: found.length };
}

/** The types of a site, with how many entries there are of each. */
function typeCounts(view: SiteView, site: CompiledSite, at: Instant): TypeCount[] {
  const all = countsByType(view.connection);
  const gone = statement<number>(
    view.connection,
    `SELECT count(*) FROM newest_cell AS d JOIN newest AS n ON n.id = d.id
       WHERE d.field = '@deleted' AND d.value <= ? AND n.type = ?`,
  ).pluck();
  return site.design.types.map((t) => ({
    type: t.key,
    label: t.plural,
    one: t.label,
    description: t.description,
    address: t.address ?? null,
    single: t.single ?? false,
    starters: startersOf(view.connection, t.id).map(({ id, name }) => ({ id, name })),
    count: (all.get(t.id) ?? 0) - gone.get(at, t.id)!,
  }));
}

/** How many entries of each type there ever were. */
const COUNTED = new UntilWrite<ReadonlyMap<string, number>>(1);

function countsByType(connection: Connection): ReadonlyMap<string, number> {
  const sql = `SELECT value AS type, count(*) AS count FROM newest_cell
    WHERE field = '@type' GROUP BY value`;
  return COUNTED.get(connection, 'types', () => {
    const rows = statement<{ type: string; count: number }>(connection, sql).all();
    return new Map(rows.map(({ type, count }) => [type, count]));
  });
}

/** What can stand in columns of the table; what was chosen comes first, in its order. */
function columnsFor(
  connection: Connection,
  actor: Actor,
  { type, columns }: ContentAsked,
): ContentColumn[] {
  const chosen = chosenColumns(connection, actor, type?.id ?? null);
  const own = [...columns.values()].filter(({ name }) => SHOWABLE.has(name));
  const fields = (type?.fields ?? []).filter((f) => f.key !== type!.naming);
  const all = [
    ...fields.map((f) => ({
      name: f.id,
      label: f.label,
      numeric: kindOf(f).family === 'number' && !f.many,
      shown: f.column,
    })),
    ...own.map(({ name, label }) => ({
      ...{ name, label: sentence(label), numeric: false, shown: false },
    })),
  ];
  const placed = chosen
    ? [
        ...chosen.flatMap((name) => all.filter((c) => c.name === name)),
        ...all.filter(({ name }) => !chosen.includes(name)),
      ]
    : all;
  return placed.map((column) => ({
    ...column,
    sortable: columns.get(column.name)?.sortable ?? false,
    shown: chosen?.includes(column.name) ?? column.shown,
  }));
}

/** What every entry has and what is not in the table anyway. */
const SHOWABLE = new Set(['@author', '@created', '@published']);

interface Shown {
  at: Instant;
  filters: ContentFilters;
  columns: readonly string[];
}

/** Rows by the numbers that entries have among all, in that order. */
function rowsOf(view: SiteView, numbers: readonly number[], shown: Shown): ContentRow[] {
  const { at } = shown;
  const newest =
    at >= settledInstant(view.connection)
      ? 'e.newest'
      : `coalesce((SELECT max(number) FROM revision WHERE entry = e.id AND saved <= @at),
          (SELECT min(number) FROM revision WHERE entry = e.id))`;
  const sql = `SELECT ${SHOWN} FROM newest AS n JOIN entry AS e ON e.id = n.entry
    JOIN revision AS r ON r.entry = e.id AND r.number = ${newest} WHERE n.id = @number`;
  const read = statement<Row>(view.connection, sql);
  return numbers.flatMap((number) => {
    const row = read.get({ at, number });
    return (row && contentRow(view, row, shown)) ?? [];
  });
}

const LIFE = `
  (SELECT json_group_array(json_array(number, saved)) FROM revision WHERE entry = e.id) AS revisions,
  (SELECT json_group_array(json_array(starts, ends, revision)) FROM live_interval
     WHERE entry = e.id) AS spans`;
const SHOWN = `
  e.id, e.type, n.words, r.name, r."values", r.saved, e.created, e.deleted, e.author, e.published, ${LIFE},
  (SELECT path FROM address AS a WHERE a.entry = e.id AND a.role = 'current'
     AND ${asOf('a', '@at')}) AS path`;

function lifeOf(
  row: Pick<Row, 'revisions' | 'spans' | 'deleted'>,
  at: Instant,
): { state: StateAsked; spans: LifeSpan[] } {
  const spans = (JSON.parse(row.spans ?? '[]') as [number, number | null, number][])
    .map(([from, to, revision]) => ({ from, to, revision }))
    .sort((a, b) => a.from - b.from);
  const revisions = (JSON.parse(row.revisions) as [number, number][]).map(([number, saved]) => ({
    number,
    saved,
  }));
  if (row.deleted !== null && row.deleted <= at) return { state: 'deleted', spans };
  return { state: stateAt({ revisions, intervals: spans }, at).state, spans };
}

function contentRow(view: SiteView, row: Row, { at, columns, filters }: Shown): ContentRow | null {
  const { site } = view.at(at)!;
  const type = site.types.get(row.type);
  if (!type) return null;
  const { state, spans } = lifeOf(row, at);
  const { id, name, path, saved, created } = row;
  return {
    ...{ id, type: type.key, typeLabel: type.label, name, state, spans, path, saved, created },
    elsewhere: livesElsewhere(view.connection, site.design, row),
    hit: filters.search ? hitIn(row.words, filters.search) : null,
    ...cellsOf(view, row, type, { at, columns }),
  };
}

/** Texts of the chosen columns, and the values that are edited in them. */
function cellsOf(
  view: SiteView,
  row: Row,
  type: ContentType,
  { at, columns }: Pick<Shown, 'at' | 'columns'>,
): Pick<ContentRow, 'cells' | 'values'> {
  const { design } = view.at(at)!.site;
  const stored = valuesOfType(type, row.values, design.site);
  const values = withComputed(type.fields, stored, design.site);
  const world = displayWorld(view, at);
  const day = (instant: Instant | null): string =>
    instant === null ? '' : formatStyled(instant, 'medium', world.language, world.zone);
  const own: Record<string, () => string> = {
    '@author': () => personName(view.connection, row.author),
    '@created': () => day(row.created),
    '@published': () => day(row.published),
  };
  const textOf = (name: string): string => {
    const field = type.fields.find((f) => f.id === name);
    return own[name]?.() ?? (field ? displayValues(values, field, world) : '');
  };
  const simple = simpleFields(type, columns);
  return {
    cells: Object.fromEntries(columns.map((name) => [name, textOf(name)])),
    values: Object.fromEntries(simple.map(({ id }) => [id, stored[id] ?? null])),
  };
}
