import type { Instant } from '../time/interval.ts';
import { resolveRelative } from '../time/parse.ts';
import { addDays, calendarDay, dayStart } from '../time/zone.ts';
import { unitOf } from '../time/unit.ts';
import type { ContentType } from '../design/spec.ts';
import type { Column } from './columns.ts';
import { type Bound, relativesOf } from './operand.ts';
import { type Condition, DENIED, type Filter, type FilterWorld } from './plan.ts';

/**
 * A condition as of an instant, reduced to what memory and SQL both do. `negated` holds where the
 * cell is blank; the others do not. Ranges are half-open.
 */
export type Test =
  | {
      kind: 'compare';
      column: Column;
      op: '=' | '<' | '<=' | '>' | '>=';
      value: string | number;
      negated: boolean;
    }
  | { kind: 'range'; column: Column; from: number; to: number; negated: boolean }
  /** Month and day `MM-dd`, of whatever year, in a zone. */
  | { kind: 'anniversary'; column: Column; day: string; zone: string }
  | { kind: 'text'; column: Column; op: 'contains' | 'starts' | 'word'; value: string }
  /** Whether it is one of some entries, which stand in their order. */
  | { kind: 'identity'; column: Column; entries: readonly string[]; negated: boolean }
  /** Whether it leads to a live entry that passes what is asked of its type, by the type's id. */
  | { kind: 'through'; column: Column; by: ReadonlyMap<string, LedThrough> }
  /** Each list of keys is one wanted thing with all that counts as it. */
  | { kind: 'members'; column: Column; op: 'any' | 'all' | 'none'; keys: string[][] }
  /** Keys that are gone count as nothing. */
  | { kind: 'blank'; column: Column; wanted: boolean; gone: readonly string[] };

/** What is asked of entries of a type that a reference leads to. */
export interface LedThrough {
  type: ContentType;
  filter: ResolvedFilter;
}

/** A filter as of an instant. */
export type ResolvedFilter =
  | (Test & { condition: Condition })
  | {
      kind: 'group';
      op: 'all' | 'any' | 'none';
      filters: ResolvedFilter[];
      /** What asks all of it, where that is one condition. */
      condition?: Condition;
    };

/** A site in which nothing lies within anything else, and nobody stands in picks. */
export const EMPTY_WORLD: FilterWorld = {
  keysWithin: (_, key) => [key],
  gone: () => [],
  picked: () => [],
};

/** Puts in what a filter's relative dates and categories stand for as of an instant. */
export function resolveFilter(
  filter: Filter,
  at: Instant,
  zone: string,
  world: FilterWorld,
): ResolvedFilter {
  if (filter.kind !== 'condition')
    return {
      kind: 'group',
      op: filter.kind,
      filters: filter.filters.map((f) => resolveFilter(f, at, zone, world)),
    };
  const told = (test: Test): ResolvedFilter => ({ ...test, condition: filter });
  const parts = filter.through ? ledThrough(filter, at, zone, world) : partsOf(filter, at, zone);
  if (!parts) return told(resolveCondition(filter, at, zone, world));
  const { op, tests } = parts;
  return { kind: 'group', op, filters: tests.map(told), condition: filter };
}

/** What a condition asks at once. */
interface Parts {
  op: 'all' | 'any' | 'none';
  tests: Test[];
}

function ledThrough(
  { column, op, through = [] }: Condition,
  at: Instant,
  zone: string,
  world: FilterWorld,
): Parts {
  const by = through.map(({ type, condition }) => {
    const filter = resolveFilter(condition, at, zone, world);
    return [type.id, { type, filter }] as const;
  });
  const test: Test = { kind: 'through', column, by: new Map(by) };
  return { op: DENIED[op] ? 'none' : 'all', tests: [test] };
}

/** A condition that asks several things at once; null for others. */
function partsOf({ column, op, operand }: Condition, at: Instant, zone: string): Parts | null {
  const test = (how: Condition['op'], bound: Bound): Test =>
    compareBound(column, how, bound, at, zone);
  switch (operand.kind) {
    case 'several': {
      const tests = operand.values.map((value) => test('is', { kind: 'scalar', value }));
      return { op: DENIED[op] ? 'none' : 'any', tests };
    }
    case 'page':
      return { op: DENIED[op] ? 'none' : 'any', tests: [] };
    case 'between': {
      const isNumber = column.family === 'number';
      const [least, most] = isNumber
        ? (['at-least', 'at-most'] as const)
        : (['on-or-after', 'on-or-before'] as const);
      return { op: 'all', tests: [test(least, operand.from), test(most, operand.to)] };
    }
    case 'within': {
      const ends = relativesOf(op, operand).map((value) => ({ kind: 'relative' as const, value }));
      const [from, to] = op === 'within-last' ? ends.reverse() : ends;
      return { op: 'all', tests: [test('on-or-after', from!), test('on-or-before', to!)] };
    }
    case 'unit': {
      const { from, to } = unitOf(operand.unit, calendarDay(at, zone));
      const tests = [
        test('on-or-after', { kind: 'day', day: from }),
        test('before', { kind: 'day', day: to }),
      ];
      return { op: 'all', tests };
    }
    default:
      return null;
  }
}

