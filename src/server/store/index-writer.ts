import { ownPresets } from '@/core/design/presets.ts';
import type { ContentType } from '@/core/design/spec.ts';
import { type Column, LISTED, type ListingRow, cell, sortCell } from '@/core/listing/columns.ts';
import type { ListingPlan } from '@/core/listing/plan.ts';
import { searchedText } from '@/core/listing/search.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import {
  LISTED_COLUMN,
  SHOWN_COLUMN,
  cellColumn,
  indexTable,
  isManyValued,
  memberTable,
  namesOf,
  sortColumn,
  stored,
} from './index-columns.ts';
import { leadingMember, repeatedColumns, wordsBeside } from './listing-index.ts';
import { searchedFields, wordColumn, wordTable } from './word-tables.ts';

/** The key that a key of a set counts as by now: itself, or the one it was merged into. */
export type StandsFor = (set: string, key: string) => string;

/** Writes rows into a type's derived tables. */
export function indexWriter(
  { driver }: Connection,
  type: ContentType,
  plans: Iterable<ListingPlan>,
  standsFor: StandsFor,
): (row: ListingRow, revision: number, settled: Instant) => void {
  const columns = stored(type);
  const own = [...plans].filter((p) => p.type.id === type.id);
  const names = [...FIXED, ...columns.flatMap(namesOf)];
  const insert = driver.prepare(insertSql(indexTable(type), names));
  const writeMembers = memberWriter(driver, type, own, { names, standsFor });
  const writeWords = wordWriter(driver, type, own, names);
  return (row, revision, settled) => {
    const open = row.to === null || row.to > settled ? 1 : 0;
    const { entry, from, to, created, published, updated } = row;
    const values = columns.flatMap((c) =>
      sortColumn(c) === cellColumn(c) ? [sqlCell(row, c)] : [sqlCell(row, c), sortCell(row, c)],
    );
    const fixed = [entry, from, to, open, revision, created, published, updated];
    const own = [sqlCell(row, LISTED), ownPresets(row.values).date ?? null];
    const all = [...fixed, ...own, ...values];
    insert.run(...all);
    writeMembers(row, all);
    if (open === 1) writeWords(row, all);
  };
}

/** Writes the words of a row that visitors search, with what searched lists ask of it. */
function wordWriter(
  driver: Connection['driver'],
  type: ContentType,
  plans: ListingPlan[],
  names: string[],
): (row: ListingRow, all: unknown[]) => void {
  const fields = searchedFields(type, plans);
  if (fields.length === 0) return () => undefined;
  const beside = ['entry', 'starts', ...wordsBeside(plans)];
  const places = beside.map((name) => names.indexOf(name));
  const into = [...beside, ...fields.map(wordColumn)];
  const insert = driver.prepare(insertSql(wordTable(type), into));
  return (row, all) =>
    void insert.run(
      ...places.map((i) => all[i]),
      ...fields.map((field) => searchedText(row, field)),
    );
}

/** The columns that every index table begins with. */
const FIXED = [
  ...['entry', 'starts', 'ends', 'open', 'revision', 'created', 'published', 'updated'],
  LISTED_COLUMN,
  SHOWN_COLUMN,
];

function insertSql(table: string, names: string[]): string {
  return `INSERT INTO ${table} (${names.join(', ')}) VALUES (${names.map(() => '?').join(', ')})`;
}

/**
 * Writes the members of a row's many-valued fields, with what the member table repeats of the
 * row. A key that was merged into another stands under that one as well, which is not its own.
 */
function memberWriter(
  driver: Connection['driver'],
  type: ContentType,
  plans: ListingPlan[],
  { names, standsFor }: { names: string[]; standsFor: StandsFor },
): (row: ListingRow, all: unknown[]) => void {
  const many = stored(type).filter(isManyValued);
  const led = new Set(plans.flatMap((plan) => leadingMember(plan)?.condition.column.name ?? []));
  const repeated = repeatedColumns(type, plans);
  const places = repeated.map((name) => names.indexOf(name));
  const none = repeated.map(() => null);
  const into = ['field', 'key', 'entry', 'starts', 'own', ...repeated];
  const insert = driver.prepare(
    `${insertSql(memberTable(type), into)} ON CONFLICT DO NOTHING`, // triggers do as they say
  );
  return (row, all) => {
    for (const column of many) {
      const more = led.has(column.name) ? places.map((i) => all[i]) : none;
      const keys = cell(row, column) as string[];
      const add = (key: string, own: 0 | 1): void =>
        void insert.run(column.field!.id, key, row.entry, row.from, own, ...more);
      for (const key of keys) add(key, 1);
      if (column.target?.of !== 'subjects') continue;
      for (const key of keys) add(standsFor(column.target.set, key), 0);
    }
  };
}

function sqlCell(row: ListingRow, column: Column): string | number | null {
  const value = cell(row, column);
  if (isManyValued(column)) return (value as unknown[]).length;
  const single = Array.isArray(value) ? (value[0] ?? null) : value;
  return typeof single === 'boolean' ? Number(single) : (single as string | number | null);
}
