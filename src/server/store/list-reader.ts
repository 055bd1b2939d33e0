import {
  type OrderAt,
  type OrderCells,
  cellsOf,
  orderAt,
  totalOrder,
} from '@/core/listing/order.ts';
import { partsOf, throughIn } from '@/core/listing/parts.ts';
import type { ContentType } from '@/core/design/spec.ts';
import { othersBy } from '@/core/listing/evaluate.ts';
import type { FilterWorld, ListingPlan } from '@/core/listing/plan.ts';
import { type ListingRow, MATCH, rowOf } from '@/core/listing/columns.ts';
import { countedAs, countedTogether } from '@/core/listing/counted.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { Neighbours, SiteReader } from '@/core/site/reader.ts';
import { type Instant, Validity } from '@/core/time/interval.ts';
import type { Connection, Statement } from '../db/connection.ts';
import { indexTable } from './index-columns.ts';
import {
  ConvertedList,
  countsConverted,
  readsComputedOtherwise,
  readsConverted,
} from './converted-list.ts';
import { tableSeen } from './index-tables.ts';
import { type PartWhere, bytesOfCounts, countsTogether, keptIn, rowsIn } from './list-counts.ts';
import { ListValidity } from './list-validity.ts';
import { type ListMemory, told } from './list-memory.ts';
import { hasListingIndex } from './listing-index.ts';
import { around, comesBefore } from './listing-order.ts';
import type { Found } from './listing-source.ts';
import { type ListingSql, listingSql } from './listing-sql.ts';
import { filterWorld } from './filter-world.ts';
import { type Stretch, orderedRows } from './ordered-rows.ts';
import { statement } from './statement.ts';
import { hasAllBeside, hasWords } from './word-tables.ts';
import type { SubjectsOver } from './subject-store.ts';

/** What lists are read from. */
interface ListSource {
  connection: Connection;
  site: CompiledSite;
  subjects: SubjectsOver;
  memory: ListMemory;
  /** Instant of the last write, ms UTC. */
  settled: Instant;
}

/** Reads listings of a stored site as of the instant of each call's validity. */
export class ListReader {
  private readonly connection: Connection;
  private readonly site: CompiledSite;
  private readonly subjects: SubjectsOver;
  private readonly memory: ListMemory;
  private readonly settled: Instant;
  private readonly holding: ListValidity;

  constructor(
    private readonly entries: Pick<SiteReader, 'liveEntries'>,
    source: ListSource,
  ) {
    this.connection = source.connection;
    this.site = source.site;
    this.subjects = source.subjects;
    this.memory = source.memory;
    this.settled = source.settled;
    this.holding = new ListValidity(source);
  }

  /** As of `SiteReader`. */
  listing(
    plan: ListingPlan,
    validity: Validity,
    offset: number,
    limit: number,
    without: readonly string[] = [],
  ): { ids: string[]; total: number } {
    const read = (own: Validity): { ids: string[]; total: number } =>
      this.isConverted(plan, own.at)
        ? this.convertedStretch(plan, own, offset, limit, without)
        : this.readListing(plan, own, offset, limit, without);
    // What somebody searches for is not remembered.
    if (plan.search) return read(validity);
    const stretch = [offset, limit, ...without].join('/');
    return told(this.memory.list(plan, validity.at, stretch, read), validity);
  }

  private readListing(
    plan: ListingPlan,
    validity: Validity,
    offset: number,
    limit: number,
    without: readonly string[],
  ): { ids: string[]; total: number } {
    const parts = this.sqlOf(plan, validity.at, without);
    if (parts.length === 0) return { ids: [], total: 0 };
    // A first page that has all of it needs no total.
    const kept = offset > 0 ? keptIn(this.connection, parts) : null;
    const ids = isByMatch(plan)
      ? this.calledFirst(plan, validity.at, { offset, limit, without })
      : this.stretch(parts, { at: validity.at, offset, limit, total: kept });
    const whole = ids.length < limit && (ids.length > 0 || offset === 0);
    const total = kept ?? (whole ? offset + ids.length : this.count(parts));
    this.tellListing(plan, validity, parts);
    return { ids, total };
  }

  /** Those that are called what is searched for, then the others: the later are seldom read. */
  private calledFirst(
    plan: ListingPlan,
    at: Instant,
    { offset, limit, without }: { offset: number; limit: number; without: readonly string[] },
  ): string[] {
    const called = this.sqlOf(plan, at, without, 'called');
    const ids = this.stretch(called, { at, offset, limit, total: null });
    if (ids.length === limit) return ids;
    const from = ids.length > 0 ? 0 : offset - this.count(called);
    const others = this.sqlOf(plan, at, without, 'others');
    const rest = { offset: Math.max(0, from), limit: limit - ids.length };
    return [...ids, ...this.stretch(others, { at, ...rest, total: null })];
  }

  private stretch(parts: readonly PartSql[], stretch: Stretch): string[] {
    return orderedRows(this.connection, parts, stretch);
  }

  private count(parts: readonly PartSql[], where?: PartWhere): number {
    return rowsIn(this.connection, parts, where);
  }

