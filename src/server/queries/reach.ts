import { typesToDealAnew } from '@/core/address/rules.ts';
import { foldEdits, withNeeds } from '@/core/design-edit/fold.ts';
import type { Step } from '@/core/design-edit/steps.ts';
import type { DesignEdit } from '@/core/design-edit/edit.ts';
import type { Refusal } from '@/core/address/model.ts';
import type { Foreseen } from '@/core/address/foreseen.ts';
import {
  type ChangedListing,
  type Found,
  type PageChange,
  type PageShown,
} from '@/core/forecast/reach.ts';
import { formatStyled } from '@/core/pattern/date-format.ts';
import type { Issue } from '@/core/issue.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { Instant } from '@/core/time/interval.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { asOf } from '../store/as-of.ts';
import { openEdits } from '../store/bench.ts';
import { withEntries } from '../store/overlay-reader.ts';
import { languagesMade, tablesRead } from '../store/language-tables.ts';
import { statement } from '../store/statement.ts';
import { totalGeneration } from '../store/write.ts';
import { type Versions, comparing, inSight, standIns } from './reach-languages.ts';
import { type RetimedEntries, findRetimed } from './reach-timing.ts';
import { draftsOf } from './drafts.ts';
import { type Draft, type Seen, overlaying } from './preview.ts';
import type { SiteView } from './site-view.ts';
import { withSteps } from './unsaved.ts';

/** A change whose reach is asked for: what a form holds, or a choice of lines of the bench. */
export interface ReachInput {
  at: Instant;
  /** Unsaved steps, on top of the working design. */
  steps: Step[];
  /** Ids of open edits, and entries whose drafts are chosen, on top of what is released. */
  edits: number[];
  drafts: string[];
}

/** An example of what changes; HTML where it is among the first. */
export type ReachExample = PageShown;

/** What is known so far of what a change does; counts are "at least" until it is done. */
export interface Reach {
  done: boolean;
  looked: number;
  of: number;
  counts: Record<PageChange, number>;
  examples: Record<PageChange, ReachExample[]>;
  listings: ChangedListing[];
  /** What does not apply, and the first of what could not have its address, now or later. */
  issues: Issue[];
  /** How many could not have their addresses, and how many could that cannot now. */
  refused: { begin: number; end: number };
  /** Live entries that timing rules retire at another time. */
  retimed: RetimedEntries;
}

/** How long one answer may take, ms: others ask the same thread. */
const SLICE_MS = 150;
const EXAMPLES = 5;
/** Examples of each kind that are shown whole. */
const WHOLE = 2;
const MOST_JOBS = 4;

interface Job {
  reach: Reach;
  work: Generator<void>;
}

const JOBS = new WeakMap<SiteView, Map<string, Job>>();

/**
 * Goes on with finding what a change does, for a moment, and gives what is known so far; asked
 * again with the same it goes on from there, until it is done or nobody asks any more. Null while
 * no site is loaded.
 */
export function reachSoFar(view: SiteView, actor: Actor, input: ReachInput): Reach | null {
  permit(actor, 'read-unpublished', SITE);
  const jobs = JOBS.get(view) ?? new Map<string, Job>();
  JOBS.set(view, jobs);
  const key = JSON.stringify([totalGeneration(view.connection), input]);
  let job = jobs.get(key);
  if (!job) {
    const change = changeOf(view, input);
    if (!change) return null;
    if (jobs.size >= MOST_JOBS) jobs.delete(jobs.keys().next().value!);
    const reach = nothingFound(change);
    jobs.set(key, (job = { reach, work: finding(view, change, reach) }));
  }
  const until = performance.now() + SLICE_MS;
  while (!job.reach.done && performance.now() < until)
    if (job.work.next().done) job.reach.done = true;
  return job.reach;
}

/** The site as it is and as it would be, before anything is worked out. */
interface Change extends InOneLanguage {
  issues: Issue[];
}

/** The same in one language. */
interface InOneLanguage {
  at: Instant;
  before: Seen;
  site: CompiledSite;
  drafts: Draft[];
  /** Ids of the types whose entries may stand elsewhere. */
  types: ReadonlySet<string>;
}

function changeOf(view: SiteView, { at, steps, edits, drafts }: ReachInput): Change | null {
  const unsaved = steps.length > 0;
  const before = unsaved ? view.working(at) : view.at(at);
  if (!before) return null;
  const { site, issues } = unsaved
    ? withSteps(before.site, steps)
    : withChosen(view, before.site, edits);
  const types = typesToDealAnew(before.site.addresses, site.addresses);
  return { at, before, site, drafts: draftsOf(view, site, drafts), types, issues };
}

