import type { Instant } from '../time/interval.ts';
import { resolveRelative } from '../time/parse.ts';
import { addDays, dayStart } from '../time/zone.ts';
import type { Column } from './columns.ts';
import type { Condition, Filter, SubjectTree } from './plan.ts';

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
  | { kind: 'text'; column: Column; op: 'contains' | 'starts'; value: string }
  /** Each list of keys is one wanted thing with all that counts as it. */
  | { kind: 'members'; column: Column; op: 'any' | 'all' | 'none'; keys: string[][] }
  /** Keys that are gone count as nothing. */
  | { kind: 'blank'; column: Column; wanted: boolean; gone: readonly string[] };

/** A filter as of an instant. */
export type ResolvedFilter =
  | (Test & { condition: Condition })
  | { kind: 'group'; op: 'all' | 'any' | 'none'; filters: ResolvedFilter[] };

/** Puts in what a filter's relative dates and categories stand for as of an instant. */
export function resolveFilter(
  filter: Filter,
  at: Instant,
  zone: string,
  subjects: SubjectTree,
): ResolvedFilter {
  if (filter.kind !== 'condition')
    return {
      kind: 'group',
      op: filter.kind,
      filters: filter.filters.map((f) => resolveFilter(f, at, zone, subjects)),
    };
  return { ...resolveCondition(filter, at, zone, subjects), condition: filter };
}

function resolveCondition(
  condition: Condition,
  at: Instant,
  zone: string,
  subjects: SubjectTree,
): Test {
  const { column, op, operand } = condition;
  if (op === 'blank' || op === 'not-blank') {
    const { target } = column;
    const gone = target?.of === 'subjects' ? subjects.gone(target.set) : [];
    return { kind: 'blank', column, wanted: op === 'blank', gone };
  }
  if (operand.kind === 'keys') return members(condition, operand.keys, subjects);
  if (op === 'contains' || op === 'starts-with')
    return {
      kind: 'text',
      column,
      op: op === 'contains' ? 'contains' : 'starts',
      value: scalar(operand) as string,
    };
  if (operand.kind === 'scalar') {
    const value = typeof operand.value === 'boolean' ? Number(operand.value) : operand.value;
    return compare(column, op, value);
  }
  const moment =
    operand.kind === 'relative'
      ? resolveRelative(operand.value, at, zone)
      : operand.kind === 'day'
        ? { day: operand.day }
        : { instant: (operand as { instant: Instant }).instant };
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

function members({ column, op }: Condition, keys: string[], subjects: SubjectTree): Test {
  const { target } = column;
  const expanded = keys.map((key) =>
    target?.of === 'subjects' ? subjects.keysWithin(target.set, key) : [key],
  );
  const how = op === 'all-of' ? 'all' : op === 'none-of' || op === 'is-not' ? 'none' : 'any';
  return { kind: 'members', column, op: how, keys: expanded };
}
