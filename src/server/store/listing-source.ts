import type { Instant } from '@/core/time/interval.ts';
import type { ContentType } from '@/core/design/spec.ts';
import {
  type Condition,
  type FilterWorld,
  type ListingPlan,
  type Search,
  conditionsOf,
} from '@/core/listing/plan.ts';
import { entriesNamed } from '@/core/listing/resolve.ts';
import { indexTable, memberTable, quoted } from './index-columns.ts';
import { type LeadingMember, isOfField, listingIndex } from './listing-index.ts';
import { foundTable, wordQuery, wordTable } from './word-tables.ts';

/** As of when and over what a listing is read. */
export interface ReadAt {
  at: Instant;
  /** The last write's instant, before which the partial indexes say nothing. */
  settled: Instant;
  world: FilterWorld;
  /**
   * The index table as the plan's design reads it; null where the database has the listing's own
   * index, and with it all that the table and the member table have.
   */
  table: string | null;
  /** The index table of a type that references lead to, as the design reads it; null for none. */
  tableOf: (type: ContentType) => string | null;
  /** Whether the table of words has all that a search asks besides words. */
  hasAllBeside?: boolean;
  /** Of what is searched for: all that is found, those called so, or the others. */
  found?: Found;
}

/** Of what is searched for: all that is found, those that are called so, or the others. */
export type Found = 'all' | 'called' | 'others';

/** The rows of a type by the list's own index; null where SQLite finds to it by itself. */
export function orderedSource(plan: ListingPlan): string | null {
  const index = conditionsOf(plan.filter).some(({ through }) => through) && listingIndex(plan);
  if (!index) return null;
  return `${indexTable(plan.type)} AS r INDEXED BY ${quoted(index.name)} WHERE `;
}

/** The rows of a field's members that have one key. */
export function ofMember(
  plan: ListingPlan,
  leading: LeadingMember,
  { isOpen, world, params }: { isOpen: boolean; world: FilterWorld; params: unknown[] },
): string {
  // Without statistics the planner would take the primary key, which is in another order.
  const index = isOpen ? listingIndex(plan) : null;
  const by = index ? ` INDEXED BY ${quoted(index.name)}` : '';
  params.push(keyOf(leading, world));
  return `${memberTable(plan.type)} AS r${by} WHERE r.${isOfField(leading)} AND r.key = ? AND ${isOpen ? '' : 'r.own = 1 AND '}`;
}

/** The rows of a type, those alone that are named or found, looked up one by one. */
export function ofTypes(
  { type, search }: ListingPlan,
  { world, table, hasAllBeside = false, found = 'all' }: ReadAt,
  { named, params }: { named: Condition | null; params: unknown[] },
): string {
  const sources: { sql: string; on: string }[] = [];
  const rows = search && hasAllBeside ? wordTable(type) : (table ?? indexTable(type));
  const words = `${wordTable(type)} AS ${hasAllBeside ? 'r' : 'w'}`;
  if (search)
    sources.push(
      { sql: `(${foundRows(type, search, { found, params })}) AS f`, on: '' },
      { sql: words, on: ` ON ${hasAllBeside ? 'r' : 'w'}.id = f.id` },
    );
  if (named) {
    params.push(JSON.stringify(entriesNamed(named, world)));
    const on = search ? ` ON j.value = ${hasAllBeside ? 'r' : 'w'}.entry` : '';
    sources.push({ sql: 'json_each(?) AS j', on });
  }
  if (!search || !hasAllBeside) {
    const ofEntry = search ? 'w.entry AND r.starts = w.starts' : 'j.value';
    const on = sources.length > 0 ? ` ON r.entry = ${ofEntry}` : '';
    sources.push({ sql: `${rows} AS r`, on });
  }
  return `${sources.map((s) => `${s.sql}${s.on}`).join(' CROSS JOIN ')} WHERE `;
}

/** The numbers of words that are found; of all, whether what they are of is called otherwise. */
function foundRows(
  type: ContentType,
  { text, fields, naming }: Search,
  { found, params }: { found: Found; params: unknown[] },
): string {
  const table = foundTable(type);
  const matching = `SELECT rowid FROM ${table} WHERE ${table} MATCH ?`;
  const [all, called] = [wordQuery(text, fields), naming && wordQuery(text, [naming])];
  const read = `SELECT rowid AS id FROM ${table} WHERE ${table} MATCH ?`;
  if (called === null) {
    params.push(all);
    return found === 'called' ? `${read} AND 0` : read;
  }
  if (found === 'called') {
    params.push(called);
    return read;
  }
  // Asked of all at once: looked up one by one it would cost the square of what is found.
  if (found === 'others') {
    params.push(all, called);
    return `${read} AND rowid NOT IN (${matching})`;
  }
  params.push(called, all);
  return `SELECT rowid AS id, rowid NOT IN (${matching}) AS away FROM ${table} WHERE ${table} MATCH ?`;
}

/**
 * Whether a list is read by its member: the rows of merged keys stand under the key that they count
 * as now, so at earlier instants only where no other key counts as the wanted one.
 */
export function isLeading(
  { condition, key }: LeadingMember,
  isOpen: boolean,
  subjects: FilterWorld,
): boolean {
  const { target } = condition.column;
  return isOpen || target?.of !== 'subjects' || subjects.keysWithin(target.set, key).length <= 1;
}

/** The key under which what counts as the wanted one stands; none where nothing does. */
export function keyOf({ condition, key }: LeadingMember, subjects: FilterWorld): string {
  const { target } = condition.column;
  return target?.of === 'subjects' ? (subjects.keysWithin(target.set, key)[0] ?? '') : key;
}
