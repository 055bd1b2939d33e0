import type { Connection } from '../db/connection.ts';
import type { EntryToLoad } from '../files/to-load.ts';
import type { SavedHistory } from '../files/read-history.ts';
import type { SiteToLoad } from '../files/read-site.ts';
import { type Contradiction, contradictions } from '../store/histories.ts';
import { derive } from '../store/derive.ts';
import { raisePublic, setSettled, write } from '../store/write.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { Refused } from './definition.ts';
import { doublyHeld, insertFacts, markPublished } from './load/insert-facts.ts';
import { clear, insertAll } from './load/insert-site.ts';
import { keepFiles } from './load/keep-files.ts';
import { inWords } from './run.ts';
import type { Issue, Result } from '@/core/issue.ts';
import { readKey } from '@/core/forecast/read-set.ts';
import { compileSite } from '@/core/site/compile.ts';
import type { AddressHistory, Refusal } from '@/core/address/model.ts';
import type { Instant } from '@/core/time/interval.ts';

/** What was loaded, and what the check found on the way. */
export interface Loaded {
  entries: number;
  pictures: number;
  /**
   * Addresses that kept their former path, publications that do nothing: what does not stand in
   * the way.
   */
  findings: Issue[];
}

/**
 * Replaces the whole site by a folder's, in one transaction: all of it or nothing. Plans that lie
 * in the past become facts. Refused where a publication could not have its address. `tell` hears
 * of each step as it begins.
 */
export function loadSite(
  connection: Connection,
  dataFolder: string,
  actor: Actor,
  site: SiteToLoad,
  wallClock: Instant,
  tell: (step: string) => void = () => undefined,
): Result<Loaded> {
  permit(actor, 'load', SITE);
  keepFiles(dataFolder, site.media);
  return inWords(() => ({
    entries: site.entries.length,
    pictures: site.media.filter(({ to }) => to === null).length,
    findings: write(connection, wallClock, (at) =>
      replaceSite(connection, { site, actor, at }, tell),
    ),
  }));
}

/** Puts a site in place of what is there; gives what is told of it. @throws Refused */
function replaceSite(
  connection: Connection,
  { site, actor, at }: { site: SiteToLoad; actor: Actor; at: Instant },
  tell: (step: string) => void,
): Issue[] {
  tell(`Writing ${site.entries.length} entries`);
  clear(connection);
  insertAll(connection, site, { actor, at });
  tell('Working out what is live when, and where');
  const refusals = site.history
    ? goOn(connection, site, site.history, tell)
    : workOut(connection, site, at, tell);
  const { design, subjects, media, everything } = readKey;
  raisePublic(connection, [design, subjects, media, everything]);
  const byId = new Map(site.entries.map((e) => [e.id, e]));
  return [...site.findings, ...refusals.map((r) => issueOf(r, byId))];
}

/** Works out all of the past and what is planned, as if the design had always held. */
function workOut(
  connection: Connection,
  site: SiteToLoad,
  at: Instant,
  tell: (step: string) => void,
): Refusal[] {
  const byId = new Map(site.entries.map((e) => [e.id, e]));
  const histories = historiesOf(site, at);
  const { refusals } = derive(connection, {
    site: compileSite(site.design).site,
    settled: at,
    touched: [],
    fromBeginning: true,
    histories,
    step: stepTeller(tell),
  });
  const certain = refusals.filter((r) => r.cancelled || r.byHand);
  const wrong = [
    ...certain.map((r) => issueOf(r, byId)),
    ...contradictions(connection, histories).map((c) => contradictionIssue(c, byId)),
  ];
  if (wrong.length > 0) throw new Refused(...wrong);
  return refusals;
}

/**
 * Has a saved site go on from its last change: what was so by then is copied, what lies ahead is
 * worked out.
 */
function goOn(
  connection: Connection,
  { entries, design }: SiteToLoad,
  { until }: SavedHistory,
  tell: (step: string) => void,
): Refusal[] {
  const byId = new Map(entries.map((e) => [e.id, e]));
  const added = insertFacts(connection, entries, design.site.language, until);
  const wrong = doublyHeld(connection, byId);
  if (wrong.length > 0) throw new Refused(...wrong);
  setSettled(connection, until);
  const { refusals } = derive(connection, {
    site: compileSite(design).site,
    settled: until,
    touched: added,
    everybody: true,
    step: stepTeller(tell),
  });
  markPublished(connection);
  const isAdded = new Set(added);
  const certain = refusals.filter((r) => isAdded.has(r.entry) && (r.cancelled || r.byHand));
  if (certain.length > 0) throw new Refused(...certain.map((r) => issueOf(r, byId)));
  return refusals.filter((r) => isAdded.has(r.entry));
}

/** The addresses that the folder says were held, by entry. */
function historiesOf({ entries }: SiteToLoad, until: Instant): Map<string, AddressHistory> {
  return new Map(entries.flatMap(({ id, held }) => (held ? [[id, { until, held }]] : [])));
}

function contradictionIssue(
  { entry, fact }: Contradiction,
  entries: ReadonlyMap<string, EntryToLoad>,
): Issue {
  const { raw, held } = entries.get(entry)!;
  const from = new Date(fact.from).toISOString();
  return {
    code: 'wrong-fact',
    path: raw.file,
    line: raw.lineOf(['entry', 'held', held!.indexOf(fact)]),
    message: `It cannot have held ${fact.path} from ${from}: it was not live all the while, or another entry held it.`,
    fix: 'Mend entry.live or the address, or leave entry.held out to have addresses worked out anew.',
  };
}

function issueOf(refusal: Refusal, entries: ReadonlyMap<string, EntryToLoad>): Issue {
  const raw = entries.get(refusal.entry)?.raw;
  const when = `At ${new Date(refusal.at).toISOString()}: `;
  return {
    code: refusal.code,
    ...(raw ? { path: raw.file, line: raw.lineOf(['entry', 'live']) } : {}),
    message: when + refusal.message,
    fix: refusal.fix,
  };
}

const TOLD_EVERY_MS = 5000;

/** Tells every few seconds how many addresses have been worked out. */
function stepTeller(tell: (step: string) => void): () => void {
  let count = 0;
  let last = Date.now();
  return () => {
    count++;
    if (count % 1000 !== 0 || Date.now() - last < TOLD_EVERY_MS) return;
    last = Date.now();
    tell(`${count} addresses worked out`);
  };
}
