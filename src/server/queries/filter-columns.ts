import { contentColumns } from '@/core/content/columns.ts';
import { conditionSpecs } from '@/core/design/listing-spec.ts';
import { valuesOf } from '@/core/design/values.ts';
import { withinSentence } from '@/core/design/words.ts';
import { OPERATORS_OF, OPERATOR_WORDS } from '@/core/listing/operators.ts';
import type { Column } from '@/core/listing/columns.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { Instant } from '@/core/time/interval.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { personName } from '../store/persons.ts';
import { statement } from '../store/statement.ts';
import { valuesOfType } from '../store/stored-values.ts';
import type { ContentFilters } from '@/core/content/filters.ts';
import type { ContentAsked } from '../store/newest/content-filters.ts';
import { entryName } from './display.ts';
import type { ListingColumn } from './listing-columns.ts';
import { type Option, optionsOf } from './offers.ts';
import type { SiteView } from './site-view.ts';

/** What conditions of the content table are chosen from. */
export interface FilterColumns {
  columns: ListingColumn[];
  /** Names of the entries that conditions speak of, by id. */
  names: Record<string, string>;
  at: Instant;
}

/**
 * What conditions may ask of; those that are asked of offer the values that are in use, with how
 * many entries have each.
 */
export function filterColumns(
  view: SiteView,
  site: CompiledSite,
  { type }: ContentAsked,
  { filters, at }: { filters: ContentFilters; at: Instant },
): FilterColumns {
  const conditions = conditionSpecs(filters.where);
  const mentioned = new Set(conditions.map(({ field }) => field));
  const { language } = site.design.site;
  const asked = { type: type?.id ?? null, at };
  const columns = [...contentColumns(type).values()].filter(
    ({ name }) => !(name === '@type' && type),
  );
  const entries = conditions
    .filter(({ field }) => columns.find((c) => c.name === field)?.target?.of === 'entries')
    .flatMap(({ value }) => [value ?? []].flat().map(String));
  return {
    at,
    names: Object.fromEntries(entries.map((id) => [id, entryName(view, id)])),
    columns: columns.map((column) => ({
      name: column.name,
      label: withinSentence(column.label, language),
      family: column.family,
      sortable: column.sortable,
      fans: [],
      narrows: false,
      elsewhere: [],
      operators: operatorsOf(column).map((op) => ({ op, words: wordsOf(column, op) })),
      options: mentioned.has(column.name) ? inUse(view, site, column, asked) : [],
      ...(column.target?.of === 'entries'
        ? { entryTypes: column.target.types && [...column.target.types] }
        : {}),
    })),
  };
}

type Op = (typeof OPERATORS_OF)['text'][number];

/** What every entry has is never blank; facts are so, or not. */
function operatorsOf({ name, family }: Column): readonly Op[] {
  const all = OPERATORS_OF[family];
  if (name === '@published' || !name.startsWith('@')) return all;
  const own = all.filter((op) => op !== 'blank' && op !== 'not-blank');
  return family === 'yesno' ? ['is'] : own;
}

function wordsOf({ name }: Column, op: Op): string {
  return name === '@changed' || name === '@broken' ? ':' : OPERATOR_WORDS[op];
}

/** What is not deleted by an instant, and of a type where one is given and others have the column. */
function ofType(site: CompiledSite, name: string, type: string | null): string {
  const there = `id NOT IN
    (SELECT id FROM newest_cell WHERE field = '@deleted' AND value <= @at)`;
  const isShared = [...site.types.values()].some(
    ({ id, fields }) => id !== type && (name.startsWith('@') || fields.some((f) => f.id === name)),
  );
  const own = `id IN (SELECT id FROM newest_cell WHERE field = '@type' AND value = @type)`;
  return `${there} AND (@type IS NULL OR ${isShared ? own : '1'})`;
}

interface Used {
  value: string;
  count: number;
}

/** The values of a column that are in use, with how many entries have each. */
function inUse(
  view: SiteView,
  site: CompiledSite,
  column: Column,
  { type, at }: { type: string | null; at: Instant },
): Option[] {
  const { field, family } = column;
  if (family !== 'members' && family !== 'choice') return [];
  if (column.target?.of === 'entries') return [];
  const sql = `SELECT value, count(*) AS count FROM newest_cell WHERE field = @name
    AND ${ofType(site, column.name, type)} GROUP BY value`;
  const rows = statement<Used>(view.connection, sql).all({ name: column.name, type, at });
  const counts = new Map(rows.map(({ value, count }) => [value, count]));
  const offered = field
    ? optionsOf(view, field, at)
    : [...counts.keys()].map((value) => ({ value, label: ownLabel(view, site, column, value) }));
  const { target } = column;
  const keys = (value: string): string[] =>
    target?.of === 'subjects' ? view.subjects(at).keysWithin(target.set, value) : [value];
  return offered.flatMap(({ value, label }) => {
    const count = keys(value).reduce((sum, key) => sum + (counts.get(key) ?? 0), 0);
    return count === 0 ? [] : [{ value, label: `${label} (${count})` }];
  });
}

/** Families whose cells are their values. */
const DIRECT: ReadonlySet<string> = new Set(['number', 'day']);

/** So many values complete what somebody types. */
const COMPLETING = 50;

/**
 * The values of a column of texts, numbers or days that most entries of a type, by its key, have;
 * with how many have each.
 */
export function mostUsed(
  view: SiteView,
  actor: Actor,
  { type: key, field: name }: { type: string | null; field: string },
  at: Instant,
): Option[] {
  permit(actor, 'read-unpublished', SITE);
  const site = view.at(at)?.site;
  const own = site?.typesByKey.get(key ?? '') ?? null;
  const column = contentColumns(own).get(name);
  const isText = column?.family === 'text';
  if (!site || !column?.sortable || !(isText || DIRECT.has(column.family))) return [];
  const type = own?.id ?? null;
  const sql = `SELECT value, count(*) AS count, min(id) AS id FROM newest_cell
    WHERE field = @name AND ${ofType(site, name, type)} GROUP BY value ORDER BY count DESC, value
    LIMIT ${COMPLETING}`;
  const rows = statement<Used & { id: number }>(view.connection, sql).all({ name, type, at });
  return rows.flatMap(({ value, count, id }) => {
    const text = isText ? textOf(view, site, column, id) : String(value);
    return text === '' ? [] : [{ value: text, label: `${text} (${count})` }];
  });
}

/** What an entry, by its number, holds in a column of texts, as it was written. */
function textOf({ connection }: SiteView, site: CompiledSite, column: Column, id: number): string {
  const sql = `SELECT e.type, r.name, r."values" AS json FROM newest AS n
    JOIN entry AS e ON e.id = n.entry
    JOIN revision AS r ON r.entry = e.id AND r.number = e.newest WHERE n.id = ?`;
  const row = statement<{ type: string; name: string; json: string }>(connection, sql).get(id);
  if (!row || !column.field) return row?.name ?? '';
  const type = site.types.get(row.type);
  const values = type ? valuesOfType(type, row.json, site.design.site) : {};
  return String(valuesOf(values, column.field.id)[0] ?? '');
}

function ownLabel(view: SiteView, site: CompiledSite, { name }: Column, value: string): string {
  if (name === '@author') return personName(view.connection, value);
  return site.types.get(value)?.plural ?? value;
}
