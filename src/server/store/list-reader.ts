import { totalOrder } from '@/core/listing/evaluate.ts';
import { crossingOf, movingComparisons, nextDayCrossing } from '@/core/listing/crossing.ts';
import { type ListingPlan, conditionsOf } from '@/core/listing/plan.ts';
import { type Column, type ListingRow, rowOf } from '@/core/listing/columns.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { Neighbours, SiteReader } from '@/core/site/reader.ts';
import { type Instant, Validity } from '@/core/time/interval.ts';
import type { Connection, Statement } from '../db/connection.ts';
import { cellColumn, indexTable } from './index-columns.ts';
import { ConvertedList, readsComputedOtherwise, readsConverted } from './converted-list.ts';
import { tableSeen } from './index-tables.ts';
import type { ListMemory } from './list-memory.ts';
import { hasListingIndex } from './listing-index.ts';
import { around, comesBefore } from './listing-order.ts';
import { type ListingSql, listingSql } from './listing-sql.ts';
import { statement } from './statement.ts';
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

  constructor(
    private readonly entries: Pick<SiteReader, 'liveEntries'>,
    source: ListSource,
  ) {
    this.connection = source.connection;
    this.site = source.site;
    this.subjects = source.subjects;
    this.memory = source.memory;
    this.settled = source.settled;
  }

  /** As of `SiteReader`. */
  listing(
    plan: ListingPlan,
    validity: Validity,
    offset: number,
    limit: number,
    without: readonly string[] = [],
  ): { ids: string[]; total: number } {
    const list = this.memory.list(
      plan,
      validity.at,
      [offset, limit, ...without].join('/'),
      (own) =>
        this.isConverted(plan)
          ? this.convertedStretch(plan, own, offset, limit, without)
          : this.readListing(plan, own, offset, limit, without),
    );
    validity.tell(list.validity.until);
    validity.tell(list.validity.since);
    return { ids: list.ids, total: list.total };
  }

  private readListing(
    plan: ListingPlan,
    validity: Validity,
    offset: number,
    limit: number,
    without: readonly string[],
  ): { ids: string[]; total: number } {
    const sql = this.sqlOf(plan, validity.at, without);
    if (!sql) return { ids: [], total: 0 };
    const { from, params, order, read } = sql;
    const ids = this.sql<string>(`SELECT r.entry ${from} ORDER BY ${order} LIMIT ? OFFSET ?`)
      .pluck()
      .all(...params, limit, offset);
    const whole = ids.length < limit && (ids.length > 0 || offset === 0);
    const total = whole
      ? offset + ids.length
      : this.sql<number>(`SELECT count(*) ${from}`)
          .pluck()
          .get(...params)!;
    this.tellListing(plan, validity, this.leastIn(read));
    return { ids, total };
  }

  /** The least value from one on that a column of a table has. */
  private leastIn(table: string): (column: Column, from: number) => number | null {
    return (column, from) => {
      const name = cellColumn(column);
      const sql = `SELECT min(${name}) FROM ${table} WHERE ${name} >= ?`;
      return this.sql<number | null>(sql).pluck().get(from)!;
    };
  }

  /** As of `SiteReader`. */
  neighbours(
    plan: ListingPlan,
    row: ListingRow,
    validity: Validity,
    without: readonly string[] = [],
  ): Neighbours {
    if (this.isConverted(plan)) return this.neighboursConverted(plan, row, validity, without);
    const sql = this.sqlOf(plan, validity.at, without);
    if (!sql) return { isIn: false, before: null, after: null };
    this.tellListing(plan, validity, this.leastIn(sql.read));
    const { same, before, after } = around(plan, row);
    const first = (where: { sql: string; params: unknown[]; order?: string }): string | null => {
      const order = where.order === undefined ? '' : ` ORDER BY ${where.order}`;
      const text = `SELECT r.entry ${sql.from} AND ${where.sql}${order} LIMIT 1`;
      return (
        this.sql<string>(text)
          .pluck()
          .get(...sql.params, ...where.params) ?? null
      );
    };
    return {
      isIn: first(same) !== null,
      before: firstOf(before, first),
      after: firstOf(after, first),
    };
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

  /** A list without some entries in SQL; null where no release has its type so far. */
  private sqlOf(
    plan: ListingPlan,
    at: Instant,
    without: readonly string[],
  ): (ListingSql & { read: string }) | null {
    const indexed = hasListingIndex(this.connection, plan);
    const table = indexed ? null : tableSeen(this.connection, plan.type);
    if (!indexed && table === null) return null;
    const sql = listingSql(plan, at, this.settled, this.subjects.at(at), table);
    const all = { ...sql, read: table ?? indexTable(plan.type) };
    if (without.length === 0) return all;
    const from = `${all.from} AND r.entry NOT IN (${without.map(() => '?').join(', ')})`;
    return { ...all, from, params: [...all.params, ...without] };
  }

  /** How many entries of a listing come before a row in its order; some may be left out. */
  preceding(
    plan: ListingPlan,
    row: ListingRow,
    { at }: Validity,
    without: readonly string[] = [],
  ): number {
    if (this.isConverted(plan))
      return this.precedingConverted(plan, row, new Validity(at), without);
    const sql = this.sqlOf(plan, at, without);
    if (!sql) return 0;
    const before = comesBefore(plan, row);
    return this.sql<number>(`SELECT count(*) ${sql.from} AND ${before.sql}`)
      .pluck()
      .get(...sql.params, ...before.params)!;
  }

  private precedingConverted(
    plan: ListingPlan,
    row: ListingRow,
    validity: Validity,
    without: readonly string[],
  ): number {
    const { ids } = this.convertedStretch(plan, validity, 0, Infinity, without);
    const order = totalOrder(plan.sort);
    let [from, to] = [0, ids.length];
    while (from < to) {
      const middle = (from + to) >> 1;
      const entry = this.entries.liveEntries([ids[middle]!], validity).get(ids[middle]!)!;
      if (order(rowOf(entry), row) < 0) from = middle + 1;
      else to = middle;
    }
    return from;
  }

  /** Whether a list is over a field whose column is not there, or holds something else. */
  private isConverted(plan: ListingPlan): boolean {
    const { connection } = this;
    return (
      readsComputedOtherwise(connection, plan, this.site.design.site) ||
      (!hasListingIndex(connection, plan) && readsConverted(connection, plan))
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
      const list = new ConvertedList(this.connection, plan, own.at, this.site.design.site);
      this.tellListing(plan, own, (column, from) => list.leastFrom(column, from));
      const ids = list.ids(this.subjects.at(own.at));
      return { ids, total: ids.length };
    });
    validity.tell(whole.validity.until);
    validity.tell(whole.validity.since);
    const ids = whole.ids.filter((id) => !without.includes(id));
    return { ids: ids.slice(offset, offset + limit), total: ids.length };
  }

  /**
   * The next bound in every source type, matching or not, and the next crossing of each relative
   * filter.
   */
  private tellListing(
    plan: ListingPlan,
    validity: Validity,
    leastFrom: (column: Column, from: number) => number | null,
  ): void {
    const { at } = validity;
    for (const type of this.sourceTypes(plan)) this.tellBounds(type, validity);
    validity.tell(nextDayCrossing(plan, at));
    for (const { column } of conditionsOf(plan.filter))
      if (column.target?.of === 'subjects') this.subjects.tellShape(column.target.set, validity);
    for (const { column, ms } of movingComparisons(plan))
      validity.tell(crossingOf(leastFrom(column, at + ms), ms, at));
  }

  private sourceTypes(plan: ListingPlan): ContentType[] {
    const keys = new Set([plan.type.key]);
    for (const { column } of conditionsOf(plan.filter)) {
      if (column.target?.of === 'entries')
        for (const key of column.target.types ?? this.site.typesByKey.keys()) keys.add(key);
    }
    const types = [...keys].flatMap((key) => this.site.typesByKey.get(key) ?? []);
    // A type that no release has so far has no rows.
    return types.filter((type) => tableSeen(this.connection, type) !== null);
  }

  private tellBounds(type: ContentType, validity: Validity): void {
    const { at } = validity;
    const table = indexTable(type);
    validity.tell(
      this.sql<number | null>(`SELECT min(starts) FROM ${table} WHERE starts > ?`).pluck().get(at)!,
    );
    validity.tell(
      this.sql<number | null>(`SELECT min(ends) FROM ${table} WHERE ends > ?`).pluck().get(at)!,
    );
    validity.tell(
      this.sql<number | null>(`SELECT max(starts) FROM ${table} WHERE starts <= ?`)
        .pluck()
        .get(at)!,
    );
    validity.tell(
      this.sql<number | null>(`SELECT max(ends) FROM ${table} WHERE ends <= ?`).pluck().get(at)!,
    );
  }

  private sql<Row>(text: string): Statement<Row> {
    return statement<Row>(this.connection, text);
  }
}

/** The first that something is found by; null where nothing is. */
function firstOf<T>(all: readonly T[], find: (one: T) => string | null): string | null {
  for (const one of all) {
    const found = find(one);
    if (found !== null) return found;
  }
  return null;
}
