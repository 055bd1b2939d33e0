import { and, eq, gt, gte } from 'drizzle-orm';
import { ORDER } from '@/core/design/other-order.ts';
import { PRESETS, type Presets } from '@/core/design/presets.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { Field } from '@/core/design/field.ts';
import { letIn } from '@/core/design/let-in.ts';
import type { Role } from '@/core/design/roles.ts';
import { mentionsOf, parseValue, targetOf } from '@/core/design/field-values.ts';
import { shownWhen } from '@/core/design/shown.ts';
import { kindOf } from '@/core/design/kinds/index.ts';
import { takenOver } from '@/core/design/taken-over.ts';
import { isPart } from '@/core/design/text-form.ts';
import { type Values, valuesOf } from '@/core/design/values.ts';
import { paragraphsOf } from '@/core/rich-text/index.ts';
import { stateAt } from '@/core/publication/state.ts';
import type { EntryState } from '@/core/publication/model.ts';
import type { Instant } from '@/core/time/interval.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { liveInterval, plannedChange, refusal, revision } from '../db/schema.ts';
import { personName } from '../store/persons.ts';
import { starterOf } from '../store/starters.ts';
import { statement } from '../store/statement.ts';
import { valuesOfType } from '../store/stored-values.ts';
import type { LifeSpan } from './life-span.ts';
import { entryName } from './display.ts';
import { notesOf } from './field-notes.ts';
import { type FormField, entriesOf } from './form-field.ts';
import { withMeantSubjects } from './meant-subjects.ts';
import { optionsOf } from './offers.ts';
import { textOffer } from './text-offer.ts';
import { type EntryPicks, entryPicks } from './picks.ts';
import type { SiteView } from './site-view.ts';
import { asOf } from '../store/as-of.ts';

/** A plan that lies ahead. */
export interface PlannedChange {
  id: number;
  at: Instant;
  action: 'publish' | 'retire';
  revision: number | null;
}

/** All that the entry screen shows. */
export interface EntryDetail {
  id: string | null;
  type: {
    id: string;
    key: string;
    label: string;
    hasPages: boolean;
    /** What its entries begin with. */
    presets: Required<Omit<Presets, 'listed' | 'template'>> & Pick<Presets, 'listed'>;
    /** Its page template, and those that entries may choose in its place. */
    template: string;
    templates: { id: string; label: string }[];
    fields: FormField[];
  };
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
  path: string | null;
  /**
   * What a new one was begun from, the fields left blank since no two may share them, and those whose
   * texts had more than may be put into them.
   */
  like?: { name: string; blank: string[]; less: string[] } | null;
}

type RevisionRow = { number: number; saved: number; author: string; name: string; values: string };

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
): EntryDetail | null {
  permit(actor, 'read-unpublished', { of: 'entry', id });
  const found = `SELECT type FROM entry WHERE id = ? AND (deleted IS NULL OR deleted > ?)`;
  const key = statement<string>(view.connection, found).pluck().get(id, at);
  const site = view.at(at)?.site;
  const type = key === undefined ? undefined : site?.types.get(key);
  if (!site || !type) return null;
  const { revisions, ...stored } = storedOf(view, id, at, now);
  const shown = revisions.findLast((r) => r.saved <= at) ?? revisions[0];
  const newest = revisions.at(-1);
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
    name: shown?.name ?? id,
    revision: newest?.number ?? null,
    author: newest ? personName(view.connection, newest.author) : null,
    saved: shown?.saved ?? null,
    state: stateAt({ revisions, intervals: stored.spans }, at).state,
    byRules: type.timing ? byRules(stored, now) : [],
    picks: entryPicks(view, { id, type }, { at, past: at < now }),
    ...stored,
  };
}

type Stored = Pick<EntryDetail, 'spans' | 'plans' | 'refusals' | 'path'> & {
  revisions: RevisionRow[];
};

/** What is stored of an entry: all its revisions and intervals, and what lies ahead. */
function storedOf(view: SiteView, id: string, at: Instant, now: Instant): Stored {
  const { tables } = view.connection;
  return {
    revisions: tables
      .select()
      .from(revision)
      .where(eq(revision.entry, id))
      .orderBy(revision.number)
      .all(),
    spans: tables
      .select({ from: liveInterval.starts, to: liveInterval.ends, revision: liveInterval.revision })
      .from(liveInterval)
      .where(eq(liveInterval.entry, id))
      .orderBy(liveInterval.starts)
      .all(),
    plans: tables
      .select()
      .from(plannedChange)
      .where(and(eq(plannedChange.entry, id), gt(plannedChange.at, now)))
      .orderBy(plannedChange.at, plannedChange.sequence)
      .all()
      .map(({ id: plan, at: when, action, revision: number }) => ({
        id: plan,
        at: when,
        action,
        revision: number,
      })),
    refusals: tables
      .select({ at: refusal.at, message: refusal.message, fix: refusal.fix })
      .from(refusal)
      .where(and(eq(refusal.entry, id), gte(refusal.at, at)))
      .orderBy(refusal.at)
      .all(),
    path: statement<string>(view.connection, PATH).pluck().get(id, at, at) ?? null,
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

const PATH = `SELECT path FROM address WHERE entry = ? AND role = 'current' AND ${asOf('')}`;

/** What a new entry begins with, besides what its type says. */
export type Like =
  | {
      /** The entry that it is like. */
      entry: string;
      /** Ids of the fields that it takes over; null for all. */
      fields: readonly string[] | null;
    }
  /** Id of the starter that it is begun from. */
  | { starter: string };

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
    like: begun && { name: begun.name, blank: begun.blank, less: begun.less },
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
    path: null,
  };
}

