import type { Issue } from '../issue.ts';
import { didYouMean, nearest, unknownName } from '../did-you-mean.ts';
import { parseInstant } from '../time/parse.ts';
import { BEGINNING, type Instant, type Interval } from '../time/interval.ts';
import type { ContentType, Design } from '../design/spec.ts';
import {
  type ConditionSpec,
  type EachSpec,
  type FilterSpec,
  type Listing,
  type Operator,
  type PinSpec,
  conditionSpecs,
  groupOf,
} from '../design/listing-spec.ts';
import { type Column, LISTED, columnsOf } from './columns.ts';
import type { Operand } from './operand.ts';
import { OPERATORS_OF, OPERATOR_WORDS } from './operators.ts';
import { readOperand } from './read-operand.ts';

/** A condition whose field and value fit each other. */
export interface Condition {
  kind: 'condition';
  column: Column;
  op: Operator;
  operand: Operand;
  spec: ConditionSpec;
}

/** A checked tree of filters. */
export type Filter = Condition | { kind: 'all' | 'any' | 'none'; filters: Filter[] };

/** A checked sort key. */
export interface SortKey {
  column: Column;
  descending: boolean;
  blanks: 'first' | 'last';
}

/** An entry that stands first over a stretch of time. */
export interface Pin extends Interval {
  entry: string;
}

/** What a listing has a page for each value of. */
export interface Fan {
  column: Column;
  per: 'subject' | 'choice' | 'year' | 'month';
  /** Whether its own page leads to those of its values, in place of showing entries. */
  hasIndex: boolean;
}

/** What there can be a page for each of, by a column. */
export function fansOf({ family, target }: Column): readonly Fan['per'][] {
  if (family === 'day' || family === 'instant') return ['year', 'month'];
  if (family === 'choice') return ['choice'];
  return target?.of === 'subjects' ? ['subject'] : [];
}

/** A listing ready to be asked: independent of instant and of how rows are kept. */
export interface ListingPlan {
  listing: Listing;
  type: ContentType;
  zone: string;
  filter: Filter;
  sort: SortKey[];
  /** Entries that stand first, in this order, each while its stretch lasts. */
  pins: readonly Pin[];
  /** What it has a page for each value of; null where it has none. */
  each: Fan | null;
  /** The id its index is named by, where that is not the listing's. */
  index?: string;
}

/** What a plan needs to know of subjects: the keys at and below a category. */
export interface SubjectTree {
  keysWithin(set: string, key: string): string[];
  /** Keys that stand for nothing any more. */
  gone(set: string): readonly string[];
}

/** Checks a listing against its type; `plan` is null where anything is wrong. */
export function planListing(
  listing: Listing,
  design: Design,
): { plan: ListingPlan | null; issues: Issue[] } {
  const type = design.types.find((t) => t.key === listing.type);
  if (!type) {
    const message = `There is no content type "${listing.type}".`;
    const keys = design.types.map((t) => t.key);
    return { plan: null, issues: [unknownName('type', message, listing.type, keys)] };
  }
  const many = tooMany(listing.where);
  if (many.length > 0) return { plan: null, issues: many };
  const planner = new Planner(columnsOf(type), type, design.site.zone);
  const filter = listing.where
    ? planner.filter(listing.where, 'where')
    : { kind: 'all' as const, filters: [] };
  const sort = listing.sort.flatMap((spec, i) => planner.sortKey(spec, `sort/${i + 1}`) ?? []);
  const pins = (listing.pins ?? []).flatMap((pin, i) => planner.pin(pin, `pins/${i + 1}`) ?? []);
  const each = listing.each ? planner.each(listing, listing.each) : null;
  if (listing.feed) planner.needsAddress(listing, 'feed', 'A feed stands below its address');
  const plan =
    planner.issues.length === 0 && filter
      ? { listing, type, zone: design.site.zone, filter, sort, pins, each }
      : null;
  return { plan, issues: planner.issues };
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
  const listed = plan?.type.presets.listed;
  if (!plan || listed === undefined) return { plan, issues };
  return { plan: { ...plan, filter: withListed(plan.filter, listed) }, issues };
}

