import { z } from 'zod';
import { formatStyled } from '@/core/pattern/date-format.ts';
import type { Instant } from '@/core/time/interval.ts';
import { type Pick, addPick, picksOfEntry, placeBefore } from '../../store/picks.ts';
import { type CommandContext, Refused, command } from '../definition.ts';
import { entryOf } from '../entry-lookup.ts';
import { instantOf } from '../plan-change.ts';
import { openPick, picksOf, picksChanged } from './picks-of.ts';

/** Lets an entry stand in picks, from now or an instant on, for good or until another. */
export const pick = command({
  deed: 'publish',
  input: z.strictObject({
    /** Their id. */
    picks: z.string().max(64),
    entry: z.string().max(200),
    /** Local times or instants (ISO 8601); null for at once, and for no end. */
    from: z.string().max(64).nullable().default(null),
    to: z.string().max(64).nullable().default(null),
    /** Right before which stretch, by its id; null for last. */
    before: z.int().nullable().default(null),
  }),
  about: ({ entry: id }) => [{ of: 'entry', id }],
  run(context, { picks: picksId, entry, before, ...given }) {
    const picks = picksOf(context, picksId);
    entryOf(context, entry);
    const from = instantOf(context, { at: given.from });
    const to = given.to === null ? null : instantOf(context, { at: given.to });
    checkBounds(from, to);
    checkApart(context, picks, { id: null, entry, from, to });
    const next = before === null ? null : openPick(context, before);
    const position = next?.picks === picksId ? placeBefore(context.connection, next) : null;
    const id = addPick(context.connection, { picks: picksId, entry, from, to, position });
    picksChanged(context, picksId);
    return { id };
  },
});

/** Refuses a stretch that ends before it starts. */
export function checkBounds(from: Instant, to: Instant | null): void {
  if (to === null || to > from) return;
  throw new Refused({
    code: 'empty-interval',
    path: 'to',
    message: 'It would leave the picks before it joins them.',
    fix: 'Let it leave later, or leave the end out.',
  });
}

/** Refuses a stretch that overlaps another one of the same entry in the same picks. */
export function checkApart(
  { connection, site, at }: CommandContext,
  { id: picks, label }: { id: string; label: string },
  { id, entry, from, to }: Omit<Pick, 'id' | 'picks' | 'position'> & { id: number | null },
): void {
  const other = picksOfEntry(connection, entry, at).find(
    (p) =>
      p.picks === picks &&
      p.id !== id &&
      (to === null || p.from < to) &&
      (p.to === null || p.to > from),
  );
  if (!other) return;
  const { language, zone } = site.design.site;
  const words = (instant: Instant): string => formatStyled(instant, 'medium', language, zone);
  const since = other.from <= at ? '' : ` from ${words(other.from)} on`;
  const until = other.to === null ? '' : ` until ${words(other.to)}`;
  throw new Refused({
    code: 'picked-already',
    message: `It stands in ${label} already${since}${until}.`,
    fix: 'Change when it stands there, in the picks.',
  });
}
