import { contentColumns } from '@/core/content/columns.ts';
import { conditionSpecs } from '@/core/design/listing-spec.ts';
import { withinSentence } from '@/core/design/words.ts';
import { OPERATORS_OF, OPERATOR_WORDS } from '@/core/listing/operators.ts';
import type { Column } from '@/core/listing/columns.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { personName } from '../store/persons.ts';
import { statement } from '../store/statement.ts';
import type { ContentFilters } from '@/core/content/filters.ts';
import type { ContentAsked } from '../store/newest/content-filters.ts';
import { entryName } from './display.ts';
import type { ListingColumn } from './listing.ts';
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
      operators: operatorsOf(column).map((op) => ({ op, words: wordsOf(column, op) })),
      options: mentioned.has(column.name)
        ? inUse(view, site, column, { type: type?.id ?? null, at })
        : [],
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
  const counts = countsOf(view.connection, column.name, type);
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

function ownLabel(view: SiteView, site: CompiledSite, { name }: Column, value: string): string {
  if (name === '@author') return personName(view.connection, value);
  return site.types.get(value)?.plural ?? value;
}

/** How many entries, of a type where one is given, have each value of a column. */
function countsOf(connection: Connection, name: string, type: string | null): Map<string, number> {
  const sql = `SELECT value, count(*) AS count FROM newest_cell AS c WHERE field = @name
    AND (@type IS NULL OR @name NOT LIKE '@%' OR EXISTS (SELECT 1 FROM newest_cell AS t
      WHERE t.field = '@type' AND t.value = @type AND t.id = c.id)) GROUP BY value`;
  const rows = statement<Used>(connection, sql).all({ name, type });
  return new Map(rows.map(({ value, count }) => [value, count]));
}
