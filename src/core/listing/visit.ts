import { conditionOf } from './condition.ts';
import { MATCH } from './columns.ts';
import { inEach } from './parts.ts';
import type { Condition, Filter, ListingPlan, SortKey } from './plan.ts';

/** What a visitor wants of a listing. */
export interface Visit {
  /**
   * Values wanted, by the names of fields that narrow the list, of which an entry has one at least:
   * options by their keys, `yes` and `no`, subjects by their keys, entries by their ids.
   */
  wanted: ReadonlyMap<string, readonly string[]>;
  /** What is searched for; '' for nothing. */
  search: string;
  /** Key of the order that was chosen; null for the list's own. */
  order: string | null;
}

/** A visitor who wants nothing else than what there is. */
export const PLAIN_VISIT: Visit = { wanted: new Map(), search: '', order: null };

/** At most so many lists as visitors want them are kept ready for a listing. */
const MOST_KEPT = 1000;
const kept = new WeakMap<ListingPlan, Map<string, ListingPlan>>();

/** A listing as a visitor wants it. */
export function visited(plan: ListingPlan, visit: Visit): ListingPlan {
  const { wanted, search, order } = visit;
  if (wanted.size === 0 && search === '' && order === null) return plan;
  // What is searched for is kept nowhere.
  if (search !== '') return inEach(plan, (part) => asWanted(part, visit));
  let known = kept.get(plan);
  if (!known) kept.set(plan, (known = new Map<string, ListingPlan>()));
  const name = JSON.stringify([[...wanted], order]);
  let made = known.get(name);
  if (!made) {
    if (known.size >= MOST_KEPT) known.clear();
    made = inEach(plan, (part) => asWanted(part, visit));
    known.set(name, made);
  }
  return made;
}

/** A listing in each order that visitors choose: each is read by an index of its own. */
export function inItsOrders(plan: ListingPlan): ListingPlan[] {
  const orders = plan.visitor?.orders ?? [];
  return orders.map(({ key }) => visited(plan, { ...PLAIN_VISIT, order: key }));
}

function asWanted(plan: ListingPlan, visit: Visit): ListingPlan {
  const base = visit.order === null ? plan : inOrder(plan, visit.order);
  const conditions = [...visit.wanted].flatMap(([name, values]) => wanting(plan, name, values));
  if (conditions.length === 0 && visit.search === '') return base;
  const { filter, listing } = base;
  const own: Filter[] = filter.kind === 'all' ? filter.filters : [filter];
  return {
    ...base,
    listing: { ...listing, id: `${listing.id} ?${JSON.stringify([[...visit.wanted]])}` },
    filter: { kind: 'all', filters: [...own, ...conditions] },
    base: base.base ?? base,
    ...(visit.search === '' ? {} : searching(base, visit)),
  };
}

/** Those that are called what is searched for come first, unless another order was chosen. */
function searching(
  { type, sort, visitor }: ListingPlan,
  { search: text, order }: Visit,
): Pick<ListingPlan, 'search' | 'sort' | 'pins'> {
  const fields = visitor?.search ?? [];
  const naming = fields.find(({ key }) => key === type.naming) ?? null;
  const match: SortKey = { column: MATCH, descending: false, blanks: 'last' };
  return {
    search: { text, fields, naming },
    sort: order === null ? [match, ...sort] : sort,
    pins: [],
  };
}

function inOrder(plan: ListingPlan, key: string): ListingPlan {
  const order = plan.visitor?.orders.find((o) => o.key === key);
  if (!order) return plan;
  const { listing, index = listing.id } = plan;
  return {
    ...plan,
    index: `order ${key} of ${index}`,
    listing: { ...listing, id: `${listing.id} order ${key}` },
    sort: order.sort,
    pins: [],
  };
}

function wanting(plan: ListingPlan, name: string, values: readonly string[]): Condition[] {
  const column = plan.visitor?.filters.find((c) => c.name === name);
  if (!column) return [];
  if (column.family === 'yesno') {
    const [yes, no] = [values.includes('yes'), values.includes('no')];
    if (yes === no) return [];
    return [conditionOf(column, 'is', { kind: 'scalar', value: yes })];
  }
  const options = column.field?.options;
  const keys = options
    ? values.flatMap((key) => options.find((o) => o.key === key)?.id ?? [])
    : [...values];
  return [conditionOf(column, 'any-of', { kind: 'keys', keys })];
}
