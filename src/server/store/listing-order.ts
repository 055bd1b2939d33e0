import type { OrderCells } from '@/core/listing/order.ts';
import type { ListingPlan, SortKey } from '@/core/listing/plan.ts';
import { isNeverBlank } from './index-columns.ts';
import { orderColumn } from './listing-sql.ts';

/** A condition in SQL, with its parameters in order. */
interface Condition {
  sql: string;
  params: unknown[];
}

/** A condition for the rows of a type that come before one in a listing's order, itself not. */
export function comesBefore(plan: ListingPlan, cells: OrderCells): Condition {
  const keys = [
    ...plan.sort.map((key, i) => ofKey(orderColumn(plan, key, cells.today), key, cells.keys[i]!)),
    ofLast('r.created', cells.created),
    ofLast('r.entry', cells.entry),
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

function ofKey(
  name: string,
  { column, descending, blanks }: SortKey,
  value: string | number | null,
): Compared {
  const same = { sql: `${name} IS ?`, params: [value] };
  const isFirst = blanks === 'first' && !isNeverBlank(column);
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

/** Rows of a stretch of a listing's order, with that order from the nearest on. */
interface Stretch extends Condition {
  order: string;
}

/** Where a row stands in a listing's order. */
export interface Around {
  /** That a row stands in the same place: the row itself. */
  same: Condition;
  /** Rows before it and after it: those of the first stretch are nearer than those of the next. */
  before: Stretch[];
  after: Stretch[];
}

/**
 * Where a row stands in a listing's order. Each stretch is a range of the listing's index, so the
 * nearest row is found without looking at the others.
 */
export function around(plan: ListingPlan, cells: OrderCells): Around {
  const terms = [
    ...plan.sort.flatMap((key, i) =>
      termsOf(orderColumn(plan, key, cells.today), key, cells.keys[i]!),
    ),
    term('r.created', cells.created),
    term('r.entry', cells.entry),
  ];
  const stretches = (side: 'before' | 'after'): Stretch[] =>
    terms
      .flatMap((own, i) => {
        const range = own[side];
        if (!range) return [];
        const rows = joined([...terms.slice(0, i).map(({ same }) => same), range]);
        // What is the same in all of them says nothing of their order.
        const order = terms.slice(i).map((t) => orderOf(t, side === 'before'));
        return [{ ...rows, order: order.join(', ') }];
      })
      .reverse();
  return {
    same: joined(terms.map(({ same }) => same)),
    before: stretches('before'),
    after: stretches('after'),
  };
}

function orderOf({ name, descending }: Term, isBackwards: boolean): string {
  return descending === isBackwards ? name : `${name} DESC`;
}

/** One term of an order, with what stands before and after a row by it; null where nothing can. */
interface Term {
  name: string;
  descending: boolean;
  same: Condition;
  before: Condition | null;
  after: Condition | null;
}

function termsOf(
  name: string,
  { column, descending, blanks }: SortKey,
  value: string | number | null,
): Term[] {
  const own = term(name, value, descending);
  if (isNeverBlank(column)) return [own];
  const isBlank = `(${name} IS NULL)`;
  const [here, first] = [own.before === null ? 1 : 0, blanks === 'first' ? 1 : 0];
  const is = (value: number): Condition => ({ sql: `${isBlank} = ${value}`, params: [] });
  return [
    {
      name: isBlank,
      descending: first === 1,
      same: is(here),
      before: here === first ? null : is(first),
      after: here === first ? is(1 - first) : null,
    },
    own,
  ];
}

function term(name: string, value: unknown, descending = false): Term {
  if (value === null) {
    const same = { sql: `${name} IS NULL`, params: [] };
    return { name, descending, same, before: null, after: null };
  }
  const compared = (sign: string): Condition => ({ sql: `${name} ${sign} ?`, params: [value] });
  const [less, more] = [compared('<'), compared('>')];
  const [before, after] = descending ? [more, less] : [less, more];
  return { name, descending, same: compared('='), before, after };
}

function joined(all: readonly Condition[]): Condition {
  return {
    sql: all.map(({ sql }) => sql).join(' AND '),
    params: all.flatMap(({ params }) => params),
  };
}
