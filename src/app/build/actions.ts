'use server';

import { refresh } from 'next/cache';
import { container } from '@/server/container.ts';
import type { PlanInput } from '@/server/commands/plan-change.ts';
import type { DesignEdit } from '@/server/commands/release-design.ts';
import type { SaveInput } from '@/server/commands/write-entry.ts';
import type { Result } from '@/core/issue.ts';
import { signedIn } from './session.ts';

/** Saves an entry's values as a new revision. */
export async function saveEntry(
  input: SaveInput,
): Promise<Result<{ id: string; revision: number }>> {
  const result = await container().writer.run('saveEntry', await signedIn(), input);
  if (result.ok && input.id !== null) refresh();
  return result;
}

/** Publishes or retires an entry; says where it can be seen afterwards. */
export async function planChange(input: PlanInput): Promise<Result<{ at: number; seen: string }>> {
  const { writer, reader } = container();
  const actor = await signedIn();
  const result = await writer.run('planChange', actor, input);
  if (!result.ok) return result;
  refresh();
  return {
    ok: true,
    value: {
      ...result.value,
      seen: await reader.ask(
        'whereSeen',
        actor,
        input.entry,
        Math.max(Date.now(), result.value.at),
      ),
    },
  };
}

/** Cancels a plan that lies ahead. */
export async function cancelPlan(plan: number): Promise<Result<{ entry: string }>> {
  const result = await container().writer.run('cancelPlan', await signedIn(), { plan });
  if (result.ok) refresh();
  return result;
}

/** Releases an edited part of the design at once. */
export async function releaseEdit(edit: DesignEdit): Promise<Result<{ at: number }>> {
  const result = await container().writer.run('releaseEdit', await signedIn(), edit);
  if (result.ok) refresh();
  return result;
}