  /** As of `SiteReader`. */
  counts(
    plan: ListingPlan,
    name: string,
    validity: Validity,
    without: readonly string[] = [],
  ): Map<string, number> {
    const read = (own: Validity): Map<string, number> =>
      this.isConverted(plan, own.at) || countsConverted(this.connection, plan, name)
        ? this.countedOneByOne(plan, name, own, without)
        : this.countEach(plan, name, own, without);
    if (plan.search) return read(validity);
    const { at } = validity;
    const counted = `counted ${[name, ...without].join('/')}`;
    return told(this.memory.recall(plan, at, counted, read, bytesOfCounts), validity);
  }

  private countEach(
    plan: ListingPlan,
    name: string,
    validity: Validity,
    without: readonly string[],
  ): Map<string, number> {
    const parts = this.sqlOf(plan, validity.at, without);
    this.tellListing(plan, validity, parts, name);
    const world = { subjects: this.subjects.at(validity.at), at: validity.at };
    return countsTogether(this.connection, parts, name, world);
  }

  private countedOneByOne(
    plan: ListingPlan,
    name: string,
    validity: Validity,
    without: readonly string[],
  ): Map<string, number> {
    const { at } = validity;
    this.holding.tellShapes(plan, validity, name);
    const { ids } = this.convertedStretch(plan, validity, 0, Infinity, without);
    const rows = [...this.entries.liveEntries(ids, validity).values()].map(rowOf);
    const world = {
      ...this.worldAt(at),
      subjectsOf: (set: string) => this.subjects.at(at).all(set),
      isLive: (id: string) => this.entries.liveEntries([id], validity).has(id),
    };
    return countedTogether(rows.map((row) => countedAs(plan, name, row, world)));
  }

  /** As of `SiteReader`. */
  neighbours(
    plan: ListingPlan,
    row: ListingRow,
    validity: Validity,
    without: readonly string[] = [],
  ): Neighbours {
    if (this.isConverted(plan, validity.at))
      return this.neighboursConverted(plan, row, validity, without);
    const cells = cellsOf(plan, row, this.orderAt(plan, validity.at));
    const name = `beside ${JSON.stringify([cells, without])}`;
    const read = (own: Validity): Neighbours => this.readNeighbours(plan, cells, own, without);
    return told(this.memory.recall(plan, validity.at, name, read), validity);
  }

  private readNeighbours(
    plan: ListingPlan,
    cells: OrderCells,
    validity: Validity,
    without: readonly string[],
  ): Neighbours {
    const parts = this.sqlOf(plan, validity.at, without);
    if (parts.length === 0) return { isIn: false, before: null, after: null };
    this.tellListing(plan, validity, parts);
    const found = parts.map((part) => this.neighboursIn(part, cells));
    const nearest = (side: 'before' | 'after'): string | null =>
      this.nearest(
        plan,
        found.flatMap((f) => f[side] ?? []),
        side,
        validity,
      );
    return {
      isIn: found.some(({ isIn }) => isIn),
      before: nearest('before'),
      after: nearest('after'),
    };
  }

  private neighboursIn({ plan, from, params }: PartSql, cells: OrderCells): Neighbours {
    const { same, before, after } = around(plan, cells);
    const first = (where: { sql: string; params: unknown[]; order?: string }): string | null => {
      const order = where.order === undefined ? '' : ` ORDER BY ${where.order}`;
      const text = `SELECT r.entry ${from} AND ${where.sql}${order} LIMIT 1`;
      return (
        this.sql<string>(text)
          .pluck()
          .get(...params, ...where.params) ?? null
      );
    };
    return {
      isIn: first(same) !== null,
      before: firstOf(before, first),
      after: firstOf(after, first),
    };
  }

  /** Of the nearest of each type the one that is the nearest of all. */
  private nearest(
    plan: ListingPlan,
    ids: readonly string[],
    side: 'before' | 'after',
    validity: Validity,
  ): string | null {
    if (ids.length <= 1) return ids[0] ?? null;
    const rows = [...this.entries.liveEntries(ids, validity).values()].map(rowOf);
    rows.sort(totalOrder(plan, this.orderAt(plan, validity.at)));
    return (side === 'before' ? rows.at(-1) : rows[0])?.entry ?? null;
  }

  private orderAt(plan: ListingPlan, at: Instant): OrderAt {
    return orderAt(plan, at, this.worldAt(at));
  }

  private neighboursConverted(
    plan: ListingPlan,
    row: ListingRow,
    validity: Validity,
    without: readonly string[],
  ): Neighbours {
    const { ids } = this.convertedStretch(plan, validity, 0, Infinity, without);
    const at = this.precedingConverted(plan, row, validity, without);
    const isIn = ids[at] === row.entry;
    return { isIn, before: ids[at - 1] ?? null, after: ids[isIn ? at + 1 : at] ?? null };
  }

  /** What filters ask of the rest of the site. */
  worldAt(at: Instant): FilterWorld {
    return filterWorld(this.connection, this.subjects.at(at), at);
  }

