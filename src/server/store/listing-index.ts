import type { Connection } from '../db/connection.ts';
import type { ContentType } from '@/core/design/spec.ts';
import { type Column, LISTED } from '@/core/listing/columns.ts';
import { type Condition, type ListingPlan, conditionsOf, namedBy } from '@/core/listing/plan.ts';
import { fingerprint } from '@/core/fingerprint.ts';
import {
  cellColumn,
  indexTable,
  isManyValued,
  memberTable,
  named,
  namesOf,
  orderTerms,
  quoted,
} from './index-columns.ts';
import { bySchema } from './schema-memory.ts';
import { statement } from './statement.ts';

/** A condition by one key of a field with many values. */
export interface LeadingMember {
  condition: Condition;
  key: string;
}

/**
 * The condition that a listing is read by: one key of a field with many values, where all entries
 * must have it. The member table then repeats what the listing filters and sorts by, so that its
 * index is read in order instead of looking into every entry.
 */
export function leadingMember(plan: ListingPlan): LeadingMember | null {
  for (const condition of required(plan.base ?? plan)) {
    const { column, op, operand } = condition;
    const one = op === 'is' || op === 'any-of' || op === 'all-of';
    if (
      one &&
      operand.kind === 'keys' &&
      operand.keys.length === 1 &&
      isManyValued(column) &&
      isOneKey(column)
    )
      return { condition, key: operand.keys[0]! };
  }
  return null;
}

/**
 * The field that a listing is read by, in SQL without a parameter: so its index has the rows of
 * this field alone, and reading it in order compares no more than the key.
 */
export function isOfField({ condition }: LeadingMember): string {
  return `field = ${literal(condition.column.field!.id)}`;
}

/** A text as it stands in SQL. */
export function literal(text: string): string {
  return `'${text.replaceAll("'", "''")}'`;
}

/**
 * Whether a wanted key stands for itself alone: no categories below it, no liveness of what it
 * names.
 */
function isOneKey({ target }: Column): boolean {
  return target === null || (target.of === 'subjects' && !target.tree);
}

/** Whether a column stands in the tables, where a type has it. */
function isStored({ family, isAbsent, target }: Column): boolean {
  return family !== 'identity' && !isAbsent && target?.of !== 'people';
}

/** The conditions that every entry of a listing fulfils. */
function required({ filter }: ListingPlan): Condition[] {
  const fixed = filter.kind === 'all' ? filter.filters : [filter];
  return fixed.filter((f) => f.kind === 'condition');
}

/**
 * What the member table repeats of the index table: all that listings read by a member filter and
 * sort by.
 */
export function repeatedColumns(type: ContentType, plans: ListingPlan[]): string[] {
  const led = plans.filter((plan) => leadingMember(plan) !== null);
  return led.length === 0 ? [] : ['open', ...askedOf(led)];
}

/** As `repeatedColumns`, for the table of the words that visitors search. */
export function wordsBeside(plans: ListingPlan[]): string[] {
  const searched = plans.filter(({ visitor }) => visitor && visitor.search.length > 0);
  return searched.length === 0 ? [] : askedOf(searched);
}

/** The columns by which some listings filter and sort, with bounds and times. */
export function askedOf(plans: ListingPlan[]): string[] {
  const used = plans
    .flatMap((plan) => [
      ...[...conditionsOf(plan.filter), ...plan.sort].map(({ column }) => column),
      ...(plan.visitor?.filters ?? []),
      ...(plan.each ? [plan.each.column] : []),
    ])
    .filter((c) => isStored(c) && (c.field !== null || c.shown || c.name === LISTED.name));
  return [...new Set(['ends', 'created', 'published', 'updated', ...used.flatMap(namesOf)])];
}

/**
 * Fixed values first, then the sort keys in their order, then what makes the order total and the
 * bounds. Null for a listing whose entries are named: they are looked up one by one.
 */
export function listingIndex(plan: ListingPlan): { name: string; sql: string } | null {
  if (plan.base) return listingIndex(plan.base);
  if (namedBy(plan.filter)) return null;
  const leading = leadingMember(plan);
  const fixed = required(plan).filter(
    (c) => c !== leading?.condition && !isManyValued(c.column) && isStored(c.column),
  );
  const equal = fixed.flatMap((c) =>
    c.op === 'is' &&
    !c.through &&
    isStored(c.column) &&
    c.operand.kind !== 'relative' &&
    c.column.family !== 'instant'
      ? [cellColumn(c.column)]
      : [],
  );
  const order = plan.sort.flatMap((key) => orderTerms(key));
  const asked = [...fixed.map(({ column }) => column), ...(plan.visitor?.filters ?? [])];
  const rest = asked.filter((c) => isStored(c) && !isManyValued(c)).map(cellColumn);
  const seen = new Set<string>();
  const columns = [
    ...(leading ? ['key'] : []),
    ...equal,
    ...order,
    'created',
    'entry',
    'starts',
    'ends',
    ...rest,
  ].filter((c) => {
    const name = c.replace(/ DESC$/, '');
    return seen.has(name) ? false : (seen.add(name), true);
  });
  const table = leading ? memberTable(plan.type) : indexTable(plan.type);
  const which = leading ? ` AND ${isOfField(leading)}` : '';
  const on = `${table} (${columns.join(', ')}) WHERE open = 1${which}`;
  // Designs that hold one after the other may read one listing by different indexes.
  const name = `listing.${named(plan.index ?? plan.listing.id)}.${fingerprint(on)}`;
  return { name, sql: `CREATE INDEX ${quoted(name)} ON ${on}` };
}

const names = new WeakMap<ListingPlan, string>();

/** Whether the database has the index that a listing, in one of its types, is read by. */
export function hasListingIndex(connection: Connection, plan: ListingPlan): boolean {
  const by = plan.base ?? plan;
  let name = names.get(by);
  if (name === undefined) names.set(by, (name = listingIndex(by)?.name ?? ''));
  return bySchema(connection, name, () => {
    const sql = `SELECT 1 FROM sqlite_master WHERE type = 'index' AND name = ?`;
    return statement(connection, sql).get(name) !== undefined;
  });
}
