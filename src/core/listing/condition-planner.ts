import type { Issue } from '../issue.ts';
import { didYouMean, nearest, unknownName } from '../did-you-mean.ts';
import type { ContentType, Design, Picks } from '../design/spec.ts';
import {
  type ConditionSpec,
  type FilterSpec,
  conditionSpecs,
  groupOf,
} from '../design/listing-spec.ts';
import { type Column, ORDER_ALONE, absentOf, listedColumns } from './columns.ts';
import type { Operand } from './operand.ts';
import { OPERATORS_OF, OPERATOR_WORDS } from './operators.ts';
import { type Condition, DENIED, type Filter, type Through } from './plan.ts';
import { readOperand } from './read-operand.ts';

const MAX_CONDITIONS = 500;

/** What is wrong where a filter has more conditions than it may have. */
export function tooMany(where: FilterSpec | undefined): Issue[] {
  const count = conditionSpecs(where).length;
  if (count <= MAX_CONDITIONS) return [];
  return [
    {
      code: 'too-many-conditions',
      path: 'where',
      message: `A listing has at most ${MAX_CONDITIONS} conditions, and this one has ${count}.`,
      fix: 'Use "any-of" with several values in place of many conditions.',
    },
  ];
}

/**
 * Checks conditions against the columns they may ask of, by name; `filter` is null where anything
 * is wrong. `label` is what has those columns, in words.
 */
export function planFilter(
  where: FilterSpec,
  columns: Map<string, Column>,
  { label, zone }: { label: string; zone: string },
): { filter: Filter | null; issues: Issue[] } {
  const many = tooMany(where);
  if (many.length > 0) return { filter: null, issues: many };
  const site = { zone, name: '', url: '', strapline: '' };
  const names = { label, site, known: columns, picks: [], types: [], hasPage: false };
  const planner = new ConditionPlanner(columns, names);
  const filter = planner.filter(where, 'where');
  return { filter: planner.issues.length === 0 ? filter : null, issues: planner.issues };
}

/** What a planner looks up besides the columns of a type. */
export interface PlannerNames {
  /** What has the columns, in words. */
  label: string;
  site: Pick<Design['site'], 'zone' | 'name' | 'url' | 'strapline'>;
  /** The columns of all that is listed. */
  known: Map<string, Column>;
  picks: readonly Picks[];
  /** Those that references may lead to. */
  types: readonly ContentType[];
  /** Whether it may be compared with what the page's entry has. */
  hasPage: boolean;
}

/** Checks the conditions of one type, or of whatever has columns. */
export class ConditionPlanner {
  readonly issues: Issue[] = [];

  constructor(
    private readonly columns: Map<string, Column>,
    protected readonly names: PlannerNames,
  ) {}

  /** A filter as it is checked; null where anything is wrong with it. */
  filter(spec: FilterSpec, path: string): Filter | null {
    const group = groupOf(spec);
    if (!group) return this.condition(spec as ConditionSpec, path);
    const { kind } = group;
    const filters = group.filters
      .map((f, i) => this.filter(f, `${path}/${kind}/${i + 1}`))
      .filter((f) => f !== null);
    return { kind, filters };
  }

  protected column(name: string, path: string): Column | null {
    const own = this.columns.get(name);
    const known = this.names.known.get(name);
    if (own && (own === known || alike(own, known!))) return own;
    if (own)
      return this.fail(
        'types-differ',
        path,
        `${own.label} is not of the same kind in all the types listed.`,
        'Ask for it in lists of one type alone, or let the fields be alike.',
      );
    if (known) return absentOf(known);
    const names = [...this.columns.keys()];
    return this.fail(
      'unknown-field',
      path,
      `${this.names.label} has no field "${name}".`,
      didYouMean(name, names, `It has: ${names.slice(0, 20).join(', ')}.`),
      nearest(name, names),
    );
  }

