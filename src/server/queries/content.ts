import type { SiteView } from './site-view.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { valuesOfType } from '../store/stored-values.ts';
import { settledInstant } from '../store/write.ts';
import { stateAt } from '@/core/publication/state.ts';
import type { EntryState } from '@/core/publication/model.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { Field } from '@/core/design/field.ts';
import { displayValues } from '@/core/design/field-values.ts';
import { kindOf } from '@/core/design/kinds/index.ts';
import { searchKey } from '@/core/text.ts';
import { displayWorld } from './display.ts';
import { asOf } from '../store/as-of.ts';

/** A stretch of an entry's life; planned where it starts ahead of now. */
export interface LifeSpan {
  from: Instant;
  to: Instant | null;
  revision: number;
}

/** A row of the content table. */
export interface ContentRow {
  id: string;
  type: string;
  typeLabel: string;
  name: string;
  state: EntryState;
  spans: LifeSpan[];
  path: string | null;
  /** Texts of the chosen columns, by field key. */
  cells: Record<string, string>;
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
}

/** What the content table shows. */
export interface ContentTable {
  rows: ContentRow[];
  total: number;
  columns: { key: string; label: string; numeric: boolean }[];
  counts: TypeCount[];
}

type Row = {
  id: string;
  type: string;
  name: string;
  values: string;
  saved: number;
  created: number;
  revisions: string;
  spans: string | null;
  path: string | null;
};

/** What the content table is narrowed down by. */
export interface ContentFilters {
  type?: string | undefined;
  search?: string | undefined;
  state?: string | undefined;
  /**
   * `saved` (latest first, where nothing is said), `name` or `created`; "-" before it turns it
   * round.
   */
  sort?: string | undefined;
}

const PAGE = 200;

/**
 * All entries with their state as of an instant: the newest revision by then, the first one for
 * those not yet written.
 */
export function contentTable(
  view: SiteView,
  actor: Actor,
  at: Instant,
  filters: ContentFilters,
): ContentTable {
  permit(actor, 'read-unpublished', SITE);
  const site = view.at(at)?.site;
  if (!site) return { rows: [], total: 0, columns: [], counts: [] };
  const chosen = site.typesByKey.get(filters.type ?? '');
  const own = filters.type === undefined ? filters : { ...filters, type: chosen?.id ?? '' };
  const columns = (chosen?.fields ?? []).filter((f) => f.column && f.key !== chosen!.naming);
  const counts = view.connection.driver
    .prepare<unknown[], { type: string; count: number }>(
      'SELECT type, count(*) AS count FROM entry WHERE deleted IS NULL GROUP BY type',
    )
    .all();
  const { rows, total } =
    filters.state === undefined
      ? firstRows(view, at, own)
      : rowsInState(view, at, own, filters.state);
  return {
    rows: rows.flatMap((row) => contentRow(view, row, site.types.get(row.type), columns, at) ?? []),
    total,
    columns: columns.map((f) => ({
      key: f.key,
      label: f.label,
      numeric: kindOf(f).family === 'number',
    })),
    counts: site.design.types.map((t) => ({
      type: t.key,
      label: t.plural,
      one: t.label,
      description: t.description,
      address: t.address ?? null,
      single: t.single ?? false,
      count: counts.find((c) => c.type === t.id)?.count ?? 0,
    })),
  };
}

/** `FROM … WHERE …`: entries with the revision shown as of `@at`. */
function fromEntries(
  view: SiteView,
  at: Instant,
  { type, search }: ContentFilters,
): { from: string; params: object } {
  const newest =
    at >= settledInstant(view.connection)
      ? 'e.newest'
      : 'coalesce((SELECT max(number) FROM revision WHERE entry = e.id AND saved <= @at), 1)';
  const conditions = [
    '(e.deleted IS NULL OR e.deleted > @at)',
    ...(type === undefined ? [] : ['e.type = @type']),
    ...(search ? ['instr(r.search, @search) > 0'] : []),
  ];
  return {
    from: `FROM revision AS r CROSS JOIN entry AS e ON e.id = r.entry AND r.number = ${newest} WHERE ${conditions.join(' AND ')}`,
    params: { at, type: type ?? null, search: searchKey(search ?? '') },
  };
}