function resolveCondition(
  condition: Condition,
  at: Instant,
  zone: string,
  world: FilterWorld,
): Test {
  const { column, op, operand } = condition;
  if (op === 'blank' || op === 'not-blank') {
    const { target } = column;
    const gone = target?.of === 'subjects' ? world.gone(target.set) : [];
    return { kind: 'blank', column, wanted: op === 'blank', gone };
  }
  if (op === 'on-this-day')
    return { kind: 'anniversary', column, day: calendarDay(at, zone).slice(-5), zone };
  if (column.family === 'identity') return identity(condition, world);
  if (operand.kind === 'keys') return members(condition, operand.keys, world);
  const how = TEXT[op];
  if (how !== undefined) return { kind: 'text', column, op: how, value: scalar(operand) as string };
  return compareBound(column, op, operand as Bound, at, zone);
}

const TEXT: Partial<Record<Condition['op'], Extract<Test, { kind: 'text' }>['op']>> = {
  contains: 'contains',
  'starts-with': 'starts',
  'has-word': 'word',
};

function compareBound(
  column: Column,
  op: Condition['op'],
  bound: Bound,
  at: Instant,
  zone: string,
): Test {
  if (bound.kind === 'scalar') {
    const value = typeof bound.value === 'boolean' ? Number(bound.value) : bound.value;
    return compare(column, op, value);
  }
  const moment = bound.kind === 'relative' ? resolveRelative(bound.value, at, zone) : bound;
  if ('instant' in moment) return compare(column, op, moment.instant);
  return column.family === 'day'
    ? compare(column, op, moment.day)
    : byDay(column, op, moment.day, zone);
}

function scalar(operand: Condition['operand']): unknown {
  return operand.kind === 'scalar' ? operand.value : '';
}

const COMPARE = {
  is: '=',
  'is-not': '=',
  'less-than': '<',
  before: '<',
  'at-most': '<=',
  'on-or-before': '<=',
  'more-than': '>',
  after: '>',
  'at-least': '>=',
  'on-or-after': '>=',
} as const;

function compare(column: Column, op: Condition['op'], value: string | number): Test {
  return {
    kind: 'compare',
    column,
    op: COMPARE[op as keyof typeof COMPARE],
    value,
    negated: op === 'is-not',
  };
}

/** A date-time compared with a day is compared by its own calendar day in the zone. */
function byDay(column: Column, op: Condition['op'], day: string, zone: string): Test {
  const from = dayStart(day, zone);
  const to = dayStart(addDays(day, 1), zone);
  switch (op) {
    case 'before':
      return { kind: 'compare', column, op: '<', value: from, negated: false };
    case 'on-or-before':
      return { kind: 'compare', column, op: '<', value: to, negated: false };
    case 'after':
      return { kind: 'compare', column, op: '>=', value: to, negated: false };
    case 'on-or-after':
      return { kind: 'compare', column, op: '>=', value: from, negated: false };
    default:
      return { kind: 'range', column, from, to, negated: op === 'is-not' };
  }
}

function identity(condition: Condition, world: FilterWorld): Test {
  const { column, op } = condition;
  const negated = op === 'is-not' || op === 'none-of';
  return { kind: 'identity', column, entries: entriesNamed(condition, world), negated };
}

/** The entries that a condition names, each once, in their order. */
export function entriesNamed({ column, operand }: Condition, world: FilterWorld): string[] {
  const keys = operand.kind === 'keys' ? operand.keys : [];
  const all = column.target?.of === 'picks' ? keys.flatMap((k) => world.picked(k)) : keys;
  return [...new Set(all)];
}

function members({ column, op }: Condition, keys: string[], world: FilterWorld): Test {
  const { target } = column;
  const expanded = keys.map((key) =>
    target?.of === 'subjects' ? world.keysWithin(target.set, key) : [key],
  );
  const how = op === 'all-of' ? 'all' : op === 'none-of' || op === 'is-not' ? 'none' : 'any';
  return { kind: 'members', column, op: how, keys: expanded };
}
