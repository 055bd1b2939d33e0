import { computedOf } from './computed.ts';
import { rowOf } from '@/core/listing/columns.ts';
import { listedBy, othersBy } from '@/core/listing/evaluate.ts';
import { partFor } from '@/core/listing/parts.ts';
import type { ListingPlan } from '@/core/listing/plan.ts';
import type { PathPiece } from '@/core/address/pieces.ts';
import type { ContentType } from '@/core/design/spec.ts';
import { PRESETS, isListed } from '@/core/design/presets.ts';
import type { EntryView, Values } from '@/core/design/values.ts';
import type { Issue } from '@/core/issue.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { SiteReader } from '@/core/site/reader.ts';
import { pinOf, placeIn } from '@/core/site/pinned.ts';
import { renderEntry } from '@/core/site/render.ts';
import { type Instant, Validity } from '@/core/time/interval.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { valuesOfForm } from '../store/form-values.ts';
import { withEntries } from '../store/overlay-reader.ts';
import { statement } from '../store/statement.ts';
import type { Seeing } from './clock.ts';
import { entryName } from './display.ts';
import { type Prospect, entryWith, newestValues, prospectOf } from './preview.ts';
import { designSeen, readerSeeing, seenIn } from './drafts.ts';
import type { SiteView } from './site-view.ts';
import { asOf } from '../store/as-of.ts';

/** What an entry's page would be with the values of its form. */
export interface EntryOutcome {
  issues: Issue[];
  /** Values of computed fields, by field id. */
  computed: Record<string, string>;
  html: string | null;
  automatic: boolean;
  title: string;
  description: string | null;
  picture: string | null;
  /** Absolute address; null for an entry without a page. */
  url: string | null;
  path: string | null;
  pieces: PathPiece[];
  /**
   * Said before it is published: that its page moves, that others do, that its address cannot be
   * had.
   */
  warnings: string[];
  /** What the first line above the page says. */
  status: string;
  /** Whether it is public at the instant. */
  live: boolean;
  /** Listings that have the entry as of the instant, or would have it, with its place. */
  listed: { listing: string; label: string; place: number; isPinned: boolean }[];
  /** Whether it, or its type, says that no listing shows it. */
  keptOut: boolean;
}

/** What stands in a form, by field id; null for what was saved last. */
export interface FormValues {
  id: string | null;
  type: string;
  values: Record<string, unknown> | null;
  /** Id of the further language whose words they are; left out for the site's own. */
  language?: string | null | undefined;
}

/** The outcome of what stands in an entry's form as of an instant, whatever is published. */
export function entryOutcome(
  view: SiteView,
  actor: Actor,
  input: FormValues,
  at: Instant,
  seeing: Seeing,
): EntryOutcome | null {
  permit(actor, 'read-unpublished', input.id === null ? SITE : { of: 'entry', id: input.id });
  const own = designSeen(view, { at, seeing });
  const found = own && seenIn(own, input.language ?? null);
  const type = found?.site.types.get(input.type);
  if (!found || !type) return null;
  const { site, reader } = found;
  const { values, issues } = valuesGiven(view, actor, { site, type, at }, input);
  const draft = { id: input.id ?? `${type.key}-new`, type, values, author: actor.name };
  const live = reader.liveEntries([draft.id], new Validity(at)).get(draft.id);
  const same = live !== undefined && isSame(type, live.values, values);
  const prospect = prospectOf(view, site, draft, at);
  const entry = same ? live : entryWith(view, live, draft, prospect.path, at);
  const others = readerSeeing(view, { actor, at, seeing }, found, draft.id);
  const shown = same ? others : withEntries(others, { entries: [entry], moved: prospect.moved });
  const page = entry.path === null ? null : renderEntry(site, shown, entry, at);
  return {
    issues,
    computed: computedOf(site, shown, entry, at),
    html: page?.body ?? null,
    automatic: page?.automatic ?? false,
    title: page?.meta?.title ?? '',
    description: page?.meta?.description ?? null,
    ...addressed(site, page?.meta?.picture?.url, entry.path),
    path: entry.path,
    pieces: prospect.pieces,
    warnings: same ? [] : warningsOf(prospect),
    status: statusOf(type, entry, live !== undefined, same),
    listed: listedIn(site, shown, draft.id, type, at),
    keptOut: !isListed(entry),
    live: live !== undefined,
  };
}

/** The values that a form gives, with what keeps them from being saved; else what was saved. */
function valuesGiven(
  view: SiteView,
  { role }: Actor,
  { site, type, at }: { site: CompiledSite; type: ContentType; at: Instant },
  { id, values: form, language }: FormValues,
): { values: Values; issues: Issue[] } {
  const fields = language ? type.fields.filter(({ translated }) => translated) : type.fields;
  const asked = { now: at, entry: id, role };
  const given = form && valuesOfForm(view.connection, site, { ...type, fields }, form, asked);
  if (given && !language) return given;
  const saved = newestValues(view, type, id, at, site.design.site.language) ?? {};
  return { values: { ...saved, ...given?.values }, issues: given?.issues ?? [] };
}

