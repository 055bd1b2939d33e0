import { nameOf } from '../design/values.ts';
import type { Column } from '../listing/columns.ts';
import { partsOf } from '../listing/parts.ts';
import type { ListingPlan } from '../listing/plan.ts';
import { sortKey } from '../listing/sort-key.ts';
import { type Visit, visited } from '../listing/visit.ts';
import type { VisitorOption, VisitorShown } from '../template/context.ts';
import { compareCodePoints } from '../text.ts';
import type { Validity } from '../time/interval.ts';
import type { SiteReader } from './reader.ts';
import { queryOf } from './visits.ts';

/** Of entries and tags so many are shown, those of the most entries. */
const MOST_OPTIONS = 50;

/** A page of a listing, what its visitor wants, and where its values are looked up. */
export interface VisitedPage {
  /** The list of the page, as if nothing were wanted of it. */
  plan: ListingPlan;
  visit: Visit;
  /** Where page 1 stands. */
  address: string;
  reader: Pick<SiteReader, 'counts' | 'liveEntries' | 'subjectsOf'>;
  validity: Validity;
}

/** What a visitor may do with a listing's page, with how many entries each value has. */
export function visitorShown(page: VisitedPage): VisitorShown {
  const { plan, visit, address } = page;
  const visitor = plan.visitor!;
  const isSearched = partsOf(plan).some((part) => (part.visitor?.search.length ?? 0) > 0);
  return {
    address,
    search: isSearched ? visit.search : null,
    orders: visitor.orders.map(({ key, label }) => ({
      ...{ value: key, label, isChosen: visit.order === key },
    })),
    filters: visitor.filters.map((column) => {
      const options = optionsOf(page, column.name);
      const { label: called } = columnsOf(plan, column.name)[0] ?? column;
      return {
        ...{ name: column.name, label: called, options },
        chosen: options.flatMap((option) =>
          option.isChosen
            ? [{ label: option.label || called, without: without(page, column, option) }]
            : [],
        ),
      };
    }),
    isPlain: queryOf(plan, visit) === '',
  };
}

/** Where the page stands without one of the values that are wanted. */
function without(
  { plan, visit, address }: VisitedPage,
  { name }: Column,
  { value }: VisitorOption,
): string {
  const left = (visit.wanted.get(name) ?? []).filter((other) => other !== value);
  const query = queryOf(plan, { ...visit, wanted: new Map([...visit.wanted, [name, left]]) });
  return query === '' ? address : `${address}?${query}`;
}

function optionsOf(page: VisitedPage, name: string): VisitorOption[] {
  const { plan, visit, reader, validity } = page;
  const others = new Map([...visit.wanted].filter(([other]) => other !== name));
  const counts = reader.counts(visited(plan, { ...visit, wanted: others }), name, validity);
  const chosen = visit.wanted.get(name) ?? [];
  const most = [...counts].sort(([a, n], [b, m]) => m - n || compareCodePoints(a, b));
  return labelled(page, name, [...new Set([...chosen, ...most.map(([value]) => value)])])
    .map((option) => ({
      ...option,
      count: counts.get(option.value) ?? 0,
      isChosen: chosen.includes(option.value),
    }))
    .filter(({ count, isChosen }) => count > 0 || isChosen);
}

type Labelled = Pick<VisitorOption, 'value' | 'label' | 'depth'>;

/**
 * Values in the order in which they are shown, with what they are called. `values`: those that are
 * chosen first, then those of the most entries.
 */
function labelled(
  { plan, reader, validity }: VisitedPage,
  name: string,
  values: readonly string[],
): Labelled[] {
  const columns = columnsOf(plan, name);
  const [column] = columns;
  if (column?.family === 'yesno')
    return ['yes', 'no'].map((value) => ({ value, label: '', depth: 0 }));
  if (column?.target?.of === 'subjects') {
    const { set } = column.target;
    const all = reader.subjectsOf(set, validity);
    const shown = new Set(values.slice(0, column.target.tree ? undefined : MOST_OPTIONS));
    const parents = new Map(all.map(({ key, parent }) => [key, parent]));
    return inTheirTree(
      all.filter(({ key }) => shown.has(key)),
      parents,
    );
  }
  if (column?.target?.of === 'entries')
    return [...reader.liveEntries(values.slice(0, MOST_OPTIONS), validity).values()]
      .map((entry) => ({ value: entry.id, label: nameOf(entry), depth: 0 }))
      .sort(
        (a, b) =>
          compareCodePoints(sortKey(a.label), sortKey(b.label)) ||
          compareCodePoints(a.value, b.value),
      );
  const options = columns.flatMap(({ field }) => field?.options ?? []);
  return [...new Map(options.map(({ key, label }) => [key, label]))].map(([value, label]) => ({
    ...{ value, label, depth: 0 },
  }));
}

/** Subjects each right after what it lies within, in their order. */
function inTheirTree(
  all: readonly { key: string; name: string }[],
  parents: ReadonlyMap<string, string | null>,
): Labelled[] {
  const there = new Set(all.map(({ key }) => key));
  const parentOf = (key: string): string | null => {
    const parent = parents.get(key) ?? null;
    return parent === null || there.has(parent) ? parent : parentOf(parent);
  };
  const within = new Map<string | null, typeof all>();
  for (const subject of all) {
    const parent = parentOf(subject.key);
    within.set(parent, [...(within.get(parent) ?? []), subject]);
  }
  const below = (parent: string | null, depth: number): Labelled[] =>
    (within.get(parent) ?? []).flatMap(({ key, name }) => [
      { value: key, label: name, depth },
      ...below(key, depth + 1),
    ]);
  return below(null, 0);
}

/** The columns of a name that the types of a listing have. */
function columnsOf(plan: ListingPlan, name: string): Column[] {
  return partsOf(plan).flatMap(
    ({ visitor }) => visitor?.filters.find((c) => c.name === name && !c.isAbsent) ?? [],
  );
}
