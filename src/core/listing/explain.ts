import type { ListingRow } from './columns.ts';
import type { Condition } from './plan.ts';
import { holds } from './evaluate.ts';
import type { ResolvedFilter } from './resolve.ts';

/** The conditions that keep a row out of a listing; empty where it is in. */
export function failedConditions(
  filter: ResolvedFilter,
  row: ListingRow,
  isLive: (entry: string) => boolean,
): Condition[] {
  if (holds(filter, row, isLive)) return [];
  if (filter.kind !== 'group') return [filter.condition];
  if (filter.op === 'none')
    return filter.filters.filter((f) => holds(f, row, isLive)).flatMap(conditions);
  // One condition may ask several things at once.
  return [...new Set(filter.filters.flatMap((f) => failedConditions(f, row, isLive)))];
}

function conditions(filter: ResolvedFilter): Condition[] {
  return filter.kind === 'group' ? filter.filters.flatMap(conditions) : [filter.condition];
}
