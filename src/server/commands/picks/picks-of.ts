import type { Picks } from '@/core/design/spec.ts';
import { foldEdits } from '@/core/design-edit/fold.ts';
import { readKey } from '@/core/forecast/read-set.ts';
import { openEdits } from '../../store/bench.ts';
import { type Pick, pickOf } from '../../store/picks.ts';
import { raisePublic } from '../../store/write.ts';
import { type CommandContext, Refused } from '../definition.ts';

/** Picks of the working design, by their id: those on the bench hold entries already. */
export function picksOf({ connection, site }: CommandContext, id: string): Picks {
  const { design } = foldEdits(site.design, openEdits(connection));
  const picks = design.picks.find((p) => p.id === id);
  if (picks) return picks;
  throw new Refused({
    code: 'unknown-picks',
    path: 'picks',
    message: `There are no picks "${id.slice(0, 60)}".`,
    fix: 'Choose others.',
  });
}

/** A stretch in picks that has not ended. @throws Refused */
export function openPick({ connection, at }: CommandContext, id: number): Pick {
  const pick = pickOf(connection, id);
  if (pick && (pick.to === null || pick.to > at)) return pick;
  throw new Refused({
    code: 'pick-gone',
    message: 'This does not stand in the picks any more, or was moved meanwhile.',
    fix: 'Reload the page to see how things stand.',
  });
}

/** Says that picks changed; nothing of entries follows from that. */
export function picksChanged(context: CommandContext, picks: string): void {
  raisePublic(context.connection, [readKey.picks(picks)]);
}
