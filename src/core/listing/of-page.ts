import type { Field } from '../design/field.ts';
import { kindOf } from '../design/kinds/index.ts';
import type { ContentType } from '../design/spec.ts';
import { type EntryView, valuesOf } from '../design/values.ts';
import { isBlank } from '../pattern/types.ts';
import { type Column, foldText } from './columns.ts';
import type { Operand } from './operand.ts';
import { allConditionsIn, inEach } from './parts.ts';
import type { Condition, Filter, ListingPlan } from './plan.ts';

/** An entry as listings on its page compare with it. */
export type PageEntry = Pick<EntryView, 'id' | 'type' | 'values'>;

/** What the page's entry itself is called among its fields. */
export const PAGE_ENTRY = 'entry';

/** The conditions of a listing that compare with what the page's entry has, each with its field. */
export function pageConditions(plan: ListingPlan): { condition: Condition; field: string }[] {
  return allConditionsIn(plan).flatMap((condition) => {
    const { operand } = condition;
    return operand.kind === 'page' ? [{ condition, field: operand.field }] : [];
  });
}

/** Whether a column can be compared with what a field of the page's entry has. */
export function canCompare({ family, target }: Column, field: Field): boolean {
  const kind = kindOf(field);
  if (family === 'members' || family === 'identity') {
    const of = kind.target(field);
    if (target?.of === 'subjects') return of?.of === 'subjects' && of.set === target.set;
    return target?.of === 'entries' && of?.of === 'entries';
  }
  const isOne = !field.many || family === 'choice' || family === 'text' || family === 'number';
  return family !== 'presence' && kind.family === family && isOne;
}

/** At most so many lists are kept ready for a listing. */
const MOST_KEPT = 5000;
const kept = new WeakMap<ListingPlan, Map<string, ListingPlan>>();

/**
 * A listing as it is on the page of an entry, or on one of none: what its conditions compare with
 * of the page's entry stands in them.
 */
export function onPageOf(plan: ListingPlan, entry: PageEntry | null): ListingPlan {
  const conditions = pageConditions(plan);
  if (conditions.length === 0) return plan;
  const read = [...new Set(conditions.map(({ field }) => field))].map(
    (field) => [field, entry === null ? [] : readOf(entry, field)] as const,
  );
  const name = JSON.stringify(read);
  let known = kept.get(plan);
  if (!known) kept.set(plan, (known = new Map<string, ListingPlan>()));
  let made = known.get(name);
  if (!made) {
    if (known.size >= MOST_KEPT) known.clear();
    made = inEach(plan, (part) => bound(part, new Map(read), name));
    known.set(name, made);
  }
  return made;
}

/** A value of the page's entry, and what kind its field is of; options by their keys. */
type Read = readonly (string | number | boolean)[];

function readOf(entry: PageEntry, name: string): Read {
  if (name === PAGE_ENTRY) return [entry.id];
  const field = entry.type.fields.find(({ key }) => key === name);
  if (!field) return [];
  const values = valuesOf(entry.values, field.id).filter((v) => !isBlank(v)) as Read;
  const { options } = field;
  return options ? values.flatMap((id) => options.find((o) => o.id === id)?.key ?? []) : values;
}

function bound(part: ListingPlan, read: ReadonlyMap<string, Read>, name: string): ListingPlan {
  const { listing } = part;
  return {
    ...part,
    listing: { ...listing, id: `${listing.id} on ${name}` },
    filter: boundFilter(part.filter, read),
    base: part.base ?? part,
  };
}

function boundFilter(filter: Filter, read: ReadonlyMap<string, Read>): Filter {
  if (filter.kind !== 'condition')
    return { ...filter, filters: filter.filters.map((inner) => boundFilter(inner, read)) };
  return boundCondition(filter, read);
}

function boundCondition(condition: Condition, read: ReadonlyMap<string, Read>): Condition {
  const { column, op, operand, through } = condition;
  if (through)
    return {
      ...condition,
      through: through.map((t) => ({ ...t, condition: boundCondition(t.condition, read) })),
    };
  if (operand.kind !== 'page') return condition;
  const values = read.get(operand.field) ?? [];
  // Compared with nothing it stays what it is, and says so.
  return values.length === 0 ? condition : { ...condition, operand: operandOf(column, op, values) };
}

/** Operators that compare with several values, and those that may. */
const SEVERAL: ReadonlySet<string> = new Set(['any-of', 'none-of']);
const EQUAL: ReadonlySet<string> = new Set(['is', 'is-not']);

function operandOf({ family, field }: Column, op: Condition['op'], values: Read): Operand {
  switch (family) {
    case 'members':
    case 'identity':
      return { kind: 'keys', keys: values.map(String) };
    case 'choice': {
      const options = field?.options ?? [];
      const ids = values.map((key) => options.find((o) => o.key === key)?.id ?? '');
      return { kind: 'keys', keys: ids };
    }
    case 'day':
      return { kind: 'day', day: String(values[0]) };
    case 'instant':
      return { kind: 'instant', instant: Number(values[0]) };
    default: {
      const own = values.map((v) => (typeof v === 'string' ? foldText(v) : v));
      return SEVERAL.has(op) || (EQUAL.has(op) && own.length > 1)
        ? { kind: 'several', values: own as (string | number)[] }
        : { kind: 'scalar', value: own[0]! };
    }
  }
}

/** The fields of types by which their entries' pages can show a listing, and that they lack. */
export function lackingFor(plan: ListingPlan, type: ContentType): string[] {
  return pageConditions(plan).flatMap(({ condition, field: name }) => {
    if (name === PAGE_ENTRY) return fitsEntry(condition.column) ? [] : [name];
    const field = type.fields.find(({ key }) => key === name);
    return field && canCompare(condition.column, field) ? [] : [name];
  });
}

function fitsEntry({ target }: Column): boolean {
  return target?.of === 'entries';
}
