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
  /** The same in further languages, by their ids. */
  further: Record<string, Omit<EntryFacts, 'further'>>;
}

type Bounds = { from: Instant; to: Instant | null };

/** What facts are read from. */
interface Given {
  id: string;
  raw: RawEntry;
  revisions: readonly Revision[];
  language: string;
  /** Tags of the further languages, by their ids. */
  tags: ReadonlyMap<string, string>;
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
  const { was, held, refused, further } = given.raw.form;
  if (!was) return null;
  const own = factsIn(given, { was, held, refused }, ['entry']);
  const others = Object.entries(further).map(([id, facts]) => {
    const tag = given.tags.get(id) ?? id;
    const items = facts.was.map(({ fallback, ...item }) => ({
      ...item,
      language: fallback ? given.language : tag,
    }));
    const paths = facts.held.map((item) => ({ ...item, language: tag }));
    const all = { was: items, held: paths, refused: facts.refused };
    return [id, factsIn(given, all, ['entry', 'further', id])] as const;
  });
  return { ...own, further: Object.fromEntries(others) };
}

type Forms = { [K in 'was' | 'held' | 'refused']-?: NonNullable<RawEntry['form'][K]> };

/** The facts of one language, and where they stand in the file. */
function factsIn(
  given: Given,
  { was, held, refused }: Forms,
  at: string[],
): Omit<EntryFacts, 'further'> {
  const live = liveFacts(given, was, at);
  return {
    live,
    held: heldFacts(given, held, live, at),
    refused: refusals(given, refused, at),
  };
}

function liveFacts(given: Given, was: Forms['was'], within: string[]): LiveInterval[] {
  const { id, revisions, language, told } = given;
  const live = was.map((item, i): LiveInterval => {
    if (!revisions.some(({ number }) => number === item.revision))
      told([...within, 'was', i], 'unknown-revision', ...noRevision(item.revision));
    const { revision, shared = revision, language: own = language } = item;
    const bounds = boundsOf(given, [...within, 'was', i], item);
    return { entry: id, ...bounds, revision, sharedRevision: shared, language: own };
  });
  tellOverlaps([...within, 'was'], live, told);
  return live;
}

function heldFacts(
  given: Given,
  forms: Forms['held'],
  live: readonly LiveInterval[],
  within: string[],
): AddressRow[] {
  const { id, language, told } = given;
  const held = forms.map((item, i): AddressRow => {
    const { path, base = path, role, language: own = language } = item;
    const bounds = boundsOf(given, [...within, 'held', i], item);
    const wrong = wrongPath(path);
    if (wrong !== null) told([...within, 'held', i], 'wrong-address', ...wrong);
    if (!isWithin(bounds, live)) told([...within, 'held', i], 'wrong-fact', ...NOT_LIVE_THEN);
    return { entry: id, path, base, role, language: own, ...bounds };
  });
  tellOverlaps(
    [...within, 'held'],
    held.filter(({ role }) => role === 'current'),
    told,
  );
  return held;
}

function refusals({ id, timing }: Given, forms: Forms['refused'], within: string[]): Refusal[] {
  return forms.map(({ at, ...rest }, i) => ({
    ...rest,
    entry: id,
    at: timing.moment(at, [...within, 'refused', i]) ?? BEGINNING,
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
