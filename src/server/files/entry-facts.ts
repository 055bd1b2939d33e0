import type { AddressRow, Refusal } from '@/core/address/model.ts';
import type { LiveInterval, Revision } from '@/core/publication/model.ts';
import { type Instant, BEGINNING } from '@/core/time/interval.ts';
import type { TimingReader, Told } from './entry-timing.ts';
import type { RawEntry } from './entry-form.ts';

/** What was so before a site was saved, and stays so. */
export interface EntryFacts {
  live: LiveInterval[];
  held: AddressRow[];
  refused: Refusal[];
}

type Given = { id: string; raw: RawEntry; revisions: readonly Revision[]; language: string };
type Bounds = { from: Instant; to: Instant | null };

/**
 * The facts of an entry of a saved site, up to the instant of its last change; what cannot have
 * been is named. Null where the entry was not saved with the rest: its file gives no `was`.
 */
export function readFacts(
  given: Given,
  timing: TimingReader,
  told: Told,
  until: Instant,
): EntryFacts | null {
  const { id, raw, revisions, language } = given;
  const { was, held, refused } = raw.form;
  if (!was) return null;
  const boundsOf = (name: string) => (item: { from: string; to: string | null }, i: number) => {
    const at = ['entry', name, i];
    const from = timing.moment(item.from, at) ?? BEGINNING;
    const to = timing.moment(item.to ?? undefined, at);
    if ((to ?? until) < from || (to ?? until) > until) told(at, 'wrong-fact', ...NOT_BY_THEN);
    return { from, to };
  };
  const liveBounds = was.map(boundsOf('was'));
  const live = was.map((item, i): LiveInterval => {
    if (!revisions.some(({ number }) => number === item.revision))
      told(['entry', 'was', i], 'unknown-revision', ...noRevision(item.revision));
    const { revision, shared = revision, language: own = language } = item;
    return { entry: id, ...liveBounds[i]!, revision, sharedRevision: shared, language: own };
  });
  tellOverlaps(['entry', 'was'], liveBounds, told);
  const heldBounds = held.map(boundsOf('held'));
  tellOverlaps(
    ['entry', 'held'],
    heldBounds.filter((_, i) => held[i]!.role === 'current'),
    told,
  );
  heldBounds.forEach((bounds, i) => {
    if (!isWithin(bounds, liveBounds)) told(['entry', 'held', i], 'wrong-fact', ...NOT_LIVE_THEN);
  });
  return {
    live,
    held: held.map(({ path, base = path, role, language: own = language }, i) => ({
      entry: id,
      path,
      base,
      role,
      language: own,
      ...heldBounds[i]!,
    })),
    refused: refused.map(({ at, ...rest }, i) => ({
      ...rest,
      entry: id,
      at: timing.moment(at, ['entry', 'refused', i]) ?? BEGINNING,
    })),
  };
}

const NOT_BY_THEN = [
  'This ends before it begins, or after the site was saved (history.yaml: until).',
  'Leave the end out of what went on when the site was saved.',
] as const;
const NOT_LIVE_THEN = [
  'It cannot have held this address: it was not live all the while (entry.was).',
  'Mend entry.was or the address.',
] as const;
const noRevision = (number: number): readonly [string, string] => [
  `There is no revision ${number}.`,
  'Revisions count from 1, the oldest.',
];

function tellOverlaps(at: string[], bounds: Bounds[], told: Told): void {
  const sorted = [...bounds].sort((a, b) => a.from - b.from);
  if (sorted.some(({ to }, i) => i < sorted.length - 1 && (to ?? Infinity) > sorted[i + 1]!.from))
    told(
      at,
      'overlapping-intervals',
      'Two of these overlap.',
      'Let one end where the other starts.',
    );
}

/** Whether a stretch of intervals that adjoin covers an interval. */
function isWithin({ from, to }: Bounds, live: readonly Bounds[]): boolean {
  let reached = from;
  for (const interval of [...live].sort((a, b) => a.from - b.from)) {
    if (interval.from > reached) break;
    if (interval.to === null) return true;
    reached = Math.max(reached, interval.to);
  }
  return to !== null && reached >= to;
}
