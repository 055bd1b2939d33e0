import type { ListingRow } from './columns.ts';
import type { Condition } from './plan.ts';
import { type Others, holds } from './evaluate.ts';
import type { ResolvedFilter } from './resolve.ts';

/** The conditions that keep a row out of a listing; empty where it is in. */
export function failedConditions(
  filter: ResolvedFilter,
  row: ListingRow,
  others: Others,
): Condition[] {
  if (holds(filter, row, others)) return [];
  if (filter.condition) return [filter.condition];
  if (filter.kind !== 'group') return [];
  if (filter.op === 'none')
    return filter.filters.filter((f) => holds(f, row, others)).flatMap(conditions);
  return filter.filters.flatMap((f) => failedConditions(f, row, others));
}

function conditions(filter: ResolvedFilter): Condition[] {
  if (filter.condition) return [filter.condition];
  return filter.kind === 'group' ? filter.filters.flatMap(conditions) : [];
}
