import { asc, eq, or } from 'drizzle-orm';
import type { CompiledSite } from '@/core/site/compile.ts';
import { savedFilter } from '../db/schema-desk.ts';
import type { Connection } from '../db/connection.ts';
import type { Actor } from '../permit.ts';
import { type ContentFilters, contentFilters } from '@/core/content/filters.ts';
import { personName } from '../store/persons.ts';

/** A filter that somebody has kept. */
export interface KeptFilter {
  id: string;
  name: string;
  shared: boolean;
  /** Whose it is; null for one's own. */
  by: string | null;
  filters: ContentFilters;
}

/** The filters that somebody may take up: their own and those that are shared, by name. */
export function keptFilters(
  connection: Connection,
  site: CompiledSite,
  actor: Actor,
): KeptFilter[] {
  const rows = connection.tables
    .select()
    .from(savedFilter)
    .where(or(eq(savedFilter.person, actor.id), eq(savedFilter.shared, true)))
    .orderBy(asc(savedFilter.name), asc(savedFilter.id))
    .all();
  return rows.map(({ id, name, person, shared, filters }) => {
    const stored = contentFilters.parse(JSON.parse(filters));
    const type = site.types.get(stored.type ?? '')?.key;
    const by = person === actor.id ? null : personName(connection, person);
    return { id, name, shared, by, filters: { ...stored, type } };
  });
}
