import { type Issue, at } from '../issue.ts';
import { unknownName } from '../did-you-mean.ts';
import { checkWhole } from '../design/check-values.ts';
import type { Field } from '../design/field.ts';
import { kindOf } from '../design/kinds/index.ts';
import { conditionSpecs, listingSpec } from '../design/listing-spec.ts';
import { valueForm } from '../design/value-form.ts';
import type { ContentType, Design } from '../design/spec.ts';
import { TIMING_STARTS, type TimingRule } from '../design/timing-spec.ts';
import { type Values, valuesOf } from '../design/values.ts';
import { type ListingRow } from '../listing/columns.ts';
import { type Others, holds } from '../listing/evaluate.ts';
import { type Condition, type Filter, conditionsOf } from '../listing/plan.ts';
import { planListing } from '../listing/planner.ts';
import { EMPTY_WORLD, resolveFilter } from '../listing/resolve.ts';
import type { Instant } from '../time/interval.ts';
import { movedBy } from '../time/span.ts';
import { dayStart } from '../time/zone.ts';

/** What a rule looks at: a revision of an entry, and when that began. */
export interface Looked {
  entry: string;
  created: Instant;
  /** Start of the first live interval; null where there is none. */
  published: Instant | null;
  values: Values;
}

/** A timing rule made ready. */
export interface CompiledRule {
  id: string;
  do: TimingRule['do'];
  /** The instant that it acts at by what it looks at; null for never. */
  instant(looked: Looked): Instant | null;
  /** Whether it acts at an instant. */
  holds(looked: Looked, at: Instant): boolean;
}

/** The timing rules of a type, in their order; what is wrong is left out, and told. */
export function compileTiming(
  type: ContentType,
  design: Design,
): { rules: CompiledRule[]; issues: Issue[] } {
  const issues: Issue[] = [];
  const rules = (type.timing ?? []).flatMap((rule, i) => {
    const compiled = compileRule(rule, type, design);
    issues.push(...at(`types/${type.key}/timing/${i + 1}`, compiled.issues));
    return compiled.rule ?? [];
  });
  return { rules, issues };
}

function compileRule(
  rule: TimingRule,
  type: ContentType,
  design: Design,
): { rule: CompiledRule | null; issues: Issue[] } {
  const start = startOf(rule, type);
  const filter = filterOf(rule, type, design);
  const issues = [...start.issues, ...filter.issues];
  if (issues.length > 0) return { rule: null, issues };
  const { zone } = design.site;
  return {
    issues,
    rule: {
      id: rule.id,
      do: rule.do,
      instant: (looked) => {
        const from = start.read(looked, zone);
        return from === null ? null : movedBy(from, rule.after, zone);
      },
      holds: (looked, instant) =>
        (rule.do === 'retire' || isWhole(type, looked, instant, zone)) &&
        filter.holds(looked, instant, zone),
    },
  };
}

type Read = (looked: Looked, zone: string) => Instant | null;

/**
 * What decides when rules act on entries of a type, as text; '' where there are none. Fields go
 * by their ids, so that another key changes nothing.
 */
export function timingForm({ timing = [], fields }: ContentType, { site }: Design): string {
  if (timing.length === 0) return '';
  const idOf = (key: string): string => fields.find((f) => f.key === key)?.id ?? key;
  const rules = timing.map(({ id: _, from, where, ...rule }) => [
    rule,
    idOf(from),
    JSON.stringify(where ?? null, (name, value: unknown) =>
      name === 'field' ? idOf(String(value)) : name === 'id' ? undefined : value,
    ),
  ]);
  const read = new Set(
    timing.flatMap(({ from, where }) => [from, ...conditionSpecs(where).map((c) => c.field)]),
  );
  // What is published by itself is whole: every field decides that.
  const publishes = timing.some((rule) => rule.do === 'publish');
  const told = publishes
    ? fields.map(({ key: _, label: __, help: ___, ...field }) => field)
    : fields.filter(({ key }) => read.has(key)).map(valueForm);
  return JSON.stringify([rules, site.zone, told]);
}

/** Whether a rule may count from a field: a single day or instant. */
export function canStartTiming(field: Field): boolean {
  return !field.many && ['day', 'instant'].includes(kindOf(field).family) && !field.fields;
}

/** From which instant a rule counts. */
function startOf(
  { do: deed, from }: TimingRule,
  type: ContentType,
): { read: Read; issues: Issue[] } {
  if (from === 'entry.created') return { read: ({ created }) => created, issues: [] };
  if (from === 'entry.published')
    return {
      read: ({ published }) => published,
      issues:
        deed === 'retire'
          ? []
          : [
              {
                code: 'wrong-start',
                path: 'from',
                message: 'What publishes an entry cannot count from when it was published.',
                fix: 'Count from when it was created, or from a date field.',
              },
            ],
    };
  const field = type.fields.find((f) => f.key === from);
  if (!field || !canStartTiming(field))
    return { read: () => null, issues: [noStart(from, field, type)] };
  const isDay = kindOf(field).family === 'day';
  const read: Read = ({ values }, zone) => {
    const [value] = valuesOf(values, field.id);
    if (isDay) return typeof value === 'string' ? dayStart(value, zone) : null;
    return typeof value === 'number' ? value : null;
  };
  return { read, issues: [] };
}

function noStart(from: string, field: Field | undefined, type: ContentType): Issue {
  const fitting = [...TIMING_STARTS, ...type.fields.filter(canStartTiming).map((f) => f.key)];
  if (!field) return unknownName('from', `${type.label} has no field "${from}".`, from, fitting);
  return {
    code: 'wrong-kind',
    path: 'from',
    message: `A timing rule counts from a single date, and ${field.label} is none.`,
    fix: `There are: ${fitting.join(', ')}.`,
  };
}

/** Values of the entry itself alone decide: what others do changes no plan. */
function filterOf(
  { where }: TimingRule,
  type: ContentType,
  design: Design,
): { holds: (looked: Looked, at: Instant, zone: string) => boolean; issues: Issue[] } {
  if (where === undefined) return { holds: () => true, issues: [] };
  const listing = listingSpec.parse({ key: 'timing', type: type.key, where });
  const { plan, issues } = planListing(listing, design);
  const wrong = plan ? conditionsOf(plan.filter).filter(isElsewhere) : [];
  const told = wrong.map(({ column }) => ({
    code: 'wrong-condition',
    path: 'where',
    message: `A timing rule reads texts, numbers, dates and choices of the entry, and ${column.label} is none.`,
    fix: 'Take the condition out.',
  }));
  const filter = plan?.filter;
  return {
    issues: [...issues, ...told],
    holds: (looked, instant, zone) => !filter || passes(filter, looked, instant, zone),
  };
}

/** What goes public by itself is whole, as what people publish. */
function isWhole(type: ContentType, { values }: Looked, now: Instant, zone: string): boolean {
  return checkWhole(type.fields, values, { now, zone }).length === 0;
}

/** Conditions of timing rules ask of nobody else. */
const NOBODY: Others = { isLive: () => true, row: () => null };

function isElsewhere({ column, operand }: Condition): boolean {
  return column.target !== null || operand.kind === 'page';
}

function passes(filter: Filter, looked: Looked, instant: Instant, zone: string): boolean {
  const { entry, created, published, values } = looked;
  const row: ListingRow = {
    ...{ entry, type: '', created, values, from: created, to: null },
    published: published ?? instant,
    updated: instant,
  };
  return holds(resolveFilter(filter, instant, zone, EMPTY_WORLD), row, NOBODY);
}