function withListed(filter: Filter, listed: boolean): Filter {
  const spec: ConditionSpec = listed
    ? { field: LISTED.name, op: 'is-not', value: false }
    : { field: LISTED.name, op: 'is', value: true };
  const operand: Operand = { kind: 'scalar', value: !listed };
  const shown: Condition = { kind: 'condition', column: LISTED, op: spec.op, operand, spec };
  return { kind: 'all', filters: [...(filter.kind === 'all' ? filter.filters : [filter]), shown] };
}

const MAX_CONDITIONS = 500;

function tooMany(where: FilterSpec | undefined): Issue[] {
  const count = conditionSpecs(where).length;
  if (count <= MAX_CONDITIONS) return [];
  return [
    {
      code: 'too-many-conditions',
      path: 'where',
      message: `A listing has at most ${MAX_CONDITIONS} conditions, and this one has ${count}.`,
      fix: 'Use "any-of" with several values in place of many conditions.',
    },
  ];
}

/**
 * Checks conditions against the columns they may ask of, by name; `filter` is null where anything
 * is wrong. `label` is what has those columns, in words.
 */
export function planFilter(
  where: FilterSpec,
  columns: Map<string, Column>,
  { label, zone }: { label: string; zone: string },
): { filter: Filter | null; issues: Issue[] } {
  const many = tooMany(where);
  if (many.length > 0) return { filter: null, issues: many };
  const planner = new Planner(columns, { label }, zone);
  const filter = planner.filter(where, 'where');
  return { filter: planner.issues.length === 0 ? filter : null, issues: planner.issues };
}

class Planner {
  readonly issues: Issue[] = [];

  constructor(
    private readonly columns: Map<string, Column>,
    private readonly type: Pick<ContentType, 'label'>,
    private readonly zone: string,
  ) {}

  filter(spec: FilterSpec, path: string): Filter | null {
    const group = groupOf(spec);
    if (!group) return this.condition(spec as ConditionSpec, path);
    const { kind } = group;
    const filters = group.filters
      .map((f, i) => this.filter(f, `${path}/${kind}/${i + 1}`))
      .filter((f) => f !== null);
    return { kind, filters };
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
    return { column, descending: spec.direction === 'descending', blanks: spec.blanks };
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
    const at = text === undefined ? null : parseInstant(text, this.zone);
    if (text !== undefined && at === null)
      this.fail('wrong-value', path, `"${text}" is no instant.`, 'Write it like 2026-03-01T08:00.');
    return at;
  }

  private column(name: string, path: string): Column | null {
    const column = this.columns.get(name);
    if (column) return column;
    const names = [...this.columns.keys()];
    return this.fail(
      'unknown-field',
      path,
      `${this.type.label} has no field "${name}".`,
      didYouMean(name, names, `It has: ${names.slice(0, 20).join(', ')}.`),
      nearest(name, names),
    );
  }

  private condition(spec: ConditionSpec, path: string): Condition | null {
    const column = this.column(spec.field, `${path}/field`);
    if (!column) return null;
    const allowed = OPERATORS_OF[column.family];
    if (!allowed.includes(spec.op)) {
      return this.fail(
        'wrong-operator',
        `${path}/op`,
        `${column.label} cannot be asked "${OPERATOR_WORDS[spec.op]}".`,
        `It can be asked: ${allowed.join(', ')}.`,
      );
    }
    const operand = readOperand(column, spec, this.zone, (code, message, fix) =>
      this.fail(code, `${path}/value`, message, fix),
    );
    return operand && { kind: 'condition', column, op: spec.op, operand, spec };
  }

  private fail(
    code: string,
    path: string,
    message: string,
    fix: string,
    replacement?: string,
  ): null {
    this.issues.push({
      code,
      path,
      message,
      fix,
      ...(replacement === undefined ? {} : { replacement }),
    });
    return null;
  }
}

/** Every condition of a filter, in the order it reads. */
export function conditionsOf(filter: Filter): Condition[] {
  return filter.kind === 'condition' ? [filter] : filter.filters.flatMap(conditionsOf);
}
