import type { Plan, Revision } from '@/core/publication/model.ts';
import { codeOf, type Shown, shownBy, shownOver } from '@/core/publication/shown.ts';
import type { Design } from '@/core/design/spec.ts';
import { type Instant, type Interval, common } from '@/core/time/interval.ts';
import type { Values } from '@/core/design/values.ts';
import type { Connection } from '../db/connection.ts';
import { tablesIn } from './language-tables.ts';
import { statement } from './statement.ts';
import { hasWordsIn, readShown, readValues } from './stored-values.ts';

/** A revision as it is stored. */
export type StoredRevision = Omit<Revision, 'values'> & { values: string };
/** A plan, and the language it is for, BCP 47. */
export type StoredPlan = Plan & { language: string };

/** Which language a site is read in, and which it is in besides. */
export interface Speech {
  design: Design;
  /** Tags of the languages that the site is in besides its own. */
  further: ReadonlySet<string>;
  /** Where the front pages of those stand. */
  roots: readonly string[];
  /** When what is live in the site's own language stands in for words that are not there. */
  fallback: readonly Interval[];
}

/** A revision in a language. */
export interface SpokenRevision extends Revision {
  /** Where it has no words in it: its values in those of the site, while they stand in. */
  standIn?: Values;
}

/** What is live of an entry over time in one of a site's languages, as if it were in that alone. */
export interface InLanguage {
  revisions: SpokenRevision[];
  plans: Plan[];
  /** What is shown as of an instant, by its code; null for nothing. */
  codeAt: (at: Instant) => number | null;
}

/**
 * An entry in one of a site's languages: what is shown of it stands among its revisions, and each
 * change of that is a plan.
 */
export function inLanguage(
  connection: Connection,
  { design, further, fallback }: Speech,
  entry: { id: string; revisions: readonly StoredRevision[]; plans: readonly StoredPlan[] },
): InLanguage {
  const { language } = design.site;
  const isHere = (plan: StoredPlan): boolean =>
    design.edition ? plan.language === language : !further.has(plan.language);
  const plain = entry.revisions.map((revision): SpokenRevision => {
    const json = revision.values;
    const stands = fallback.length > 0 && !hasWordsIn(json, language);
    const standIn = stands ? { standIn: readValues(json, design.edition!.own) } : {};
    return { ...revision, values: readValues(json, language), ...standIn };
  });
  const own = fallback.length === 0 ? [] : ownIntervals(connection, entry.id);
  const changes = shownOver({
    revisions: plain,
    plans: entry.plans.filter(isHere),
    others: entry.plans.filter((plan) => !isHere(plan)),
    fallback: own.flatMap((live) => within(live, fallback)),
  });
  // What stood in before it ceased to is what an address reads once it does again.
  const stood = own.map(({ revision, sharedRevision: shared }) => ({ revision, shared }));
  const made = madeOf(design, entry.revisions, [
    ...changes.flatMap(({ shown }) => shown ?? []),
    ...stood.map((shown) => ({ ...shown, isFallback: true })),
  ]);
  const codes = changes.map(({ at, shown, keeps }) => {
    const plan = planOf(at, shown && codeOf(shown));
    return { at, code: shown && codeOf(shown), plan: keeps ? { ...plan, keeps } : plan };
  });
  return {
    // Who looks for the newest one saved looks from the end.
    revisions: [...made, ...plain],
    plans: codes.map(({ plan }) => plan),
    codeAt: (at) => codes.findLast((change) => change.at <= at)?.code ?? null,
  };
}

/** What is shown that is of several revisions, or of another language, as revisions by their codes. */
function madeOf(
  { site, edition }: Design,
  stored: readonly StoredRevision[],
  all: readonly Shown[],
): Revision[] {
  const byCode = new Map(all.map((shown) => [codeOf(shown), shown]));
  const byNumber = new Map(stored.map((revision) => [revision.number, revision]));
  return [...byCode].flatMap(([code, shown]): Revision[] => {
    if (code === shown.revision) return []; // stands among them already
    const [words, rest] = [byNumber.get(shown.revision), byNumber.get(shown.shared)];
    if (!words || !rest) return [];
    const spoken = shown.isFallback ? edition!.own : site.language;
    const values = readShown(words.values, rest.values, spoken);
    return [{ number: code, saved: 0, author: words.author, values }];
  });
}

/**
 * When what is live from an instant on was public first. `published`: in the site's own language,
 * which may come after a further one.
 */
export function firstPublished(published: Instant | null, from: Instant): Instant {
  return Math.min(published ?? from, from);
}

/** Whether what is shown, by its code, is of the site's own language. */
export function isFallback(code: number | null): boolean {
  return code !== null && shownBy(code).isFallback;
}

/** A plan after which something is shown; null for nothing. */
export function planOf(at: Instant, code: number | null): Plan {
  return code === null
    ? { at, sequence: 0, do: 'retire', revision: null }
    : { at, sequence: 0, do: 'publish', revision: code };
}

type OwnInterval = Parameters<typeof shownOver>[0]['fallback'][number];

/** What is live of an entry over time in the site's own language. */
function ownIntervals(connection: Connection, id: string): OwnInterval[] {
  return statement<OwnInterval>(
    connection,
    `SELECT starts AS "from", ends AS "to", revision, shared_revision AS sharedRevision
       FROM ${tablesIn(undefined).live} WHERE entry = ? ORDER BY starts`,
  ).all(id);
}

/** An interval as far as it lies in others. */
function within(live: OwnInterval, others: readonly Interval[]): OwnInterval[] {
  return others.flatMap((other) => {
    const both = common(live, other);
    return both ? [{ ...live, ...both }] : [];
  });
}
