import { checkByHand } from '@/core/address/path.ts';
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

type Bounds = { from: Instant; to: Instant | null };

/** What facts are read from. */
interface Given {
  id: string;
  raw: RawEntry;
  revisions: readonly Revision[];
  language: string;
  timing: TimingReader;
  told: Told;
  /** The instant of the last change before the site was saved. */
  until: Instant;
}

/**
 * The facts of an entry of a saved site; what cannot have been is named. Null where the entry was
 * not saved with the rest: its file gives no `was`.
 */
export function readFacts(given: Given): EntryFacts | null {
  if (!given.raw.form.was) return null;
  const live = liveFacts(given, given.raw.form.was);
  return { live, held: heldFacts(given, live), refused: refusals(given) };
}

function liveFacts(given: Given, was: NonNullable<RawEntry['form']['was']>): LiveInterval[] {
  const { id, revisions, language, told } = given;
  const live = was.map((item, i): LiveInterval => {
    if (!revisions.some(({ number }) => number === item.revision))
      told(['entry', 'was', i], 'unknown-revision', ...noRevision(item.revision));
    const { revision, shared = revision, language: own = language } = item;
    const bounds = boundsOf(given, ['entry', 'was', i], item);
    return { entry: id, ...bounds, revision, sharedRevision: shared, language: own };
  });
  tellOverlaps(['entry', 'was'], live, told);
  return live;
}

function heldFacts(given: Given, live: readonly LiveInterval[]): AddressRow[] {
  const { id, raw, language, told } = given;
  const held = raw.form.held.map((item, i): AddressRow => {
    const { path, base = path, role, language: own = language } = item;
    const bounds = boundsOf(given, ['entry', 'held', i], item);
    const wrong = wrongPath(path);
    if (wrong !== null) told(['entry', 'held', i], 'wrong-address', ...wrong);
    if (!isWithin(bounds, live)) told(['entry', 'held', i], 'wrong-fact', ...NOT_LIVE_THEN);
    return { entry: id, path, base, role, language: own, ...bounds };
  });
  tellOverlaps(
    ['entry', 'held'],
    held.filter(({ role }) => role === 'current'),
    told,
  );
  return held;
}

function refusals({ id, raw, timing }: Given): Refusal[] {
  return raw.form.refused.map(({ at, ...rest }, i) => ({
    ...rest,
    entry: id,
    at: timing.moment(at, ['entry', 'refused', i]) ?? BEGINNING,
  }));
}

function boundsOf(
  { timing, told, until }: Given,
  at: (string | number)[],
  item: { from: string; to: string | null },
): Bounds {
  const from = timing.moment(item.from, at) ?? BEGINNING;
  const to = timing.moment(item.to ?? undefined, at);
  if ((to ?? until) < from || (to ?? until) > until) told(at, 'wrong-fact', ...NOT_BY_THEN);
  return { from, to };
}

/** Why a path cannot have been held, and how one is written; null where it can. */
function wrongPath(path: string): [string, string] | null {
  const wrong = path === '/' ? null : checkByHand(path);
  return wrong === null ? null : [`${path}: ${wrong}`, 'Write it like "/about/us".'];
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

function tellOverlaps(at: string[], bounds: readonly Bounds[], told: Told): void {
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
