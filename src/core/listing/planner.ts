import type { Issue } from '../issue.ts';
import { didYouMean, unknownName } from '../did-you-mean.ts';
import { parseInstant } from '../time/parse.ts';
import { BEGINNING, type Instant } from '../time/interval.ts';
import type { Field } from '../design/field.ts';
import { sentence } from '../design/words.ts';
import type { ContentType, Design } from '../design/spec.ts';
import type {
  ConditionSpec,
  EachSpec,
  Listing,
  PinSpec,
  VisitorSpec,
} from '../design/listing-spec.ts';
import { type Column, LISTED, PLACE, listedColumns } from './columns.ts';
import { ConditionPlanner, tooMany } from './condition-planner.ts';
import { inEach } from './parts.ts';
import type { Operand } from './operand.ts';
import { ORDER_PARAMETER, SEARCH_PARAMETER, isNarrowing, isSearchable } from './visitors.ts';

import {
  type Condition,
  type Fan,
  type Filter,
  type ListingPlan,
  type Pin,
  type SortKey,
  type VisitorPlan,
  fansOf,
  namedBy,
} from './plan.ts';

/** Checks a listing against its types; `plan` is null where anything is wrong. */
export function planListing(
  listing: Listing,
  design: Design,
): { plan: ListingPlan | null; issues: Issue[] } {
  const keys = [listing.type, ...(listing.also ?? [])];
  const types = keys.map((key) => design.types.find((t) => t.key === key));
  const unknown = types.indexOf(undefined);
  if (unknown >= 0) {
    const message = `There is no content type "${keys[unknown]}".`;
    const known = design.types.map((t) => t.key);
    const path = unknown === 0 ? 'type' : `also/${unknown}`;
    return { plan: null, issues: [unknownName(path, message, keys[unknown]!, known)] };
  }
  const issues = [...twice(keys), ...tooMany(listing.where)];
  if (issues.length > 0) return { plan: null, issues };
  return planTypes(listing, types as ContentType[], design);
}

function twice(keys: readonly string[]): Issue[] {
  const again = keys.findIndex((key, i) => keys.indexOf(key) < i);
  if (again < 0) return [];
  const message = `"${keys[again]}" is listed already.`;
  return [{ code: 'named-twice', path: `also/${again}`, message, fix: 'Leave it out.' }];
}

/** The plan for each of some types, the first of which has the others beside it. */
function planTypes(
  listing: Listing,
  types: readonly ContentType[],
  design: Design,
): { plan: ListingPlan | null; issues: Issue[] } {
  const known = new Map([...types].reverse().flatMap((type) => [...listedColumns(type)]));
  const hasPage = listing.address === undefined;
  const planners = types.map((type) => {
    const { site, picks } = design;
    const names = { label: type.label, site, known, picks, types: design.types, hasPage };
    return new Planner(listedColumns(type), names);
  });
  const plans = types.map((type, i) => planners[i]!.plan(listing, type));
  // What is wrong in each of the types is said once.
  const said = new Map(planners.flatMap((p) => p.issues).map((i) => [`${i.code} ${i.path}`, i]));
  const [first, ...also] = plans;
  const plan = said.size > 0 || plans.includes(null) ? null : { ...first!, also: also as never };
  return { plan, issues: [...said.values()] };
}

/**
 * As `planListing`, for what the public sees: after a listing's own conditions stands that its
 * entries are shown in lists at all, where their type says something of it.
 */
export function planPublic(
  listing: Listing,
  design: Design,
): { plan: ListingPlan | null; issues: Issue[] } {
  const { plan, issues } = planListing(listing, design);
  return { plan: plan && inEach(plan, withListed), issues };
}

function withListed(plan: ListingPlan): ListingPlan {
  const { listed } = plan.type.presets;
  return listed === undefined ? plan : { ...plan, filter: thoseListed(plan.filter, listed) };
}

function thoseListed(filter: Filter, listed: boolean): Filter {
  const spec: ConditionSpec = listed
    ? { field: LISTED.name, op: 'is-not', value: false }
    : { field: LISTED.name, op: 'is', value: true };
  const operand: Operand = { kind: 'scalar', value: !listed };
  const shown: Condition = { kind: 'condition', column: LISTED, op: spec.op, operand, spec };
  return { kind: 'all', filters: [...(filter.kind === 'all' ? filter.filters : [filter]), shown] };
}

class Planner extends ConditionPlanner {
  plan(listing: Listing, type: ContentType): ListingPlan | null {
    const { zone } = this.names.site;
    const filter = listing.where
      ? this.filter(listing.where, 'where')
      : { kind: 'all' as const, filters: [] };
    const sort = listing.sort.flatMap((spec, i) => this.sortKey(spec, `sort/${i + 1}`) ?? []);
    const pins = (listing.pins ?? []).flatMap((pin, i) => this.pin(pin, `pins/${i + 1}`) ?? []);
    const each = listing.each ? this.each(listing, listing.each) : null;
    const visitor = listing.visitor ? this.visitor(listing, listing.visitor, type) : null;
    if (listing.feed) this.needsAddress(listing, 'feed', 'A feed stands below its address');
    if (each ?? visitor ?? listing.feed) this.isWhole(listing);
    if (!filter || this.issues.length > 0) return null;
    const keys = [...sort, ...(visitor?.orders ?? []).flatMap((order) => order.sort)];
    if (keys.some(({ column }) => column === PLACE) && !namedBy(filter)) return this.noPlaces();
    return { listing, type, zone, filter, sort, pins, each, visitor, also: [] };
  }