  private condition(spec: ConditionSpec, path: string): Condition | null {
    const [, head, rest] = /^([^.]+)\.(.+)$/.exec(spec.field) ?? [];
    const { known, types } = this.names;
    const leads = head !== undefined && known.get(head)?.target?.of === 'entries';
    if (leads && head !== 'entry' && types.length > 0) return this.beyond(spec, head, rest!, path);
    const column = this.column(spec.field, `${path}/field`);
    if (!column) return null;
    const allowed = OPERATORS_OF[column.family];
    if (!allowed.includes(spec.op) || ORDER_ALONE.has(column)) {
      return this.fail(
        'wrong-operator',
        `${path}/op`,
        `${column.label} cannot be asked "${OPERATOR_WORDS[spec.op]}".`,
        ORDER_ALONE.has(column) ? 'Sort by it.' : `It can be asked: ${allowed.join(', ')}.`,
      );
    }
    const asked = column.isAbsent ? this.names.known.get(spec.field)! : column;
    const read = readOperand(asked, spec, this.names.site, (code, message, fix) =>
      this.fail(code, `${path}/value`, message, fix),
    );
    if (read?.kind === 'page' && !this.names.hasPage) return this.noPage(`${path}/value`);
    const operand = read && column.target?.of === 'picks' ? this.ofPicks(read, path) : read;
    return operand && { kind: 'condition', column, op: spec.op, operand, spec };
  }

  protected noPage(path: string): null {
    return this.fail(
      'no-page-entry',
      path,
      'It is compared with what a page’s entry has, and there is none here.',
      'Give a value; a listing without an address, placed in templates, may compare with it.',
    );
  }

  /** What is asked of the entries that a reference leads to: `savedBy.village`. */
  private beyond(spec: ConditionSpec, head: string, rest: string, path: string): Condition | null {
    const column = this.column(head, `${path}/field`);
    if (!column) return null;
    const { target } = this.names.known.get(head)!;
    const keys = (target as { types: readonly string[] | null }).types;
    const led = this.names.types.filter(({ key }) => keys === null || keys.includes(key));
    const through = led.flatMap((type) => this.ofLed(spec, rest, type, led, path) ?? []);
    if (this.issues.length > 0) return null;
    if (through.length === 0) return this.nothingLed(column, rest, led, path);
    return { kind: 'condition', column, op: spec.op, operand: { kind: 'none' }, spec, through };
  }

  /** What is asked of entries of one type; null where that has no such thing. */
  private ofLed(
    spec: ConditionSpec,
    rest: string,
    type: ContentType,
    led: readonly ContentType[],
    path: string,
  ): Through | null {
    const columns = listedColumns(type);
    if (!columns.has(rest)) return null;
    const known = new Map([...led].reverse().flatMap((other) => [...listedColumns(other)]));
    const names = { ...this.names, label: type.label, known, types: [] };
    const planner = new ConditionPlanner(columns, names);
    const asked = { ...spec, field: rest, op: DENIED[spec.op] ?? spec.op };
    const condition = planner.condition(asked, path);
    // What is wrong with it for several types is said once.
    if (this.issues.length === 0) this.issues.push(...planner.issues);
    return condition && { type, condition };
  }

  private nothingLed(
    { label }: Column,
    rest: string,
    led: readonly ContentType[],
    path: string,
  ): null {
    const names = [...new Set(led.flatMap((type) => [...listedColumns(type).keys()]))];
    return this.fail(
      'unknown-field',
      `${path}/field`,
      `What ${label} leads to has no field "${rest}".`,
      didYouMean(rest, names, `It has: ${names.slice(0, 20).join(', ')}.`),
    );
  }

  /** Picks as they are stored: conditions name them by their keys. */
  private ofPicks(operand: Operand, path: string): Operand | null {
    const { picks } = this.names;
    if (operand.kind === 'page') return this.noPage(`${path}/value`);
    const given = operand.kind === 'keys' ? operand.keys : [];
    const ids = given.map((key) => picks.find((p) => p.key === key)?.id);
    const unknown = given[ids.indexOf(undefined)];
    if (unknown === undefined) return { kind: 'keys', keys: ids as string[] };
    const known = picks.map(({ key }) => key);
    const message = `There are no picks "${unknown}".`;
    this.issues.push(unknownName(`${path}/value`, message, unknown, known));
    return null;
  }

  protected fail(
    code: string,
    path: string,
    message: string,
    fix: string,
    replacement?: string,
  ): null {
    this.issues.push({
      code,
      path,
      message,
      fix,
      ...(replacement === undefined ? {} : { replacement }),
    });
    return null;
  }
}

/** Whether the columns of two types can be compared. */
function alike(a: Column, b: Column): boolean {
  if (a.family === 'identity') return true;
  const setOf = ({ target }: Column): unknown => (target?.of === 'subjects' ? target.set : null);
  return a.family === b.family && setOf(a) === setOf(b) && a.target?.of === b.target?.of;
}
