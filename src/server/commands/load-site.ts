import { copyFileSync, existsSync, mkdirSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import type { Connection } from '../db/connection.ts';
import type { EntryToLoad } from '../files/interpret-entry.ts';
import type { SiteToLoad } from '../files/read-site.ts';
import type { ReadMedia } from '../files/read-media.ts';
import { type Contradiction, contradictions } from '../store/histories.ts';
import { storeRelease } from '../store/design-store.ts';
import { derive } from '../store/derive.ts';
import { revisionWriter } from '../store/revision-writer.ts';
import { statement } from '../store/statement.ts';
import { raisePublic, write } from '../store/write.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { Refused } from './definition.ts';
import { inWords } from './run.ts';
import type { Issue, Result } from '@/core/issue.ts';
import { readKey } from '@/core/forecast/read-set.ts';
import { compileSite } from '@/core/site/compile.ts';
import type { AddressHistory, Refusal } from '@/core/address/model.ts';
import { type Instant, BEGINNING } from '@/core/time/interval.ts';

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
    pictures: site.media.length,
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
  const byId = new Map(site.entries.map((e) => [e.id, e]));
  tell(`Writing ${site.entries.length} entries`);
  clear(connection);
  insertAll(connection, site, { actor, at });
  tell('Working out what is live when, and where');
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
  const { design, subjects, media, everything } = readKey;
  raisePublic(connection, [design, subjects, media, everything]);
  return [...site.findings, ...refusals.map((r) => issueOf(r, byId))];
}

/** Copies files under their hash; a file that is there already is the same file. */
function keepFiles(dataFolder: string, media: ReadMedia[]): void {
  const folder = join(dataFolder, 'media');
  mkdirSync(folder, { recursive: true });
  for (const { hash, source } of media) {
    const target = join(folder, hash);
    if (existsSync(target)) continue;
    try {
      copyFileSync(source, `${target}.new`);
      renameSync(`${target}.new`, target);
    } catch (error) {
      rmSync(`${target}.new`, { force: true });
      throw error;
    }
  }
}

const CONTENT = [
  'address',
  'live_interval',
  'planned_change',
  'by_hand',
  'reference_edge',
  'refusal',
  'revision',
  'entry',
  'subject',
  'media',
  'design_version',
  'design_edit',
];

function clear({ driver }: Connection): void {
  for (const table of CONTENT) driver.exec(`DELETE FROM ${table}`);
  const names = driver
    .prepare<unknown[], string>(
      `SELECT name FROM sqlite_master WHERE type = 'table' AND (name LIKE 'index\\_%' ESCAPE '\\' OR name LIKE 'member\\_%' ESCAPE '\\')`,
    )
    .pluck()
    .all();
  for (const name of names) driver.exec(`DROP TABLE "${name.replaceAll('"', '""')}"`);
  driver.exec(`DELETE FROM meta WHERE key LIKE 'index:%'`);
}

function insertAll(
  connection: Connection,
  site: SiteToLoad,
  { actor, at }: { actor: Actor; at: Instant },
): void {
  storeRelease(connection, {
    design: site.design,
    starts: BEGINNING,
    author: actor.id,
    saved: at,
  });
  insertSubjects(connection, site);
  insertMedia(connection, site.media);
  insertEntries(connection, site);
}

function insertSubjects(connection: Connection, { subjects, design }: SiteToLoad): void {
  const setIds = new Map(design.subjectSets.map(({ key, id }) => [key, id]));
  const subject = statement(
    connection,
    'INSERT INTO subject ("set", key, name, slug, description, parent, position) VALUES (?, ?, ?, ?, ?, ?, ?)',
  );
  subjects.forEach((s, i) =>
    subject.run(setIds.get(s.set) ?? s.set, s.key, s.name, s.slug, s.description, s.parent, i),
  );
}

function insertMedia(connection: Connection, pictures: ReadMedia[]): void {
  const media = statement(
    connection,
    'INSERT INTO media (id, hash, alt, width, height, mime, bytes) VALUES (?, ?, ?, ?, ?, ?, ?)',
  );
  for (const m of pictures) media.run(m.id, m.hash, m.alt, m.width, m.height, m.mime, m.bytes);
}

function insertEntries(connection: Connection, { entries, design }: SiteToLoad): void {
  const { language } = design.site;
  const entry = statement(
    connection,
    'INSERT INTO entry (id, type, created, author) VALUES (?, ?, ?, ?)',
  );
  for (const e of entries) entry.run(e.id, e.type.id, e.created, e.author);
  const writeRevision = revisionWriter(connection, language);
  const plan = statement(
    connection,
    'INSERT INTO planned_change (entry, language, at, sequence, action, revision, person) VALUES (?, ?, ?, ?, ?, ?, ?)',
  );
  const byHand = statement(
    connection,
    'INSERT INTO by_hand (entry, path, starts, ends) VALUES (?, ?, ?, ?)',
  );
  for (const e of entries) {
    for (const revision of e.revisions) writeRevision(e.id, e.type, revision);
    for (const p of e.plans) plan.run(e.id, language, p.at, p.sequence, p.do, p.revision, e.author);
    for (const h of e.byHand) byHand.run(e.id, h.path, h.from, h.to);
  }
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
