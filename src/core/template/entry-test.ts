import type { FilterSpec } from '../design/listing-spec.ts';
import type { EntryView } from '../design/values.ts';
import { type ListingRow, cell, columnsOf, rowOf } from '../listing/columns.ts';
import { holds, othersBy } from '../listing/evaluate.ts';
import { relativesOf } from '../listing/operand.ts';
import { type Condition, conditionsOf } from '../listing/plan.ts';
import { planFilter } from '../listing/condition-planner.ts';
import { EMPTY_WORLD, resolveFilter } from '../listing/resolve.ts';
import { daySpan } from '../time/zone.ts';
import type { BlockCompiler, RenderScope } from './context.ts';

/** Who is asked: the page's entry, or the item of a repetition. */
export type Asked = 'page' | 'item';

/**
 * Compiles a filter that an entry passes or does not, as those of listings are; issues where it
 * asks of what is not there. Nobody passes where there is no entry.
 */
export function compileTest(
  where: FilterSpec,
  of: Asked,
  c: BlockCompiler,
): (scope: RenderScope) => boolean {
  const type = of === 'item' ? (c.item?.type ?? null) : c.type;
  if (!type) {
    const what = of === 'item' ? 'The items here have no fields.' : 'Nothing is read here.';
    c.fail('no-entry', 'where', what, 'Ask of the page or the instant, or leave it out.');
    return () => false;
  }
  const { zone } = c.design.site;
  const { label } = type;
  const { filter, issues } = planFilter(where, columnsOf(type), { label, zone });
  for (const { code, path = 'where', message, fix = '' } of issues)
    c.fail(code, path, message, fix);
  if (!filter) return () => false;
  const conditions = conditionsOf(filter);
  for (const { column } of conditions)
    if (column.target?.of === 'entries')
      c.reads({ root: of === 'item' ? 'item' : '', chain: [column.field!.id] });
  const asksSubjects = conditions.some(({ column }) => column.target?.of === 'subjects');
  return (scope) => {
    const entry = of === 'item' ? (scope.roots.item as EntryView | undefined) : scope.own;
    if (!entry) return false;
    const row = rowOf(entry);
    tellCrossings(conditions, row, scope);
    const subjects = asksSubjects ? scope.filterWorld() : EMPTY_WORLD;
    const resolved = resolveFilter(filter, scope.at, scope.zone, subjects);
    return holds(
      resolved,
      row,
      othersBy((id) => scope.entry(id)),
    );
  };
}

/** Tells when what is compared with today, or with now, may come out otherwise. */
function tellCrossings(
  conditions: readonly Condition[],
  row: ListingRow,
  { at, zone, validity }: RenderScope,
): void {
  for (const { column, op, operand } of conditions)
    for (const relative of relativesOf(op, operand)) {
      if ('today' in relative) {
        validity.tell(daySpan(at, zone).to);
        continue;
      }
      const value = cell(row, column);
      if (typeof value !== 'number') continue;
      const crossing = value - relative.now;
      validity.tell(crossing);
      validity.tell(crossing + 1); // "on or before" and "after" turn one millisecond later
    }
}
