import { ORDER } from '@/core/design/other-order.ts';
import { PRESETS } from '@/core/design/presets.ts';
import type { ContentType } from '@/core/design/spec.ts';
import { letIn } from '@/core/design/let-in.ts';
import { takenOver } from '@/core/design/taken-over.ts';
import { stateAt } from '@/core/publication/state.ts';
import type { EntryState } from '@/core/publication/model.ts';
import type { Instant } from '@/core/time/interval.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { personName } from '../store/persons.ts';
import { starterOf } from '../store/starters.ts';
import { statement } from '../store/statement.ts';
import { valuesOfType } from '../store/stored-values.ts';
import { type LanguageTab, type PlannedChange, entryRead } from './entry-stored.ts';
import type { LifeSpan } from './life-span.ts';
import { type FormType, defaultsOf, formType } from './form-type.ts';
import { withMeantSubjects } from './meant-subjects.ts';
import { type Begun, type Here, begunHere } from './new-here.ts';
import { type EntryPicks, entryPicks } from './picks.ts';
import type { SiteView } from './site-view.ts';

/** All that the entry screen shows. */
export interface EntryDetail {
  id: string | null;
  type: FormType;
  /** By field id, as the form edits them. */
  values: Record<string, unknown>;
  name: string;
  /** The newest revision's number, and who saved it; null for a new entry. */
  revision: number | null;
  author: string | null;
  saved: Instant | null;
  state: EntryState;
  spans: LifeSpan[];
  plans: PlannedChange[];
  /** What timing rules of its type will do. */
  byRules: Pick<PlannedChange, 'at' | 'action'>[];
  /** All picks, each with when it stands in them. */
  picks: EntryPicks[];
  refusals: { at: Instant; message: string; fix: string }[];
  /** Id of the further language that is shown; null for the site's own. */
  language: string | null;
  /** How it stands in each language, where the site is in several. */
  languages: LanguageTab[];
  path: string | null;
  /**
   * What a new one was begun from, or where it is to stand, the fields left blank since no two may share them, and those whose
   * texts had more than may be put into them.
   */
  like?: (Omit<Begun, 'values'> & { less: string[] }) | null;
}

/**
 * An entry as of an instant: what was newest then; the newest of all for instants ahead. Null
 * where there is none.
 */
export function entryDetail(
  view: SiteView,
  actor: Actor,
  id: string,
  at: Instant,
  now: Instant,
  language: string | null = null,
): EntryDetail | null {
  permit(actor, 'read-unpublished', { of: 'entry', id });
  const found = `SELECT type FROM entry WHERE id = ? AND (deleted IS NULL OR deleted > ?)`;
  const key = statement<string>(view.connection, found).pluck().get(id, at);
  const there = key === undefined ? null : entryRead(view, key, { id, at, now, language });
  if (!there) return null;
  const { site, type, languages, stored: all, name } = there;
  const { revisions, written, ...stored } = all;
  const shown = revisions.findLast((r) => r.saved <= at) ?? revisions[0];
  const newest = written.at(-1);
  const read = valuesOfType(type, shown?.values ?? '{}', site.design.site);
  const values = withMeantSubjects(type.fields, read, view.subjects(at));
  return {
    id,
    type: formType(view, type, values, { at, entry: id, role: actor.role }),
    values: {
      ...Object.fromEntries(type.fields.map((f) => [f.id, values[f.id] ?? null])),
      [PRESETS]: values[PRESETS] ?? null,
      [ORDER]: values[ORDER] ?? null,
    },
    name: shown?.name ?? name ?? id,
    revision: newest?.number ?? null,
    author: newest ? personName(view.connection, newest.author) : null,
    saved: shown?.saved ?? null,
    state: stateAt({ revisions: written, intervals: stored.spans }, at).state,
    language,
    languages,
    byRules: type.timing ? byRules(stored, now) : [],
    picks: entryPicks(view, { id, type }, { at, past: at < now }),
    ...stored,
  };
}

