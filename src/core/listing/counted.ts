import type { Subject } from '../design/values.ts';
import { type Column, type ListingRow, cell } from './columns.ts';
import { partFor } from './parts.ts';
import { type FilterWorld, type ListingPlan, countedColumns } from './plan.ts';

/** What counting asks of the site: what filters ask, and all subjects of a set. */
export interface CountingWorld extends FilterWorld {
  subjectsOf(set: string): readonly Subject[];
  isLive(entry: string): boolean;
}

/** The values that visitors find a row by, of a column by which they narrow the list. */
export function countedAs(
  plan: ListingPlan,
  name: string,
  row: ListingRow,
  world: CountingWorld,
): string[] {
  const part = partFor(plan, row.type);
  const column = part && countedColumns(part).find((c) => c.name === name);
  if (!column) return [];
  const value = cell(row, column);
  if (typeof value === 'boolean') return [value ? 'yes' : 'no'];
  if (!Array.isArray(value)) return [];
  return [...new Set(keysOf(column, value as string[], world))];
}

function keysOf({ target, field }: Column, keys: string[], world: CountingWorld): string[] {
  if (target?.of === 'entries') return keys.filter((id) => world.isLive(id));
  if (target?.of === 'people') return keys;
  if (target?.of !== 'subjects')
    return keys.flatMap((id) => (field?.options ?? []).find((o) => o.id === id)?.key ?? []);
  const { set } = target;
  return world
    .subjectsOf(set)
    .map(({ key }) => key)
    .filter((key) => world.keysWithin(set, key).some((k) => keys.includes(k)));
}

/** How many rows there are of each value. */
export function countedTogether(rows: readonly string[][]): Map<string, number> {
  const counts = new Map<string, number>();
  for (const value of rows.flat()) counts.set(value, (counts.get(value) ?? 0) + 1);
  return counts;
}
