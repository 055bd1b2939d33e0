import { type ListingRow, sortCell } from '@/core/listing/columns.ts';
import type { ListingPlan, SortKey } from '@/core/listing/plan.ts';
import { sortColumn } from './index-columns.ts';

/** A condition in SQL, with its parameters in order. */
interface Condition {
  sql: string;
  params: unknown[];
}

/** A condition for the rows that come before one in a listing's order, the row itself not. */
export function comesBefore(plan: ListingPlan, row: ListingRow): Condition {
  const keys = [
    ...plan.sort.map((key) => ofKey(key, row)),
    ofLast('r.created', row.created),
    ofLast('r.entry', row.entry),
  ];
  const ways = keys.map(({ before }, i) => {
    const all = [...keys.slice(0, i).map(({ same }) => same), before];
    return {
      sql: `(${all.map(({ sql }) => sql).join(' AND ')})`,
      params: all.flatMap(({ params }) => params),
    };
  });
  return {
    sql: `(${ways.map(({ sql }) => sql).join(' OR ')})`,
    params: ways.flatMap(({ params }) => params),
  };
}

/** When a row has the same as another by one key, and when it comes before it by that key. */
interface Compared {
  same: Condition;
  before: Condition;
}

function ofKey({ column, descending, blanks }: SortKey, row: ListingRow): Compared {
  const name = `r.${sortColumn(column)}`;
  const value = sortCell(row, column);
  const same = { sql: `${name} IS ?`, params: [value] };
  const isFirst = blanks === 'first' && column.meta === null;
  if (value === null)
    return { same, before: { sql: isFirst ? '0' : `${name} IS NOT NULL`, params: [] } };
  const less = `${name} ${descending ? '>' : '<'} ?`;
  return {
    same,
    before: { sql: isFirst ? `(${less} OR ${name} IS NULL)` : less, params: [value] },
  };
}

function ofLast(name: string, value: string | number): Compared {
  return {
    same: { sql: `${name} = ?`, params: [value] },
    before: { sql: `${name} < ?`, params: [value] },
  };
}