  private visitor(listing: Listing, spec: VisitorSpec, type: ContentType): VisitorPlan {
    this.needsAddress(listing, 'visitor', 'Visitors narrow, search and order its pages');
    const filters = spec.filters.flatMap(
      (name, i) => this.narrowing(name, `visitor/filters/${i + 1}`) ?? [],
    );
    const search = spec.search.flatMap((name, i) =>
      this.searched(name, type, `visitor/search/${i + 1}`),
    );
    const orders = spec.orders.map(({ key, label, sort }, i) => ({
      key,
      label: label ?? sentence(key),
      sort: sort.flatMap((s, n) => this.sortKey(s, `visitor/orders/${i + 1}/sort/${n + 1}`) ?? []),
    }));
    const names = [...spec.filters, ...spec.orders.map(({ key }) => `order ${key}`)];
    const again = names.find((name, i) => names.indexOf(name) < i);
    if (again !== undefined)
      this.fail('named-twice', 'visitor', `"${again}" stands there twice.`, 'Leave one out.');
    return { filters, search, orders };
  }

  /** A field by whose values visitors narrow the list. */
  private narrowing(name: string, path: string): Column | null {
    const column = this.column(name, path);
    if (!column) return null;
    if (name === SEARCH_PARAMETER || name === ORDER_PARAMETER)
      return this.fail(
        'name-taken',
        path,
        `Addresses have "${name}" for what is searched for, or the order.`,
        'Give the field another key.',
      );
    if (isNarrowing(column)) return column;
    return this.fail(
      'not-narrowing',
      path,
      `Visitors cannot choose from the values of ${column.label}.`,
      'Name a choice, yes/no, subjects or a reference.',
    );
  }

  /** A field whose words are searched; none where this type does not have it. */
  private searched(name: string, type: ContentType, path: string): Field[] {
    const field = type.fields.find((f) => f.key === name);
    if (!field && this.names.known.has(name)) return [];
    if (field && isSearchable(field)) return [field];
    const known = [...this.names.known.keys()];
    this.fail(
      'not-searched',
      path,
      `${this.names.label} has no text "${name}" to be searched.`,
      didYouMean(name, known, 'Name fields of text, paragraphs or rich text.'),
    );
    return [];
  }

  private noPlaces(): null {
    return this.fail(
      'no-places',
      'sort',
      'Only entries that a condition names have a place: those of picks, or of a list.',
      'Add a condition such as {field: entry.picks, op: is, value: …}, or sort by something else.',
    );
  }

  sortKey(spec: Listing['sort'][number], path: string): SortKey | null {
    const column = this.column(spec.field, `${path}/field`);
    if (!column) return null;
    if (!column.sortable)
      return this.fail(
        'not-sortable',
        path,
        `A list cannot be sorted by ${column.label}: it has no order of its own.`,
        'Sort by a single text, number, date or choice.',
      );
    const key = { column, descending: spec.direction === 'descending', blanks: spec.blanks };
    if (spec.from === undefined) return key;
    if (column.family === 'day' || column.family === 'instant') return { ...key, from: spec.from };
    return this.fail(
      'not-dated',
      path,
      `${column.label} is no date: it is no days away from today.`,
      'Leave "from" out, or name a date.',
    );
  }

  /** What makes other lists of one needs all of it. */
  private isWhole({ skip, most }: Listing): void {
    if (skip === undefined && most === undefined) return;
    this.fail(
      'not-whole',
      most === undefined ? 'skip' : 'most',
      'Pages for each value, visitors and feeds make other lists of it, and it is cut off.',
      'Let it have all its entries, or make a second listing of its first.',
    );
  }

  needsAddress({ address }: Listing, path: string, why: string): void {
    if (address !== undefined) return;
    this.fail('address-missing', path, `${why}, and it has none.`, 'Give it an address.');
  }

  each(listing: Listing, { by, per, index }: EachSpec): Fan | null {
    const column = this.column(by, 'each/by');
    if (!column) return null;
    this.needsAddress(listing, 'each', 'Its pages for each value stand below its address');
    const ways = fansOf(column);
    if (ways.length === 0)
      return this.fail(
        'not-each',
        'each/by',
        `There is no page for each ${column.label}.`,
        'Name a field of subjects, a choice or a date.',
      );
    if (per !== undefined && !ways.includes(per))
      return this.fail(
        'wrong-value',
        'each/per',
        `${column.label} is no date: it has no years and months.`,
        'Leave "per" out, or name a date.',
      );
    return { column, per: per ?? ways[0]!, hasIndex: index === 'values' };
  }

  pin({ entry, from, to }: PinSpec, path: string): Pin | null {
    const [starts, ends] = [this.instant(from, `${path}/from`), this.instant(to, `${path}/to`)];
    if (starts !== null && ends !== null && ends <= starts)
      return this.fail(
        'empty-stretch',
        `${path}/to`,
        'It would end before it begins.',
        'Let it end later, or never.',
      );
    return { entry, from: starts ?? BEGINNING, to: ends };
  }

  private instant(text: string | undefined, path: string): Instant | null {
    const at = text === undefined ? null : parseInstant(text, this.names.site.zone);
    if (text !== undefined && at === null)
      this.fail('wrong-value', path, `"${text}" is no instant.`, 'Write it like 2026-03-01T08:00.');
    return at;
  }
}