  /** A list without some entries in SQL, in each of its types that some release has so far. */
  private sqlOf(
    plan: ListingPlan,
    at: Instant,
    without: readonly string[],
    found: Found = 'all',
  ): PartSql[] {
    const world = this.worldAt(at);
    return partsOf(plan).flatMap((part): PartSql[] => {
      // A type without any of the fields that are searched has nothing that is found.
      if (part.search?.fields.length === 0) return [];
      const indexed = hasListingIndex(this.connection, part);
      const table = indexed ? null : tableSeen(this.connection, part.type);
      if (!indexed && table === null) return [];
      const tableOf = (type: ContentType): string | null => tableSeen(this.connection, type);
      const beside = part.search !== undefined && hasAllBeside(this.connection, part);
      const how = { at, settled: this.settled, world, table, tableOf, found };
      const sql = listingSql(part, { ...how, hasAllBeside: beside });
      const all = { ...sql, plan: part, read: table ?? indexTable(part.type) };
      if (without.length === 0) return [all];
      const others = ` AND r.entry NOT IN (${without.map(() => '?').join(', ')})`;
      const { from, inOrder = from } = all;
      const both = { from: from + others, inOrder: inOrder + others };
      const kept = { total: () => null, open: () => null, byKey: () => null };
      return [{ ...all, ...both, ...kept, params: [...all.params, ...without] }];
    });
  }

  /** How many entries of a listing come before a row in its order; some may be left out. */
  preceding(
    plan: ListingPlan,
    row: ListingRow,
    { at }: Validity,
    without: readonly string[] = [],
  ): number {
    if (this.isConverted(plan, at))
      return this.precedingConverted(plan, row, new Validity(at), without);
    const cells = cellsOf(plan, row, this.orderAt(plan, at));
    return this.count(this.sqlOf(plan, at, without), (part) => comesBefore(part, cells));
  }

  private precedingConverted(
    plan: ListingPlan,
    row: ListingRow,
    validity: Validity,
    without: readonly string[],
  ): number {
    const { ids } = this.convertedStretch(plan, validity, 0, Infinity, without);
    const order = totalOrder(plan, this.orderAt(plan, validity.at));
    let [from, to] = [0, ids.length];
    while (from < to) {
      const middle = (from + to) >> 1;
      const entry = this.entries.liveEntries([ids[middle]!], validity).get(ids[middle]!)!;
      if (order(rowOf(entry), row) < 0) from = middle + 1;
      else to = middle;
    }
    return from;
  }

  /**
   * Whether a list is over a field whose column is not there, or holds something else, or over words
   * that are not.
   */
  private isConverted(plan: ListingPlan, at: Instant): boolean {
    const { connection } = this;
    return partsOf(plan).some(
      (part) =>
        (part.search && (at < this.settled || !hasWords(connection, part.type, part.search))) ||
        readsComputedOtherwise(connection, part, this.site.design.site) ||
        readsConvertedHere(connection, part),
    );
  }

  /** A stretch of such a list; all of it is read, and remembered. */
  private convertedStretch(
    plan: ListingPlan,
    validity: Validity,
    offset: number,
    limit: number,
    without: readonly string[],
  ): { ids: string[]; total: number } {
    const whole = this.memory.list(plan, validity.at, 'whole', (own) => {
      const list = new ConvertedList(this.connection, plan, own.at, this.site.design);
      this.holding.tellShapes(plan, own);
      for (const part of partsOf(plan))
        this.holding.tellMoving(part, own, (column, from) => list.leastFrom(column, from));
      const others = othersBy((id) => this.entries.liveEntries([id], own).get(id) ?? null);
      const ids = list.ids(this.worldAt(own.at), others.row);
      return { ids, total: ids.length };
    });
    const ids = told(whole, validity).ids.filter((id) => !without.includes(id));
    return { ids: ids.slice(offset, offset + limit), total: ids.length };
  }

  private tellListing(
    plan: ListingPlan,
    validity: Validity,
    parts: readonly PartSql[],
    counted: string | null = null,
  ): void {
    const { holding } = this;
    holding.tellShapes(plan, validity, counted);
    for (const part of parts) holding.tellMoving(part.plan, validity, holding.leastIn(part.read));
  }

  private sql<Row>(text: string): Statement<Row> {
    return statement<Row>(this.connection, text);
  }
}

/** A list in one of its types in SQL, and the table that it reads. */
type PartSql = ListingSql & { plan: ListingPlan; read: string };

/** Whether what is called what is searched for comes first. */
function isByMatch({ search, sort }: ListingPlan): boolean {
  return search !== undefined && sort[0]?.column === MATCH;
}

/** With an index of its own a list has all columns of its type; those of others may be missing. */
function readsConvertedHere(connection: Connection, part: ListingPlan): boolean {
  const isIndexed = hasListingIndex(connection, part);
  return (!isIndexed || throughIn(part).length > 0) && readsConverted(connection, part);
}

/** The first that something is found by; null where nothing is. */
function firstOf<T>(all: readonly T[], find: (one: T) => string | null): string | null {
  for (const one of all) {
    const found = find(one);
    if (found !== null) return found;
  }
  return null;
}