/** What a new entry begins with of another one, or of a starter. */
type Begun = { values: Values; name: string; blank: string[] };

/** What a new entry begins with; null where that is not there, or of another type. */
function valuesLike(view: SiteView, type: ContentType, like: Like, at: Instant): Begun | null {
  const { site } = view.at(at)!.site.design;
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

/** What a new entry, or item of a group, starts with; `today` is that of the instant. */
function defaultsOf(fields: readonly Field[], zone: string, now: Instant): Values {
  return Object.fromEntries(
    fields.map((f) => {
      if (f.fields) return [f.id, f.many ? null : defaultsOf(f.fields, zone, now)];
      const read = parseValue(f.default, f, { now, zone, richText: paragraphsOf });
      return [f.id, read.ok ? read.value : null];
    }),
  );
}

function setOf(view: SiteView, key: string, at: Instant): { set: string; language: string } {
  const { design, setIds } = view.at(at)!.site;
  return { set: setIds.get(key) ?? key, language: design.site.language };
}

function limitsOf({ maxLength, min, max, decimals, unit }: Field): FormField['limits'] {
  return { maxLength, min, max, decimals, unit };
}

/** As of when a form is made, for whom, and for which entry; null for a new one. */
interface Asked {
  at: Instant;
  entry: string | null;
  /** Id of the type that the fields are of. */
  type: string;
  /** Of whoever fills it in. */
  role: Role;
}

/** A type as a form has it, for what the form holds. */
export function formType(
  view: SiteView,
  type: ContentType,
  values: Values,
  asked: Omit<Asked, 'type'>,
): EntryDetail['type'] {
  const fields = formFields(view, type.fields, values, { ...asked, type: type.id });
  return {
    id: type.id,
    key: type.key,
    label: type.label,
    hasPages: type.address !== undefined,
    presets: presetsOfType(view, type, asked.at),
    ...templatesOfType(view, type, asked.at),
    fields,
  };
}

/** What entries of a type begin with, by the type or the site. */
function presetsOfType(view: SiteView, { key, presets }: ContentType, at: Instant) {
  const seo = view.at(at)?.site.seo.types.get(key);
  const { index = true, follow = true, sitemap = true } = seo ?? {};
  return { ...presets, index, follow, sitemap };
}

/** The page template of a type, by name, and those that its entries may choose. */
function templatesOfType(
  view: SiteView,
  { template: own, templates: further = [] }: ContentType,
  at: Instant,
): Pick<EntryDetail['type'], 'template' | 'templates'> {
  const all = view.at(at)?.site.design.templates ?? [];
  const chosen = all.filter(({ key }) => further.includes(key));
  return {
    template: all.find(({ key }) => key === own)?.label ?? 'the automatic page',
    templates: chosen.map(({ id, label }) => ({ id, label })),
  };
}

/** Fields as a form has them, those of groups within theirs. */
export function formFields(
  view: SiteView,
  all: readonly Field[],
  values: Values,
  asked: Asked,
): FormField[] {
  const { at, entry } = asked;
  return all.map((f): FormField => {
    const target = targetOf(f);
    const named = mentionsOf(values, f).filter((m) => m.of === 'entry');
    return {
      id: f.id,
      key: f.key,
      label: f.label,
      control: f.control ?? kindOf(f).control,
      section: f.section,
      half: f.half,
      hidden: f.hidden,
      shownWhen: shownWhen(f, all),
      limits: limitsOf(f),
      required: f.required,
      many: f.many,
      formats: f.formats,
      maxKilobytes: f.maxKilobytes,
      help: f.help ?? null,
      notes: notesOf(view, f, all, { at, entry }),
      options: optionsOf(view, f, at),
      ...(target?.of === 'subjects' ? { subjects: setOf(view, target.set, at) } : {}),
      ...(target?.of === 'entries' ? entriesOf(view, target.types, at) : {}),
      names: Object.fromEntries(named.map(({ key }) => [key, entryName(view, key)])),
      ...(f.kind === 'richtext' ? { text: textOffer(view, f, named, asked) } : {}),
      ...(f.fields ? groupOf(view, f, values, asked) : {}),
    };
  });
}

/** The form of a part of a text: its fields, with what this one of them holds. */
export function partForm(
  view: SiteView,
  actor: Actor,
  { type: id, values, entry }: { type: string; values: Values; entry: string | null },
  at: Instant,
): { fields: FormField[]; starts: Values } | null {
  permit(actor, 'read-unpublished', SITE);
  const site = view.at(at)?.site;
  const type = site?.types.get(id);
  if (!type || !isPart(type)) return null;
  return {
    fields: formFields(view, type.fields, values, { at, entry, type: id, role: actor.role }),
    starts: defaultsOf(type.fields, site!.design.site.zone, at),
  };
}

/** What the form of a group has besides: its fields, and what a new item starts with. */
function groupOf(
  view: SiteView,
  { id, fields = [] }: Field,
  values: Values,
  asked: Asked,
): Required<Pick<FormField, 'fields' | 'starts'>> {
  const items = valuesOf(values, id) as Values[];
  const together = fields.map((f) => [f.id, items.flatMap((item) => valuesOf(item, f.id))]);
  const { zone } = view.at(asked.at)!.site.design.site;
  return {
    fields: formFields(view, fields, Object.fromEntries(together), asked),
    starts: defaultsOf(fields, zone, asked.at),
  };
}
