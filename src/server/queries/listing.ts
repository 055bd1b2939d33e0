import { type Actor, permit } from '../commands/permit.ts';
import { applyEdit } from '../commands/release-design.ts';
import { withEntries } from '../store/overlay-reader.ts';
import type { Seeing } from './clock.ts';
import { optionsOf, type Option } from './entry.ts';
import { leftOut } from './left-out.ts';
import { draftsSeen } from './preview.ts';
import type { SiteView } from './site-view.ts';
import type { Issue } from '@/core/issue.ts';
import type { Listing, Operator } from '@/core/design/listing-spec.ts';
import { columnsOf } from '@/core/listing/columns.ts';
import { OPERATORS_OF, OPERATOR_WORDS } from '@/core/listing/operators.ts';
import { type ListingPlan, planListing } from '@/core/listing/plan.ts';
import { type CompiledSite, compileSite } from '@/core/site/compile.ts';
import type { SiteReader } from '@/core/site/reader.ts';
import { render } from '@/core/site/render.ts';
import { type Instant, Validity } from '@/core/time/interval.ts';

/** A field a listing may filter or sort by, with what its controls offer. */
export interface ListingColumn {
  name: string;
  label: string;
  family: string;
  sortable: boolean;
  operators: { op: Operator; words: string }[];
  options: Option[];
}

/** What the Listing screen shows of a listing. */
export interface ListingDetail {
  spec: Listing;
  typeLabel: string;
  columns: ListingColumn[];
  cards: { key: string; label: string }[];
}

/** A listing and the controls of its sentence. Null where there is none. */
export function listingDetail(
  view: SiteView,
  actor: Actor,
  key: string,
  at: Instant,
): ListingDetail | null {
  permit(actor, 'read-unpublished');
  const design = view.at(at)?.site.design;
  const spec = design?.listings.find((l) => l.key === key);
  const type = design?.types.find((t) => t.key === spec?.type);
  if (!design || !spec || !type) return null;
  const columns = [...columnsOf(type).values()].map((c): ListingColumn => ({
    name: c.name,
    label: c.label,
    family: c.family,
    sortable: c.sortable,
    operators: OPERATORS_OF[c.family].map((op) => ({ op, words: OPERATOR_WORDS[op] })),
    options: c.field ? optionsOf(view, c.field, at) : [],
  }));
  return {
    spec,
    typeLabel: type.plural,
    columns,
    cards: design.templates
      .filter((t) => t.kind === 'card' && t.type === type.key)
      .map(({ key: k, label }) => ({ key: k, label })),
  };
}

/** An entry that is in, or left out with the reason. */
export interface ListedEntry {
  id: string;
  name: string;
  path: string | null;
  /** Values of the sort keys, as the order sees them. */
  sorted: string;
}

/** Why an entry is out: a condition by its place in the sentence, from 0; or null where it is not live. */
export interface Reason {
  words: string;
  condition: number | null;
}

/** An entry that is left out, with all that keeps it out. */
export interface LeftOutEntry {
  id: string;
  name: string;
  reasons: Reason[];
  /** When it comes in, as things stand; ms UTC, null where nothing known brings it in. */
  appears: Instant | null;
}

/** What a listing, saved or not, gives as of an instant. */
export interface ListingOutcome {
  issues: Issue[];
  total: number;
  pageSize: number;
  entries: ListedEntry[];
  leftOut: LeftOutEntry[];
  leftOutTotal: number;
  /** How many each condition keeps out, of those looked at. */
  counts: { words: string; count: number }[];
  /** The listing's first page; null for a listing without pages of its own. */
  page: string | null;
  /** How many entries were looked at for reasons, where that is not all; else null. */
  lookedAt: number | null;
}

/** A listing, saved or not, and the name searched for among those left out. */
export interface ListingInput {
  key: string;
  spec: unknown;
  find: string;
}

const SHOWN = 60;

/** The entries of an edited listing, and those it leaves out with the reasons. */
export function listingOutcome(
  view: SiteView,
  actor: Actor,
  { key, spec, find }: ListingInput,
  at: Instant,
  seeing: Seeing,
): ListingOutcome | null {
  permit(actor, 'read-unpublished');
  const current = view.at(at);
  if (!current) return null;
  const edited = applyEdit(current.site.design, { part: 'listings', key, spec });
  const design = edited.ok ? edited.value : current.site.design;
  const { plan } = planListing(
    design.listings.find((l) => l.key === key)!,
    design,
  );
  const issues = edited.ok ? [] : edited.issues;
  if (!plan)
    return {
      issues,
      total: 0,
      pageSize: 1,
      entries: [],
      leftOut: [],
      leftOutTotal: 0,
      counts: [],
      lookedAt: null,
      page: null,
    };
  const drafts = draftsSeen(view, actor, at, seeing);
  const reader = withEntries(current.reader, drafts);
  const { ids, total } = reader.listing(plan, new Validity(at), 0, SHOWN);
  const page = edited.ok ? firstPage(compileSite(design).site, reader, plan.listing, at) : null;
  return {
    issues,
    total,
    pageSize: plan.listing.pageSize,
    page,
    entries: listed(reader, plan, ids, at),
    ...leftOut(view, plan, { at, find, drafts, total }),
  };
}

function firstPage(
  site: CompiledSite,
  reader: SiteReader,
  { key, address }: Listing,
  at: Instant,
): string | null {
  const { front } = site.design.site;
  const path = front && 'listing' in front && front.listing === key ? '/' : address;
  return path === undefined ? null : render(site, reader, { path, at }).body;
}

function listed(reader: SiteReader, plan: ListingPlan, ids: string[], at: Instant): ListedEntry[] {
  const live = reader.liveEntries(ids, new Validity(at));
  return ids.flatMap((id) => {
    const entry = live.get(id);
    if (!entry) return [];
    const naming = plan.type.fields.find((f) => f.key === plan.type.naming)!;
    const sorted = plan.sort
      .map(({ column }) =>
        column.meta
          ? new Date(entry[column.meta] ?? 0).toISOString().slice(0, 10)
          : shown(entry.values[column.field!.id]),
      )
      .join(' · ');
    return [{ id, name: String(entry.values[naming.id] ?? id), path: entry.path, sorted }];
  });
}

/** A stored value as a list of results shows it. */
function shown(value: unknown): string {
  return value === null || value === undefined
    ? '(blank)'
    : typeof value === 'number' && value > 1e11
      ? new Date(value).toISOString().slice(0, 16).replace('T', ' ')
      : String(value);
}