/** What is said with the address of the site: the share picture below it, and the page's own. */
function addressed(
  { design }: CompiledSite,
  picture: string | undefined,
  path: string | null,
): Pick<EntryOutcome, 'picture' | 'url'> {
  const { url } = design.site;
  return { picture: picture?.slice(url.length) ?? null, url: path === null ? null : url + path };
}

function isSame({ fields }: ContentType, a: Values, b: Values): boolean {
  const text = (value: unknown): string => JSON.stringify(value ?? null);
  return [PRESETS, ...fields.map(({ id }) => id)].every((id) => text(a[id]) === text(b[id]));
}

function statusOf(type: ContentType, entry: EntryView, live: boolean, same: boolean): string {
  if (entry.path === null)
    return type.address === undefined
      ? `${type.label} entries have no page of their own; they stand in listings and on other pages.`
      : 'It would have no address, and so no page.';
  if (same) return 'Live page';
  return live
    ? 'As the form has it; visitors see what was published before'
    : 'As the form has it; not live at this instant';
}

function warningsOf({ from, path, moved: { size: others }, refusal }: Prospect): string[] {
  const words: string[] = [];
  if (refusal) words.push(`${refusal.message} ${refusal.fix}`);
  if (from !== null && path !== null && from !== path)
    words.push(`Publishing moves the page from ${from} to ${path}; the old address leads on.`);
  if (others > 0)
    words.push(`${others} other ${others === 1 ? 'page moves' : 'pages move'} with it.`);
  return words;
}

/** The listings that have an entry as of an instant, and where in them. */
function listedIn(
  site: CompiledSite,
  reader: SiteReader,
  id: string,
  type: ContentType,
  at: Instant,
): EntryOutcome['listed'] {
  return [...site.listings.values()].flatMap((plan) => {
    if (!partFor(plan, type.id)) return [];
    const place = nthIn(reader, plan, id, at);
    const { key, label } = plan.listing;
    const isPinned = pinOf(plan, id, at) !== null;
    return place === null ? [] : [{ listing: key, label, place, isPinned }];
  });
}

/** An entry's place in a listing, from 1; null where it is not in it. */
function nthIn(reader: SiteReader, plan: ListingPlan, id: string, at: Instant): number | null {
  const validity = new Validity(at);
  const others = othersBy((entry) => reader.liveEntries([entry], validity).get(entry) ?? null);
  const entry = reader.liveEntries([id], validity).get(id);
  const passes = listedBy(plan, at, reader.filterWorld(at), others);
  if (!entry || !passes(rowOf(entry))) return null;
  const place = placeIn(reader, plan, entry, validity);
  return place === null ? null : place + 1;
}

/** The line after saving or publishing: where an entry can be seen now. */
export function whereSeen(
  view: SiteView,
  actor: Actor,
  id: string,
  at: Instant,
  language: string | null = null,
): string {
  permit(actor, 'read-unpublished', { of: 'entry', id });
  const own = view.at(at);
  const found = own && seenIn(own, language);
  const live = found?.reader.liveEntries([id], new Validity(at)).get(id);
  if (!found || !live) return `${entryName(view, id)} is not public at the moment.`;
  const listed = listedIn(found.site, found.reader, id, live.type, at).map(({ label, place }) =>
    place === 1 ? `first in ${label}` : `number ${place} in ${label}`,
  );
  const places = [...(live.path === null ? [] : [`at ${live.path}`]), ...listed];
  return places.length === 0 ? 'Live.' : `Live ${places.join(', ')}.`;
}

/** What retiring or deleting an entry takes from the site. */
export interface RetireReach {
  path: string | null;
  /** What its address answers afterwards. */
  answers: string;
  /** Former addresses that lead to it now. */
  former: number;
  listed: string[];
  /** Live entries that point at it. */
  referring: { id: string; name: string }[];
  referringTotal: number;
}

const REFERRING = 5;

/**
 * What retiring an entry at an instant takes from the site: its page, what leads there, its
 * places.
 */
export function retireReach(view: SiteView, actor: Actor, id: string, at: Instant): RetireReach {
  permit(actor, 'read-unpublished', { of: 'entry', id });
  const found = view.at(at);
  const live = found?.reader.liveEntries([id], new Validity(at)).get(id);
  const rows = statement<{ id: string }>(
    view.connection,
    `SELECT DISTINCT l.entry AS id FROM reference_edge AS e JOIN live_interval AS l
       ON l.entry = e.entry AND l.revision = e.revision AND ${asOf('l', '@at')}
     WHERE e.target = @id AND e.entry <> @id`,
  ).all({ id, at });
  const former = statement<number>(
    view.connection,
    `SELECT count(DISTINCT path) FROM address WHERE entry = ? AND ends <= ? AND path <> ?`,
  );
  const retired = live?.type.retired ?? 'gone';
  return {
    path: live?.path ?? null,
    answers:
      retired === 'gone'
        ? 'answers 410: gone'
        : `leads to ${'path' in retired ? retired.path : `the listing “${retired.listing}”`}`,
    former: former.pluck().get(id, at, live?.path ?? '')!,
    listed: live ? listedIn(found!.site, found!.reader, id, live.type, at).map((l) => l.label) : [],
    referring: rows.slice(0, REFERRING).map((r) => ({ id: r.id, name: entryName(view, r.id) })),
    referringTotal: rows.length,
  };
}
