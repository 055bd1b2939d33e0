import { z } from 'zod';
import { type Issue, type Result, ok } from '../issue.ts';
import type { Field } from '../design/field.ts';
import type { Design } from '../design/spec.ts';
import { type CompiledSite, compileSite } from '../site/compile.ts';
import { applyStep } from './apply.ts';
import { type PartPath, outerOf, partAt } from './parts.ts';
import { type Step, invertStep, stepSpec } from './steps.ts';

/** A change of a design, in one or several steps that are done together or not at all. */
export const editSpec = z.strictObject({
  steps: z
    .array(stepSpec)
    .min(1, 'An edit changes something.')
    .max(1000, 'An edit has at most 1,000 steps.'),
});
/** A change of a design. */
export type DesignEdit = z.output<typeof editSpec>;

/** A design after edits, compiled, and an edit as it took hold. */
export interface Edited {
  design: Design;
  site: CompiledSite;
  /** With what its properties were, and with the defaults that it was filled up with. */
  edit: DesignEdit;
}

/**
 * Applies an edit; every problem is named. Refused where it overlaps with what was changed since
 * it was made, where a part has the wrong form, and where the design would not hold together. Given
 * the design as it is compiled, an edit of templates alone compiles no more than those.
 */
export function applyEdit(
  design: Design,
  edit: DesignEdit,
  compiled: CompiledSite | null = null,
): Result<Edited> {
  const stepped = applySteps(design, edit);
  if (!stepped.ok) return stepped;
  const next = stepped.value.design;
  const { site, issues } = compileSite(next, compiled);
  const all = [...changedKinds(design, next), ...issues];
  return all.length > 0 ? { ok: false, issues: all } : ok({ ...stepped.value, site });
}

/** Does the steps of an edit one after the other, without looking whether the design holds. */
export function applySteps(design: Design, edit: DesignEdit): Result<Omit<Edited, 'site'>> {
  let next = design;
  const steps: Step[] = [];
  for (const step of edit.steps) {
    const done = applyStep(next, step);
    if (!done.ok) return done;
    next = done.value.design;
    steps.push(done.value.step);
  }
  return ok({ design: next, edit: { steps } });
}

/** An edit that takes back one that took hold: the design is then as it was, to the letter. */
export function invertEdit({ steps }: DesignEdit): DesignEdit {
  return { steps: steps.toReversed().map(invertStep) };
}

/**
 * Fields that are to hold something else under the id they have: their values would be of the old
 * kind.
 */
export function changedKinds(before: Design, after: Design): Issue[] {
  const known = new Map(before.types.flatMap((type) => fieldsBelow(`types/${type.id}`, type)));
  return after.types.flatMap((type) =>
    fieldsBelow(`types/${type.id}`, type).flatMap(([path, field]) => {
      const was = known.get(path);
      if (!was || (was.kind === field.kind && was.many === field.many)) return [];
      return [
        {
          code: 'kind-changed',
          path: placeByKeys(after, path),
          message: `${field.label} holds ${was.many ? 'several of ' : ''}${was.kind}, and a field keeps its kind.`,
          fix: 'Add a field of the other kind, with an id of its own.',
        },
      ];
    }),
  );
}

/** All fields of a type or a group with their paths, those within groups included. */
function fieldsBelow(path: PartPath, { fields = [] }: { fields?: Field[] | undefined }): Placed[] {
  return fields.flatMap((field): Placed[] => {
    const own = `${path}/fields/${field.id}`;
    return [[own, field], ...fieldsBelow(own, field)];
  });
}

type Placed = [PartPath, Field];

/** The path of a part by the keys of what it stands in, as checks name places. */
function placeByKeys(design: Design, path: PartPath): string {
  const outer = outerOf(path);
  const [sort, id] = path.split('/').slice(-2);
  const own = `${sort}/${partAt(design, path)?.key ?? id}`;
  return outer === '' ? own : `${placeByKeys(design, outer)}/${own}`;
}
