import { typesToDealAnew } from '@/core/address/rules.ts';
import { foldEdits, withNeeds } from '@/core/design-edit/fold.ts';
import type { Step } from '@/core/design-edit/steps.ts';
import {
  type ChangedListing,
  type ChangedPage,
  type Found,
  type PageChange,
  type Version,
  reachOf,
} from '@/core/forecast/reach.ts';
import type { Issue } from '@/core/issue.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { Instant } from '@/core/time/interval.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { asOf } from '../store/as-of.ts';
import { openEdits } from '../store/bench.ts';
import { withEntries } from '../store/overlay-reader.ts';
import { statement } from '../store/statement.ts';
import { totalGeneration } from '../store/write.ts';
import { draftsOf } from './drafts.ts';
import { type Draft, overlayWith } from './preview.ts';
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
export type ReachExample = ChangedPage;

/** What is known so far of what a change does; counts are "at least" until it is done. */
export interface Reach {
  done: boolean;
  looked: number;
  of: number;
  counts: Record<PageChange, number>;
  examples: Record<PageChange, ReachExample[]>;
  listings: ChangedListing[];
  /** What could not have its address, and what does not apply. */
  issues: Issue[];
}

/** How long one answer may take, ms: others ask the same thread. */
const SLICE_MS = 150;
const EXAMPLES = 5;
/** Examples of each kind that are shown whole. */
const WHOLE = 2;
const MOST_JOBS = 4;

interface Job {
  reach: Reach;
  work: Generator<Found>;
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
    const started = start(view, input);
    if (!started) return null;
    if (jobs.size >= MOST_JOBS) jobs.delete(jobs.keys().next().value!);
    jobs.set(key, (job = started));
  }
  const until = performance.now() + SLICE_MS;
  while (!job.reach.done && performance.now() < until) advance(job);
  return job.reach;
}

function advance({ reach, work }: Job): void {
  const next = work.next();
  if (next.done) {
    reach.done = true;
    return;
  }
  const { looked, of, page, listing } = next.value;
  Object.assign(reach, { looked, of });
  if (listing) reach.listings.push(listing);
  if (!page) return;
  const count = (reach.counts[page.change] += 1);
  if (count > EXAMPLES) return;
  const html: ReachExample['html'] = count <= WHOLE ? page.html : [null, null];
  reach.examples[page.change].push({ ...page, html });
}

function start(view: SiteView, input: ReachInput): Job | null {
  const compared = versions(view, input);
  if (!compared) return null;
  const { before, after, moving, issues } = compared;
  const reach: Reach = {
    done: false,
    looked: 0,
    of: 0,
    counts: { appears: 0, vanishes: 0, moves: 0, differs: 0 },
    examples: { appears: [], vanishes: [], moves: [], differs: [] },
    listings: [],
    issues,
  };
  return { reach, work: reachOf(before, after, input.at, moving) };
}

interface Compared {
  before: Version;
  after: Version;
  /** Entries that may stand elsewhere afterwards. */
  moving: string[];
  issues: Issue[];
}

/** The site as it is and as it would be. */
function versions(view: SiteView, input: ReachInput): Compared | null {
  const { at, steps } = input;
  const unsaved = steps.length > 0;
  const current = unsaved ? view.working(at) : view.at(at);
  if (!current) return null;
  const { site, issues } = unsaved
    ? withSteps(current.site, steps)
    : withChosen(view, current.site, input.edits);
  const drafts = draftsOf(view, site, input.drafts);
  const moving = mayMove(view, current.site, site, at);
  const seen = { site, reader: view.readerOf(site) };
  const { overlay, refusals } = overlayWith(view, seen, { drafts, moving }, at);
  const refused = refusals
    .filter(({ code }) => code !== 'nothing-left')
    .map(({ entry, code, message, fix }): Issue => ({
      code,
      message: `${entry}: ${message}`,
      fix,
    }));
  return {
    before: { site: current.site, reader: current.reader },
    after: { site, reader: withEntries(seen.reader, overlay) },
    moving: [...moving, ...drafts.map(({ id }: Draft) => id)],
    issues: [...issues, ...refused.slice(0, 20)],
  };
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

/** Live entries whose addresses may be others by another design. */
function mayMove(view: SiteView, before: CompiledSite, after: CompiledSite, at: Instant): string[] {
  const live = statement<string>(
    view.connection,
    `SELECT e.id FROM entry AS e JOIN live_interval AS l ON l.entry = e.id AND ${asOf('l')}
       WHERE e.type = ?`,
  ).pluck();
  const types = typesToDealAnew(before.addresses, after.addresses);
  return [...types].flatMap((type) => live.all(at, at, type));
}