const ORDERS: Record<string, string> = {
  saved: 'r.saved DESC',
  '-saved': 'r.saved',
  name: 'r.search',
  '-name': 'r.search DESC',
  created: 'e.created DESC',
  '-created': 'e.created',
};

function orderBy({ sort }: ContentFilters): string {
  const known = sort !== undefined && Object.hasOwn(ORDERS, sort) ? ORDERS[sort]! : ORDERS.saved!;
  return `ORDER BY ${known}, r.entry`;
}

const LIFE = `
  (SELECT json_group_array(json_array(number, saved)) FROM revision WHERE entry = e.id) AS revisions,
  (SELECT json_group_array(json_array(starts, ends, revision)) FROM live_interval WHERE entry = e.id) AS spans`;
const SHOWN = `
  e.id, e.type, r.name, r."values", r.saved, e.created, ${LIFE},
  (SELECT path FROM address AS a WHERE a.entry = e.id AND a.role = 'current' AND ${asOf('a', '@at')}) AS path`;

function firstRows(
  view: SiteView,
  at: Instant,
  filters: ContentFilters,
): { rows: Row[]; total: number } {
  const { driver } = view.connection;
  const { from, params } = fromEntries(view, at, filters);
  const counted = filters.search
    ? `SELECT count(*) ${from}`
    : 'SELECT count(*) FROM entry WHERE (@type IS NULL OR type = @type) AND (deleted IS NULL OR deleted > @at)';
  return {
    rows: driver
      .prepare<unknown[], Row>(`SELECT ${SHOWN} ${from} ${orderBy(filters)} LIMIT ${PAGE}`)
      .all(params),
    total: driver.prepare<unknown[], number>(counted).pluck().get(params)!,
  };
}

/** A state is told by the core alone, so every entry is looked at. */
function rowsInState(
  view: SiteView,
  at: Instant,
  filters: ContentFilters,
  wanted: string,
): { rows: Row[]; total: number } {
  const { driver } = view.connection;
  const { from, params } = fromEntries(view, at, filters);
  const all = driver
    .prepare<unknown[], Pick<Row, 'id' | 'revisions' | 'spans'>>(
      `SELECT e.id, ${LIFE} ${from} ${orderBy(filters)}`,
    )
    .all(params);
  const ids = all.filter((row) => lifeOf(row, at).state === wanted).map((row) => row.id);
  const one = driver.prepare<unknown[], Row>(`SELECT ${SHOWN} ${from} AND e.id = @id`);
  return {
    rows: ids.slice(0, PAGE).map((id) => one.get({ ...params, id })!),
    total: ids.length,
  };
}

function lifeOf(
  row: Pick<Row, 'revisions' | 'spans'>,
  at: Instant,
): { state: EntryState; spans: LifeSpan[] } {
  const spans = (JSON.parse(row.spans ?? '[]') as [number, number | null, number][])
    .map(([from, to, revision]) => ({ from, to, revision }))
    .sort((a, b) => a.from - b.from);
  const revisions = (JSON.parse(row.revisions) as [number, number][]).map(([number, saved]) => ({
    number,
    saved,
  }));
  return { state: stateAt({ revisions, intervals: spans }, at).state, spans };
}

function contentRow(
  view: SiteView,
  row: Row,
  type: ContentType | undefined,
  columns: Field[],
  at: Instant,
): ContentRow | null {
  if (!type) return null;
  const { state, spans } = lifeOf(row, at);
  const values = valuesOfType(type, row.values, view.at(at)!.site.design.site);
  const world = displayWorld(view, at);
  const cells = Object.fromEntries(columns.map((f) => [f.key, displayValues(values, f, world)]));
  return {
    id: row.id,
    type: type.key,
    typeLabel: type.label,
    name: row.name,
    state,
    spans,
    path: row.path,
    cells,
    saved: row.saved,
    created: row.created,
  };
}
