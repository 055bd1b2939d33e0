import { contentColumns } from '@/core/content/columns.ts';
import type { ContentFilters } from '@/core/content/filters.ts';
import { withInner } from '@/core/design/fields-within.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { Issue } from '@/core/issue.ts';
import type { Column } from '@/core/listing/columns.ts';
import { type Filter } from '@/core/listing/plan.ts';
import { planFilter } from '@/core/listing/condition-planner.ts';
import { resolveFilter } from '@/core/listing/resolve.ts';
import { soughtQuery } from '@/core/listing/search.ts';
import type { EntryState } from '@/core/publication/model.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../../db/connection.ts';
import { filterWorld } from '../filter-world.ts';
import type { Subjects } from '../subject-store.ts';
import { type NewestQuery, findNewest } from './find-newest.ts';

/** What the content table can be narrowed down to: deleted ones are in it only where asked for. */
export type StateAsked = EntryState | 'deleted';

/** States in the order in which screens offer them. */
export const STATES: readonly StateAsked[] = [
  'draft',
  'scheduled',
  'live',
  'live with newer draft',
  'retired',
  'not yet written',
  'deleted',
];

const LAST_SAVED = '-@saved';

/** What filters come to: the type, its columns, how they are ordered by, and what is wrong. */
export interface ContentAsked {
  type: ContentType | null;
  columns: Map<string, Column>;
  filter: Filter | null;
  /** Null where they are ordered by how well they fit the search. */
  order: { column: Column; descending: boolean } | null;
  issues: Issue[];
}

/** Reads filters against a design; what is wrong is left out, and told. */
export function askedOf(site: CompiledSite, filters: ContentFilters): ContentAsked {
  const type = site.typesByKey.get(filters.type ?? '') ?? null;
  const columns = contentColumns(type);
  const label = type?.label ?? 'Content';
  const { filter, issues } = filters.where
    ? planFilter(filters.where, columns, { label, zone: site.design.site.zone })
    : { filter: null, issues: [] };
  const ranked = filters.sort === undefined && soughtQuery(filters.search ?? '') !== '';
  return { type, columns, filter, issues, order: ranked ? null : orderOf(columns, filters.sort) };
}

function orderOf(columns: Map<string, Column>, sort = LAST_SAVED): ContentAsked['order'] {
  const column = columns.get(sort.replace(/^-/, ''));
  if (!column?.sortable) return orderOf(columns);
  return { column, descending: sort.startsWith('-') };
}

/** The numbers of all entries that filters find as of an instant, in their order. */
export function foundBy(
  connection: Connection,
  site: CompiledSite,
  filters: ContentFilters,
  { at, subjects }: { at: Instant; subjects: Subjects },
): number[] {
  const { type, filter, order } = askedOf(site, filters);
  if (filters.type !== undefined && !type) return [];
  if (filters.state !== undefined && !STATES.includes(filters.state as StateAsked)) return [];
  const words = filters.search ?? '';
  const search = soughtQuery(words) || null;
  if (search === null && words.trim() !== '') return [];
  const types = type ? [type] : site.design.types;
  const query: NewestQuery = {
    types: types.map(({ id }) => id),
    search,
    state: (filters.state as StateAsked | undefined) ?? null,
    filter:
      filter &&
      resolveFilter(filter, at, site.design.site.zone, filterWorld(connection, subjects, at)),
    order,
    references: types.flatMap(({ fields }) => withInner(fields).map(({ id }) => id)),
  };
  return findNewest(connection, query, at);
}
