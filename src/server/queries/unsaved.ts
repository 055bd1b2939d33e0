import { applyEdit } from '@/core/design-edit/edit.ts';
import type { Step } from '@/core/design-edit/steps.ts';
import type { Issue } from '@/core/issue.ts';
import type { CompiledSite } from '@/core/site/compile.ts';

/** A design with what a form holds unsaved; without it, and why, where it does not apply. */
export function withSteps(
  site: CompiledSite,
  steps: Step[],
): { site: CompiledSite; issues: Issue[] } {
  if (steps.length === 0) return { site, issues: [] };
  const edited = applyEdit(site.design, { steps }, site);
  if (!edited.ok) return { site, issues: edited.issues };
  return { site: edited.value.site, issues: [] };
}
