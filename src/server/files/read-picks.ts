import { z } from 'zod';
import { didYouMean } from '@/core/did-you-mean.ts';
import type { Issue } from '@/core/issue.ts';
import { BEGINNING, type Instant } from '@/core/time/interval.ts';
import { parseMoment } from '@/core/time/parse.ts';

/** An entry of picks as a folder has it: its id alone, or with when it joins and leaves them. */
export const memberSpec = z.union([
  z.string().min(1).max(200),
  z.strictObject({
    entry: z.string().min(1).max(200),
    /** Instants as `entry.live` has them; from the beginning, and without end, where left out. */
    from: z.string().max(64).optional(),
    to: z.string().max(64).optional(),
  }),
]);
type Member = z.output<typeof memberSpec>;

/** A stretch over which an entry stands in picks, in their order. */
export interface PickToLoad {
  /** Id of the picks. */
  picks: string;
  entry: string;
  from: Instant;
  to: Instant | null;
}

/** Picks of a folder with their members as written, and where that is. */
export interface GivenPicks {
  id: string;
  members: Member[];
  /** Where a member, by its number from 0, stands in the folder: `picks/staff/members/1`. */
  place: (i: number) => string;
}

/** Reads who stands in picks when; what cannot have been is told by its place. */
export function readPicks(
  all: readonly GivenPicks[],
  { entries, now, zone }: { entries: ReadonlySet<string>; now: Instant; zone: string },
): { picks: PickToLoad[]; issues: Issue[] } {
  const issues: Issue[] = [];
  const picks = all.flatMap(({ id, members, place }) => {
    const reads = members.map((member, i) => {
      const tell = (code: string, message: string, fix: string): void =>
        void issues.push({ code, path: place(i), message, fix });
      const instant = (text: string | undefined): Instant | null => {
        const at = text === undefined ? null : parseMoment(text, now, zone);
        if (text !== undefined && at === null)
          tell('wrong-instant', `"${text}" is no instant.`, 'Write ISO 8601: 2026-03-12T08:00.');
        return at;
      };
      const given = typeof member === 'string' ? { entry: member } : member;
      const from = instant(given.from) ?? BEGINNING;
      const read = { picks: id, entry: given.entry, from, to: instant(given.to) };
      if (!entries.has(read.entry))
        tell(
          'unknown-entry',
          `There is no entry "${read.entry}".`,
          didYouMean(read.entry, [...entries], 'Name one of the entries by its id.'),
        );
      if (read.to !== null && read.to <= read.from)
        tell('empty-interval', 'It leaves the picks before it joins them.', 'Let it end later.');
      return { read, tell };
    });
    for (const { read, tell } of doubled(reads))
      tell(
        'doubled-pick',
        `"${read.entry}" stands in them twice at once.`,
        'Take one of them out.',
      );
    return reads.map(({ read }) => read);
  });
  return { picks, issues };
}

/** Those that overlap the stretch of the same entry that starts before them. */
function doubled<T extends { read: PickToLoad }>(reads: readonly T[]): T[] {
  const lasting = new Map<string, PickToLoad>();
  return reads
    .toSorted((a, b) => a.read.from - b.read.from)
    .filter(({ read }) => {
      const before = lasting.get(read.entry);
      lasting.set(read.entry, read);
      return before !== undefined && (before.to === null || before.to > read.from);
    });
}