function nothingFound({ issues }: Change): Reach {
  return {
    done: false,
    looked: 0,
    of: 0,
    counts: { appears: 0, vanishes: 0, moves: 0, differs: 0 },
    examples: { appears: [], vanishes: [], moves: [], differs: [] },
    listings: [],
    issues,
    refused: { begin: 0, end: 0 },
    retimed: { total: 0, first: [] },
  };
}

/**
 * Finds what a change does, little by little: first, in each language, which addresses certainly
 * move, and where all stand, now and later; then what each page looks like.
 */
function* finding(view: SiteView, change: Change, reach: Reach): Generator<void> {
  const { at, before, site } = change;
  const versions: Versions[] = [];
  for (const part of languagesOf(view, change)) versions.push(yield* standing(view, part, reach));
  for (const retimed of findRetimed(view, [before.site, site], at)) {
    reach.retimed = retimed;
    yield;
  }
  const foretold = reach.counts.moves;
  const found = { moves: 0, looked: 0, of: 0 };
  for (const one of inSight(versions)) {
    const sofar = { ...found };
    for (const { looked, of, page, listing } of comparing(one, versions, at)) {
      Object.assign(found, { looked: sofar.looked + looked, of: sofar.of + of });
      Object.assign(reach, { looked: found.looked, of: Math.max(reach.of, found.of) });
      // Lists are told once: they have the same entries in every language.
      if (listing && one === versions[0]) reach.listings.push(listing);
      if (page) note(reach, page, found);
      reach.counts.moves = Math.max(foretold, found.moves);
      yield;
    }
  }
  reach.counts.moves = found.moves;
  reach.of = Math.max(reach.looked, found.of);
}

/** A change in each language that the site is in before or after, its own first. */
function languagesOf(view: SiteView, change: Change): LanguageChange[] {
  const { at, before, site } = change;
  const made = languagesMade(view.connection);
  const [was, is] = [before.site, site].map(
    ({ languages }) =>
      new Map(
        languages.flatMap((one) => (one.design.edition ? [[one.design.edition.id, one]] : [])),
      ),
  );
  const further = [...new Set([...was!.keys(), ...is!.keys()])].map((id): LanguageChange => {
    const [left, right] = [made.includes(id) ? was!.get(id) : undefined, is!.get(id)];
    return {
      ...{ at, drafts: [], own: before },
      before: left ? { site: left, reader: before.reader.in(left) } : null,
      site: right ?? null,
      types: left && right ? typesToDealAnew(left.addresses, right.addresses) : new Set(),
    };
  });
  return [{ ...change, own: before }, ...further];
}

/** A change in one language; null where the site is not in it before, or after. */
interface LanguageChange extends Omit<InOneLanguage, 'before' | 'site'> {
  before: Seen | null;
  site: CompiledSite | null;
  /** The site in its own language before. */
  own: Seen;
}

/** Works out where all stand in one language after a change. */
function* standing(
  view: SiteView,
  change: LanguageChange,
  reach: Reach,
): Generator<void, Versions> {
  const { at, before, site, drafts, types } = change;
  if (!site) return { before, after: null, more: [] };
  const seen = { site, reader: view.readerOf(site) };
  const moving = before ? liveOf(view, types, at, site.design.edition?.id) : [];
  reach.of += moving.length;
  const asked = before
    ? { drafts, moving, ...whatFollows(view, { ...change, site, before }) }
    : { drafts: standIns(change.own, site, liveOf(view, new Set(site.types.keys()), at), at) };
  const work = overlaying(view, seen, asked, at);
  const { overlay, refusals } = yield* foreseeing(work, at, reach);
  addClashes(view, { ...change, site, before: before ?? seen }, refusals, reach);
  yield;
  const after = { site, reader: withEntries(seen.reader, overlay) };
  return { before, after, more: [...moving, ...drafts.map(({ id }) => id)] };
}

/** Counts who certainly moves at an instant while it is worked out where all stand. */
function* foreseeing<T>(
  work: Generator<Foreseen | null, T>,
  at: Instant,
  reach: Reach,
): Generator<void, T> {
  for (;;) {
    const step = work.next();
    if (step.done) return step.value;
    if (reach.looked < reach.of) reach.looked += 1;
    if (step.value?.at === at) reach.counts.moves += 1;
    yield;
  }
}

function note(reach: Reach, page: NonNullable<Found['page']>, found: { moves: number }): void {
  const { change } = page;
  const count = change === 'moves' ? (found.moves += 1) : (reach.counts[change] += 1);
  if (count > EXAMPLES) return;
  const shown = page.show();
  reach.examples[change].push(count <= WHOLE ? shown : { ...shown, html: [null, null] });
}