/** Starts and ends of what will be live that nobody planned. */
function byRules(
  { spans, plans }: Pick<EntryDetail, 'spans' | 'plans'>,
  now: Instant,
): EntryDetail['byRules'] {
  const starts = new Set(spans.map(({ from }) => from));
  const isPlanned = (at: Instant, action: PlannedChange['action']): boolean =>
    plans.some((plan) => plan.at === at && plan.action === action);
  return spans.flatMap(({ from, to }) => [
    ...(from > now && !isPlanned(from, 'publish')
      ? [{ at: from, action: 'publish' as const }]
      : []),
    ...(to !== null && to > now && !starts.has(to) && !isPlanned(to, 'retire')
      ? [{ at: to, action: 'retire' as const }]
      : []),
  ]);
}

/** What a new entry begins with, besides what its type says. */
export type Like =
  | {
      /** The entry that it is like. */
      entry: string;
      /** Ids of the fields that it takes over; null for all. */
      fields: readonly string[] | null;
    }
  /** Id of the starter that it is begun from. */
  | { starter: string }
  /** Where it is to stand. */
  | Here;

/**
 * A form for a new entry of a type, with the defaults of its fields, or with what another one of the
 * type holds. Null where there is no such type.
 */
export function newEntry(
  view: SiteView,
  actor: Actor,
  key: string,
  at: Instant,
  like: Like | null = null,
): EntryDetail | null {
  const site = view.at(at)?.site;
  const type = site?.typesByKey.get(key);
  permit(actor, 'write-entry', type ? { of: 'type', id: type.id } : SITE);
  if (!type) return null;
  const found = like ? valuesLike(view, type, like, at) : null;
  const begun = found && { ...found, ...letIn(type.fields, found.values, actor.role) };
  const values = { ...defaultsOf(type.fields, site!.design.site.zone, at), ...begun?.values };
  return {
    id: null,
    type: formType(view, type, values, { at, entry: null, role: actor.role }),
    like: begun && likeOf(begun),
    values,
    name: '',
    revision: null,
    author: null,
    saved: null,
    state: 'not yet written',
    spans: [],
    plans: [],
    byRules: [],
    picks: entryPicks(view, { id: null, type }, { at, past: false }),
    refusals: [],
    language: null,
    languages: [],
    path: null,
  };
}

const likeOf = ({ name, blank, stands, joins, less }: Begun & { less: string[] }) => ({
  ...{ name, blank, less },
  ...(stands ? { stands } : {}),
  ...(joins ? { joins } : {}),
});

/** What a new entry begins with; null where that is not there, or of another type. */
function valuesLike(view: SiteView, type: ContentType, like: Like, at: Instant): Begun | null {
  const { site } = view.at(at)!.site.design;
  if ('here' in like) return begunHere(view, type, like.here, at);
  if ('starter' in like) {
    const row = starterOf(view.connection, like.starter);
    if (row?.type !== type.id) return null;
    const taken = takenOver(type, valuesOfType(type, row.filled, site));
    const filled = Object.entries(taken).filter(([, value]) => value !== null);
    return { name: row.name, blank: [], values: Object.fromEntries(filled) };
  }
  const sql = `SELECT r.name, r."values" AS json FROM entry AS e
    JOIN revision AS r ON r.entry = e.id AND r.number = e.newest
    WHERE e.id = ? AND e.type = ? AND e.deleted IS NULL`;
  const read = statement<{ name: string; json: string }>(view.connection, sql);
  const row = read.get(like.entry, type.id);
  if (!row) return null;
  const all = valuesOfType(type, row.json, site);
  const { fields } = like;
  const wanted = type.fields.filter(({ id }) => fields === null || fields.includes(id));
  return {
    name: row.name,
    blank: wanted.filter((f) => f.unique && (all[f.id] ?? null) !== null).map(({ label }) => label),
    values: takenOver({ fields: wanted }, fields === null ? all : { ...all, [PRESETS]: null }),
  };
}
