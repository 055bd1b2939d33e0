import type { Clock } from '@/server/queries/clock.ts';
import type { EntryOutcome } from '@/server/queries/entry-outcome.ts';
import type { StarterDetail } from '@/server/queries/starters.ts';
import type { Screen } from '../../../screen.ts';

/** What the screen of a starter is drawn from; null where there is none. */
export async function openStarter(
  { clock, ask }: Screen,
  asked: { id: string } | { type: string },
): Promise<{ detail: StarterDetail; outcome: EntryOutcome; clock: Clock } | null> {
  const detail = await ask('starterDetail', asked, clock.at);
  if (!detail) return null;
  const { type, values } = detail;
  const outcome = await ask('entryOutcome', { id: null, type: type.id, values }, clock.at, 'draft');
  return outcome && { detail, outcome, clock };
}
