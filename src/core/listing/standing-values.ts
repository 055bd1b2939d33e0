import { isDerived } from '../design/computed.ts';
import type { Field } from '../design/field.ts';
import { literalsOf } from '../design/listing-spec.ts';
import type { Values } from '../design/values.ts';
import type { Instant } from '../time/interval.ts';
import { resolveRelative } from '../time/parse.ts';
import { addDays, calendarDay, dayStart } from '../time/zone.ts';
import { type ListingRow, columnsOf } from './columns.ts';
import { type Others, holds } from './evaluate.ts';
import type { Condition, Filter, ListingPlan, FilterWorld } from './plan.ts';
import { resolveFilter } from './resolve.ts';

/**
 * Values, by field id, with which a new entry of a listing's type stands in it as of an instant:
 * for each field that it asks of one that passes, where there is such a one to be made up.
 */
export function standingValues(plan: ListingPlan, at: Instant, subjects: FilterWorld): Values {
  const wanted = wantedOf(plan.filter);
  const values: Values = {};
  for (const column of columnsOf(plan.type).values()) {
    const own = wanted.filter((c) => c.column.name === column.name);
    const { field } = column;
    if (!field || isDerived(field) || own.length === 0) continue;
    const tries = own
      .flatMap((c) => valueFor(c, at, plan.zone) ?? [])
      .map((v) => inField(field, v));
    const tests = own.map((c) => resolveFilter(c, at, plan.zone, subjects));
    const passes = (value: unknown): boolean =>
      tests.every((test) => holds(test, rowWith(field, value, at), ALL_LIVE));
    const value = tries.find(passes) ?? tries[0];
    if (value !== undefined) values[field.id] = value;
  }
  return values;
}

/** What a new entry would refer to is taken to be there. */
const ALL_LIVE: Others = { isLive: () => true, row: () => null };

/** The conditions that an entry is to pass; of alternatives the first. */
function wantedOf(filter: Filter): Condition[] {
  if (filter.kind === 'condition') return filter.through ? [] : [filter];
  if (filter.kind === 'all') return filter.filters.flatMap(wantedOf);
  return filter.kind === 'any' && filter.filters[0] ? wantedOf(filter.filters[0]) : [];
}

const rowWith = (field: Field, value: unknown, at: Instant): ListingRow => ({
  ...{ entry: '', type: '', created: at, published: at, updated: at, from: at, to: null },
  values: { [field.id]: value },
});

/** One that holds several has it as a list. */
function inField({ many, kind }: Field, value: unknown): unknown {
  const isList = many === true || kind === 'tags';
  return isList ? [value].flat() : Array.isArray(value) ? value[0] : value;
}

/** What passes one condition; undefined where nothing can be made up. */
function valueFor(condition: Condition, at: Instant, zone: string): unknown {
  const { column, op, operand, spec } = condition;
  switch (operand.kind) {
    case 'none':
    case 'page':
      return undefined;
    case 'keys':
      return op === 'is-not' || op === 'none-of'
        ? undefined
        : op === 'all-of'
          ? [operand.keys]
          : operand.keys[0];
    case 'several':
      return op === 'none-of' ? undefined : literalsOf(spec)[0];
    case 'between':
      return valueFor({ ...condition, op: 'is', operand: operand.from }, at, zone);
    case 'within':
    case 'unit':
      return momentFor('is', { day: calendarDay(at, zone) }, column.family === 'instant', zone);
    case 'scalar':
      return scalarFor(
        op,
        typeof operand.value === 'string' ? (literalsOf(spec)[0] ?? operand.value) : operand.value,
      );
    case 'day':
      return momentFor(op, { day: operand.day }, column.family === 'instant', zone);
    case 'instant':
      return momentFor(op, { instant: operand.instant }, true, zone);
    case 'relative':
      return momentFor(
        op,
        resolveRelative(operand.value, at, zone),
        column.family === 'instant',
        zone,
      );
  }
}

function scalarFor(op: Condition['op'], value: unknown): unknown {
  if (op === 'is-not') return undefined;
  if (typeof value !== 'number') return value;
  return op === 'more-than' ? value + 1 : op === 'less-than' ? value - 1 : value;
}

const AFTER: Partial<Record<Condition['op'], number>> = { before: -1, after: 1 };

/** A day, or an instant in ms UTC. */
function momentFor(
  op: Condition['op'],
  moment: { day: string } | { instant: Instant },
  isInstant: boolean,
  zone: string,
): unknown {
  if (op === 'is-not') return undefined;
  const by = AFTER[op] ?? 0;
  if ('instant' in moment) {
    if (isInstant) return moment.instant + by * HOUR_MS;
    return addDays(calendarDay(moment.instant, zone), by);
  }
  const day = addDays(moment.day, by);
  return isInstant ? dayStart(day, zone) : day;
}

const HOUR_MS = 3_600_000;