/** Ids of the live entries of some types, in the site's own language or a further one. */
function liveOf(
  view: SiteView,
  types: ReadonlySet<string>,
  at: Instant,
  language?: string,
): string[] {
  const live = statement<string>(
    view.connection,
    `SELECT e.id FROM entry AS e JOIN ${tablesRead(view.connection, language).live} AS l ON l.entry = e.id AND ${asOf('l')}
       WHERE e.type = ?`,
  ).pluck();
  return [...types].flatMap((type) => live.all(at, at, type));
}

/** A released design with chosen edits, and what they are built on. */
function withChosen(
  view: SiteView,
  site: CompiledSite,
  chosen: number[],
): { site: CompiledSite; issues: Issue[] } {
  if (chosen.length === 0) return { site, issues: [] };
  const open = openEdits(view.connection);
  const { edits, stuck } = withNeeds(site.design, open, new Set(chosen));
  return {
    site: foldEdits(site.design, edits).site,
    issues: stuck.flatMap(({ issues }) => issues),
  };
}

/** What happens to the entries of some types after an instant, and the designs that take over. */
function whatFollows(
  { connection }: SiteView,
  { at, site, types }: InOneLanguage,
): { later: Map<Instant, Set<string>>; designs: { starts: Instant; site: CompiledSite }[] } {
  const designs = plannedOn(connection, site, at);
  if (types.size === 0) return { later: new Map(), designs };
  const later = new Map<Instant, Set<string>>();
  const acts = statement<{ at: Instant; entry: string }>(
    connection,
    `SELECT p.at, p.entry FROM planned_change AS p JOIN entry AS e ON e.id = p.entry
       WHERE e.type = @type AND p.at > @at
     UNION SELECT b.starts, b.entry FROM by_hand AS b JOIN entry AS e ON e.id = b.entry
       WHERE e.type = @type AND b.starts > @at
     UNION SELECT b.ends, b.entry FROM by_hand AS b JOIN entry AS e ON e.id = b.entry
       WHERE e.type = @type AND b.ends > @at`,
  );
  for (const type of types)
    for (const act of acts.all({ type, at }))
      later.set(act.at, (later.get(act.at) ?? new Set()).add(act.entry));
  return { later, designs };
}

/** The designs of planned releases with a change below them; what does not apply is left out. */
function plannedOn(
  connection: SiteView['connection'],
  site: CompiledSite,
  at: Instant,
): { starts: Instant; site: CompiledSite }[] {
  const rows = statement<{ starts: Instant; edits: string }>(
    connection,
    `SELECT starts, edits FROM design_version WHERE starts > ? AND edits IS NOT NULL
       ORDER BY starts, id`,
  ).all(at);
  let { design } = site.languages.find((own) => !own.design.edition) ?? site;
  return rows.map(({ starts, edits }) => {
    const all = (JSON.parse(edits) as DesignEdit[]).map((edit, id) => ({ id, edit }));
    const folded = foldEdits(design, all);
    ({ design } = folded);
    return { starts, site: folded.site };
  });
}

/** Notes the clashes of one language beside those of others. */
function addClashes(
  view: SiteView,
  change: InOneLanguage,
  refusals: readonly Refusal[],
  reach: Reach,
): void {
  const { issues, refused } = clashesOf(view, change, refusals, reach.issues);
  const { begin, end } = reach.refused;
  reach.issues = issues;
  reach.refused = { begin: begin + refused.begin, end: end + refused.end };
}

/** Clashes that begin and end, now and later: those that are found and those that are stored. */
function clashesOf(
  { connection }: SiteView,
  { at, types, site }: InOneLanguage,
  refusals: readonly Refusal[],
  issues: Issue[],
): Pick<Reach, 'refused' | 'issues'> {
  const stored = statement<string>(
    connection,
    `SELECT r.entry || char(10) || r.at FROM ${tablesRead(connection, site.design.edition?.id).refusal} AS r
       JOIN entry AS e ON e.id = r.entry WHERE e.type = ? AND r.at > ? AND r.code <> 'nothing-left'`,
  ).pluck();
  const before = new Set([...types].flatMap((type) => stored.all(type, at)));
  const found = refusals.filter(({ code }) => code !== 'nothing-left');
  const begin = found.filter((r) => !before.delete(`${r.entry}\n${r.at}`));
  const { language, zone } = site.design.site;
  const told = begin.slice(0, MOST_TOLD).map(({ entry, at: then, code, message, fix }): Issue => {
    const when = then > at ? `${formatStyled(then, 'medium', language, zone)}: ` : '';
    return { code, message: `${when}${entry}: ${message}`, fix };
  });
  return {
    issues: [...issues, ...told],
    refused: { begin: begin.length, end: before.size },
  };
}

/** How many clashes are told one by one. */
const MOST_TOLD = 5;
