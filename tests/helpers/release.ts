import type { Step } from '@/core/design-edit/steps.ts';
import { type Json, type Part, partAt } from '@/core/design-edit/parts.ts';
import { valueAt } from '@/core/design-edit/properties.ts';
import type { Design } from '@/core/design/spec.ts';
import { runCommand } from '@/server/commands/run.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import type { TestSite } from './folder.ts';

/** Steps that set properties of a part by what they are in a design. */
export function setting(design: Design, path: string, set: Record<string, unknown>): Step[] {
  const part: Part = partAt(design, path) ?? {};
  return Object.entries(set).map(([property, now]) => ({
    do: 'set',
    part: path,
    property,
    was: valueAt(part, property),
    now: now as Json,
  }));
}

/** Releases properties of a part of a site as of an instant, at once. */
export function releaseSet(
  { connection, view }: Pick<TestSite, 'connection' | 'view'>,
  path: string,
  set: Record<string, unknown>,
  wallClock: number,
) {
  const { design } = view.at(wallClock)!.site;
  const edit = { steps: setting(design, path, set) };
  return runCommand(connection, 'release', COMMAND_LINE, { edit }, { wallClock });
}
