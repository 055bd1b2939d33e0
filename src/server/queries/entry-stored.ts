import { and, eq, gt } from 'drizzle-orm';
import { nameOfLanguage } from '@/core/design/language-spec.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { EntryState } from '@/core/publication/model.ts';
import { stateAt } from '@/core/publication/state.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { Instant } from '@/core/time/interval.ts';
import { plannedChange, revision } from '../db/schema.ts';
import { asOf } from '../store/as-of.ts';
import { siteIn } from '../store/designs-ahead.ts';
import { tablesRead } from '../store/language-tables.ts';
import { statement } from '../store/statement.ts';
import { ownChanged, wordsChanged } from '../store/stored-values.ts';
import type { LifeSpan } from './life-span.ts';
import type { SiteView } from './site-view.ts';

/** A plan that lies ahead. */
export interface PlannedChange {
  id: number;
  at: Instant;
  action: 'publish' | 'retire';
  revision: number | null;
}

/** An entry in one of the site's languages. */
export interface LanguageTab {
  /** Id of the further language; null for the site's own. */
  id: string | null;
  label: string;
  state: EntryState;
}

type RevisionRow = { number: number; saved: number; author: string; name: string; values: string };

/** What is stored of an entry in a language, and what lies ahead. */
interface Stored {
  revisions: RevisionRow[];
  /** Those that read otherwise in the language than the one before. */
  written: RevisionRow[];
  spans: LifeSpan[];
  plans: PlannedChange[];
  refusals: { at: Instant; message: string; fix: string }[];
  path: string | null;
}

/** An entry as it is read in one of the site's languages. */
interface EntryRead {
  site: CompiledSite;
  type: ContentType;
  stored: Stored;
  /** What its newest revision is called; null where nothing was saved. */
  name: string | null;
  /** How it stands in each language, where the site is in several. */
  languages: LanguageTab[];
}

/** Which entry is read, as of when, in which language: its id; null for the site's own. */
interface Asked {
  id: string;
  at: Instant;
  now: Instant;
  language: string | null;
}

/** An entry of a type, by its id, in a language; null where there is no such type, or language. */
export function entryRead(view: SiteView, typeId: string, asked: Asked): EntryRead | null {
  const { at, language } = asked;
  const own = view.at(at)?.site;
  const site = own && (language === null ? own : siteIn(own, language));
  const whole = site?.types.get(typeId);
  if (!own || !site || !whole) return null;
  const read = (one: CompiledSite): Stored => storedOf(view, asked, one, own);
  const stored = read(site);
  const fields = whole.fields.filter(({ translated }) => translated);
  const tabs = own.languages.length < 2 ? [] : own.languages;
  const saved = language === null ? stored.revisions : read(own).revisions;
  return {
    ...{ site, stored },
    type: language === null ? whole : { ...whole, fields },
    name: saved.at(-1)?.name ?? null,
    languages: tabs.map((one) => tabOf(one, one === site ? stored : read(one), at)),
  };
}

function tabOf(
  { design }: CompiledSite,
  { written, spans }: Pick<Stored, 'written' | 'spans'>,
  at: Instant,
): LanguageTab {
  const { edition, site } = design;
  return {
    id: edition?.id ?? null,
    label: edition?.label ?? nameOfLanguage(site.language),
    state: stateAt({ revisions: written, intervals: spans }, at).state,
  };
}

/** In a further language revisions are those with other words than before. */
function storedOf(
  { connection }: SiteView,
  { id, at, now }: Asked,
  { design: { edition, site } }: CompiledSite,
  own: CompiledSite,
): Stored {
  const names = tablesRead(connection, edition?.id);
  const saved = connection.tables
    .select()
    .from(revision)
    .where(eq(revision.entry, id))
    .orderBy(revision.number)
    .all();
  const changed = edition ? wordsChanged : ownChanged;
  const written = own.languages.length < 2 ? saved : changed(saved, site.language);
  const further = new Set(own.languages.slice(1).map(({ design }) => design.site.language));
  const isHere = ({ language }: { language: string }): boolean =>
    edition ? language === site.language : !further.has(language);
  const wordsOf = (number: number): number =>
    written.findLast((one) => one.number <= number)?.number ?? number;
  const live = statement<LifeSpan & { language: string }>(
    connection,
    `SELECT starts AS "from", ends AS "to", language,
         ${edition ? 'revision' : 'max(revision, shared_revision)'} AS revision FROM ${names.live}
       WHERE entry = ? ORDER BY starts`,
  ).all(id);
  return {
    revisions: edition ? written : saved,
    written,
    spans: live
      .filter((span) => !edition || isHere(span))
      .map(({ from, to, revision: number }) => ({ from, to, revision: wordsOf(number) })),
    plans: plansAhead(connection, id, now).filter(isHere).map(planLine),
    refusals: statement<Stored['refusals'][number]>(
      connection,
      `SELECT at, message, fix FROM ${names.refusal} WHERE entry = ? AND at >= ? ORDER BY at`,
    ).all(id, at),
    path: pathOf(connection, names.address, id, at),
  };
}

type PlanRow = typeof plannedChange.$inferSelect;

function plansAhead({ tables }: SiteView['connection'], id: string, now: Instant): PlanRow[] {
  return tables
    .select()
    .from(plannedChange)
    .where(and(eq(plannedChange.entry, id), gt(plannedChange.at, now)))
    .orderBy(plannedChange.at, plannedChange.sequence)
    .all();
}

const planLine = ({ id, at, action, revision: number }: PlanRow): PlannedChange => ({
  ...{ id, at, action },
  revision: number,
});

function pathOf(
  connection: SiteView['connection'],
  table: string,
  id: string,
  at: Instant,
): string | null {
  const sql = `SELECT path FROM ${table} WHERE entry = ? AND role = 'current' AND ${asOf('')}`;
  return statement<string>(connection, sql).pluck().get(id, at, at) ?? null;
}
