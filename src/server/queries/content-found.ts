import { LRUCache } from 'lru-cache';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { ContentFilters } from '@/core/content/filters.ts';
import { foundBy } from '../store/newest/content-filters.ts';
import { totalGeneration } from '../store/write.ts';
import type { SiteView } from './site-view.ts';

/** Lists that were found and are asked for piece by piece, by connection. */
const FOUND = new WeakMap<object, LRUCache<string, readonly number[]>>();
const LISTS_KEPT = 12;

/** The numbers of all entries that filters find as of an instant, in their order. */
export function listFound(
  view: SiteView,
  site: CompiledSite,
  filters: ContentFilters,
  at: Instant,
): readonly number[] {
  const { driver } = view.connection;
  let lists = FOUND.get(driver);
  if (!lists) FOUND.set(driver, (lists = new LRUCache({ max: LISTS_KEPT })));
  const key = JSON.stringify([totalGeneration(view.connection), at, filters]);
  let found = lists.get(key);
  if (!found)
    lists.set(
      key,
      (found = foundBy(view.connection, site, filters, { at, subjects: view.subjects(at) })),
    );
  return found;
}
