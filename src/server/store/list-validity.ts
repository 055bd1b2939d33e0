import {
  crossingOf,
  movingComparisons,
  movingIn,
  nextDayCrossing,
} from '@/core/listing/crossing.ts';
import { allConditionsIn, partsOf, throughIn } from '@/core/listing/parts.ts';
import { type Condition, type ListingPlan, countedColumns } from '@/core/listing/plan.ts';
import type { Column } from '@/core/listing/columns.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { Validity } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { cellColumn, indexTable } from './index-columns.ts';
import { tableSeen } from './index-tables.ts';
import { type ListMemory, told } from './list-memory.ts';
import { tellPicks } from './picks.ts';
import { statement } from './statement.ts';
import type { SubjectsOver } from './subject-store.ts';

/** The least value from one on that a column has, in whatever a list is read from. */
type LeastFrom = (column: Column, from: number) => number | null;

/** Tells since and until when lists of a stored site certainly stay as they are. */
export class ListValidity {
  private readonly connection: Connection;
  private readonly site: CompiledSite;
  private readonly subjects: SubjectsOver;
  private readonly memory: ListMemory;

  constructor(source: {
    connection: Connection;
    site: CompiledSite;
    subjects: SubjectsOver;
    memory: ListMemory;
  }) {
    this.connection = source.connection;
    this.site = source.site;
    this.subjects = source.subjects;
    this.memory = source.memory;
  }

  /**
   * The next bound in every source type and in picks, matching or not, and the next midnight where
   * a filter speaks of today. `counted`: a column whose values are counted, by name.
   */
  tellShapes(plan: ListingPlan, validity: Validity, counted: string | null = null): void {
    const columns = [
      ...allConditionsIn(plan).map(({ column }) => column),
      ...partsOf(plan).flatMap((part) =>
        countedColumns(part).filter(({ name }) => name === counted),
      ),
    ];
    for (const type of this.sourceTypes(plan, columns)) this.tellBounds(type, validity);
    for (const part of partsOf(plan)) validity.tell(nextDayCrossing(part, validity.at));
    for (const { type, condition } of throughIn(plan)) this.tellLed(type, condition, validity);
    for (const { target } of columns)
      if (target?.of === 'subjects') this.subjects.tellShape(target.set, validity);
    for (const { column, operand } of allConditionsIn(plan))
      if (column.target?.of === 'picks' && operand.kind === 'keys')
        for (const picks of operand.keys) tellPicks(this.connection, picks, validity);
  }

  /** The next crossing of what is asked of entries that a reference leads to. */
  private tellLed(type: ContentType, condition: Condition, validity: Validity): void {
    const table = tableSeen(this.connection, type);
    if (table === null) return;
    for (const { column, ms } of movingIn([condition])) {
      const least = this.leastIn(table)(column, validity.at + ms);
      validity.tell(crossingOf(least, ms, validity.at));
      // What is converted on reading stands in no table.
      if (column.field?.replaces) validity.tell(validity.at + 1);
    }
  }

  /** The next crossing of each filter that moves with the clock, in one of a list's types. */
  tellMoving(part: ListingPlan, validity: Validity, leastFrom: LeastFrom): void {
    const { at } = validity;
    for (const { column, ms } of movingComparisons(part))
      validity.tell(crossingOf(leastFrom(column, at + ms), ms, at));
  }

  /** The least value from one on that a column of a table has. */
  leastIn(table: string): LeastFrom {
    return (column, from) => {
      const name = cellColumn(column);
      return this.instant(`SELECT min(${name}) FROM ${table} WHERE ${name} >= ?`, from);
    };
  }

  private sourceTypes(plan: ListingPlan, columns: readonly Column[]): ContentType[] {
    const keys = new Set(partsOf(plan).map(({ type }) => type.key));
    for (const { target } of columns)
      if (target?.of === 'entries')
        for (const key of target.types ?? this.site.typesByKey.keys()) keys.add(key);
    const types = [...keys].flatMap((key) => this.site.typesByKey.get(key) ?? []);
    // A type that no release has so far has no rows.
    return types.filter((type) => tableSeen(this.connection, type) !== null);
  }

  private tellBounds(type: ContentType, validity: Validity): void {
    const table = indexTable(type);
    const read = (own: Validity): void => this.readBounds(table, own);
    told(this.memory.remember(`bounds of ${table}`, validity.at, read), validity);
  }

  private readBounds(table: string, validity: Validity): void {
    for (const bound of [
      `min(starts) FROM ${table} WHERE starts > ?`,
      `min(ends) FROM ${table} WHERE ends > ?`,
      `max(starts) FROM ${table} WHERE starts <= ?`,
      `max(ends) FROM ${table} WHERE ends <= ?`,
    ])
      validity.tell(this.instant(`SELECT ${bound}`, validity.at));
  }

  private instant(sql: string, from: number): number | null {
    return statement<number | null>(this.connection, sql).pluck().get(from)!;
  }
}
