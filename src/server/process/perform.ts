import type { Result } from '@/core/issue.ts';
import type { CommandName } from '../commands/index.ts';
import type { Actor } from '../permit.ts';
import { aboutEntry } from './note-writing.ts';
import type { Container } from './container.ts';

/**
 * Has a command carried out for somebody; after a publication it is told where the entry is seen
 * then, and unsaved words about an entry that is purged go with it. `job` is what a long one is
 * watched by.
 */
export async function perform(
  { long, reader, copies }: Container,
  actor: Actor,
  name: CommandName,
  { input, job }: { input: string; job: string },
): Promise<Result<unknown>> {
  const result = await long.run(name, actor, input, job);
  if (result.ok && name === 'purgeEntry')
    copies.forget(aboutEntry((JSON.parse(input) as { entry: string }).entry));
  if (name !== 'planChange' || !result.ok) return result;
  const { entry, language } = JSON.parse(input) as { entry: string; language?: string };
  const value = result.value as { at: number };
  const seen = await reader.ask(
    'whereSeen',
    actor,
    entry,
    Math.max(Date.now(), value.at),
    language ?? null,
  );
  return { ok: true, value: { ...value, seen } };
}
