import type { Issue } from '../issue.ts';
import type { Design } from '../design/spec.ts';
import { type CompiledSite, compileSite } from '../site/compile.ts';
import { type DesignEdit, applyEdit, applySteps, changedKinds } from './edit.ts';
import { type Touches, mayBuildOn, touches } from './touches.ts';

/** An edit that is not released yet. */
export interface OpenEdit {
  /** Edits apply in the order of their ids. */
  id: number;
  edit: DesignEdit;
}

/** A design with open edits applied, and those that do not apply to it. */
export interface Folded {
  design: Design;
  site: CompiledSite;
  applied: OpenEdit[];
  /** Edits that do not apply any more, with what stands in the way. */
  stuck: { id: number; issues: Issue[] }[];
}

/** Applies edits in order; one that does not apply is passed over, and said. */
export function foldEdits(design: Design, edits: readonly OpenEdit[]): Folded {
  const quick = withoutChecks(design, edits);
  const { site, issues } = compileSite(quick.design);
  if (issues.length === 0 && changedKinds(design, quick.design).length === 0)
    return { ...quick, site };
  return withChecks(design, edits);
}

function withoutChecks(design: Design, edits: readonly OpenEdit[]): Omit<Folded, 'site'> {
  const result: Omit<Folded, 'site'> = { design, applied: [], stuck: [] };
  for (const open of edits) {
    const done = applySteps(result.design, open.edit);
    if (!done.ok) {
      result.stuck.push({ id: open.id, issues: done.issues });
      continue;
    }
    result.design = done.value.design;
    result.applied.push({ ...open, edit: done.value.edit });
  }
  return result;
}

function withChecks(design: Design, edits: readonly OpenEdit[]): Folded {
  const result: Folded = { design, site: compileSite(design).site, applied: [], stuck: [] };
  for (const open of edits) {
    const done = applyEdit(result.design, open.edit);
    if (!done.ok) {
      result.stuck.push({ id: open.id, issues: done.issues });
      continue;
    }
    Object.assign(result, { design: done.value.design, site: done.value.site });
    result.applied.push({ ...open, edit: done.value.edit });
  }
  return result;
}

/** Edits taken together with what they are built on. */
export interface Together {
  /** All that are taken, in order. */
  edits: OpenEdit[];
  /** Those taken because of others: by whom. */
  because: ReadonlyMap<number, number>;
  /** Chosen edits that do not apply, whatever is taken with them. */
  stuck: Folded['stuck'];
}

/** The edits chosen of all that are open, with those that they are built on. */
export function withNeeds(
  design: Design,
  open: readonly OpenEdit[],
  chosen: ReadonlySet<number>,
): Together {
  const taken = new Set(chosen);
  const because = new Map<number, number>();
  const hopeless = new Map<number, Issue[]>();
  const all = touchesOf(design, open);
  for (;;) {
    const edits = open.filter(({ id }) => taken.has(id) && !hopeless.has(id));
    const stuck = foldEdits(design, edits).stuck[0];
    if (!stuck)
      return { edits, because, stuck: [...hopeless].map(([id, issues]) => ({ id, issues })) };
    const needed = neededBy(design, open, taken, { id: stuck.id, touches: all });
    if (needed === null) hopeless.set(stuck.id, stuck.issues);
    for (const id of needed ?? []) {
      taken.add(id);
      because.set(id, stuck.id);
    }
  }
}

/** What each edit touches in the design that all before it give. */
function touchesOf(design: Design, open: readonly OpenEdit[]): Map<number, Touches> {
  const found = new Map<number, Touches>();
  let next = design;
  for (const { id, edit } of open) {
    const done = applySteps(next, edit);
    if (done.ok) next = done.value.design;
    found.set(id, touches(next, edit));
  }
  return found;
}

/** The fewest earlier edits with which one applies; null where it does with none of them. */
function neededBy(
  design: Design,
  open: readonly OpenEdit[],
  taken: ReadonlySet<number>,
  { id, touches: all }: { id: number; touches: Map<number, Touches> },
): number[] | null {
  const earlier = open.filter((e) => e.id < id && !taken.has(e.id)).map((e) => e.id);
  const applies = (more: readonly number[]): boolean => {
    const edits = open.filter((e) => e.id === id || taken.has(e.id) || more.includes(e.id));
    return !foldEdits(
      design,
      edits.filter((e) => e.id <= id),
    ).stuck.some((s) => s.id === id);
  };
  const related = builtUpon(id, earlier, all);
  let kept = [related, earlier].find((more) => more.length > 0 && applies(more)) ?? null;
  for (const one of kept ?? []) {
    const fewer = kept!.filter((e) => e !== one);
    if (applies(fewer)) kept = fewer;
  }
  return kept !== null && kept.length > 0 ? kept : null;
}

/** The earlier edits that one, and what it is built on, may be built on. */
function builtUpon(id: number, earlier: readonly number[], all: Map<number, Touches>): number[] {
  const found = new Set([id]);
  for (const one of earlier.toReversed())
    if ([...found].some((later) => mayBuildOn(all.get(later)!, all.get(one)!))) found.add(one);
  return earlier.filter((one) => found.has(one));
}

/**
 * The open edits that do not apply any more without some of them, those themselves included, in
 * order.
 */
export function withDependents(
  design: Design,
  open: readonly OpenEdit[],
  without: ReadonlySet<number>,
): number[] {
  const before = new Set(foldEdits(design, open).stuck.map(({ id }) => id));
  const rest = open.filter(({ id }) => !without.has(id));
  const fallen = foldEdits(design, rest).stuck.map(({ id }) => id);
  return [...without, ...fallen.filter((id) => !before.has(id))].sort((a, b) => a - b);
}
