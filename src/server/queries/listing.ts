import type { SiteView } from './site-view.ts';
import { type Actor, permit } from '../commands/permit.ts';
import { applyEdit } from '../commands/release-design.ts';
import { optionsOf, type Option } from './entry.ts';
import type { Issue } from '@/core/issue.ts';
import type { Listing, Operator } from '@/core/design/listing-spec.ts';
import type { Values } from '@/core/design/values.ts';
import { type ListingRow, columnsOf } from '@/core/listing/columns.ts';
import { holds } from '@/core/listing/evaluate.ts';
import { failedConditions } from '@/core/listing/explain.ts';
import { OPERATORS_OF, OPERATOR_WORDS } from '@/core/listing/operators.ts';
import { type Condition, type ListingPlan, planListing } from '@/core/listing/plan.ts';
import { resolveFilter } from '@/core/listing/resolve.ts';
import { type Instant, Validity, covers } from '@/core/time/interval.ts';

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
export function listingDetail(view: SiteView, actor: Actor, key: string, at: Instant): ListingDetail | null {
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
  return { spec, typeLabel: type.plural, columns, cards: design.templates.filter((t) => t.kind === 'card' && t.type === type.key).map(({ key: k, label }) => ({ key: k, label })) };
}

/** An entry that is in, or left out with the reason. */
export interface ListedEntry {
  id: string;
  name: string;
  path: string | null;
  /** Values of the sort keys, as the order sees them. */
  sorted: string;
}

export interface LeftOutEntry {
  id: string;
  name: string;
  /** Not live, or the conditions that keep it out. */
  reasons: string[];
  near: boolean;
  /** When it next goes live, where that is why it is out; ms UTC. */
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
  /** How many each condition keeps out. */
  counts: { words: string; count: number }[];
}

const SHOWN = 60;
const LOOKED_AT = 5000;

/** The entries of an edited listing, and those it leaves out with the reasons. */
export function listingOutcome(view: SiteView, actor: Actor, { key, spec }: { key: string; spec: unknown }, at: Instant): ListingOutcome | null {
  permit(actor, 'read-unpublished');
  const current = view.at(at);
  if (!current) return null;
  const edited = applyEdit(current.site.design, { part: 'listings', key, spec });
  const design = edited.ok ? edited.value : current.site.design;
  const { plan } = planListing(design.listings.find((l) => l.key === key)!, design);
  const issues = edited.ok ? [] : edited.issues;
  if (!plan) return { issues, total: 0, pageSize: 1, entries: [], leftOut: [], leftOutTotal: 0, counts: [] };
  const { ids, total } = current.reader.listing(plan, new Validity(at), 0, SHOWN);
  return { issues, total, pageSize: plan.listing.pageSize, entries: listed(view, plan, ids, at), ...leftOut(view, plan, at) };
}

function listed(view: SiteView, plan: ListingPlan, ids: string[], at: Instant): ListedEntry[] {
  const live = view.at(at)!.reader.liveEntries(ids, new Validity(at));
  return ids.flatMap((id) => {
    const entry = live.get(id);
    if (!entry) return [];
    const naming = plan.type.fields.find((f) => f.key === plan.type.naming)!;
    const sorted = plan.sort.map(({ column }) => (column.meta ? new Date(entry[column.meta] ?? 0).toISOString().slice(0, 10) : shown(entry.values[column.field!.id]))).join(' · ');
    return [{ id, name: String(entry.values[naming.id] ?? id), path: entry.path, sorted }];
  });
}

function shown(value: unknown): string {
  return value === null || value === undefined ? '(blank)' : typeof value === 'number' && value > 1e11 ? new Date(value).toISOString().slice(0, 16).replace('T', ' ') : String(value);
}

type Row = { entry: string; created: number; published: number | null; starts: number | null; ends: number | null; values: string; name: string; next: number | null };

function leftOut(view: SiteView, plan: ListingPlan, at: Instant): Pick<ListingOutcome, 'leftOut' | 'leftOutTotal' | 'counts'> {
  const filter = resolveFilter(plan.filter, at, plan.zone, view.subjects);
  const live = liveTest(view, at);
  const out: LeftOutEntry[] = [];
  const counts = new Map<string, number>();
  const count = (words: string): void => void counts.set(words, (counts.get(words) ?? 0) + 1);
  for (const row of candidates(view, plan, at)) {
    const listingRow: ListingRow = { entry: row.entry, created: row.created, published: row.published ?? at, updated: row.starts ?? at, from: row.starts ?? at, to: row.ends, values: JSON.parse(row.values) as Values };
    const isLiveNow = row.starts !== null;
    if (isLiveNow && holds(filter, listingRow, live)) continue;
    const failed = failedConditions(filter, listingRow, live).map(inWords);
    const reasons = [...(isLiveNow ? [] : ['not live at this instant']), ...failed];
    reasons.forEach(count);
    out.push({ id: row.entry, name: row.name, reasons, near: reasons.length === 1, appears: !isLiveNow && failed.length === 0 ? row.next : null });
  }
  out.sort((a, b) => a.reasons.length - b.reasons.length || a.name.localeCompare(b.name));
  return { leftOut: out.slice(0, SHOWN), leftOutTotal: out.length, counts: [...counts].map(([words, n]) => ({ words, count: n })).sort((a, b) => b.count - a.count) };
}

function candidates(view: SiteView, plan: ListingPlan, at: Instant): Row[] {
  const sql = `
    SELECT e.id AS entry, e.created, e.published, l.starts, l.ends, r."values", r.name, (SELECT min(starts) FROM live_interval AS n WHERE n.entry = e.id AND n.starts > @at) AS next
    FROM entry AS e LEFT JOIN live_interval AS l ON l.entry = e.id AND l.starts <= @at AND (l.ends IS NULL OR l.ends > @at)
    JOIN revision AS r ON r.entry = e.id AND r.number = coalesce(l.revision, e.newest)
    WHERE e.type = @type ORDER BY e.id LIMIT ${LOOKED_AT}`;
  return view.connection.driver.prepare(sql).all({ at, type: plan.type.key }) as Row[];
}

function liveTest(view: SiteView, at: Instant): (id: string) => boolean {
  const spans = view.connection.driver.prepare('SELECT starts AS "from", ends AS "to" FROM live_interval WHERE entry = ?');
  return (id) => (spans.all(id) as { from: number; to: number | null }[]).some((s) => covers(s, at));
}

/** A condition as it reads in the sentence, negated by context: "stock is more than 0". */
function inWords({ column, op, spec }: Condition): string {
  const value = spec.value === undefined ? '' : ` ${[spec.value].flat().join(', ')}`;
  return `${column.label.toLowerCase()} ${OPERATOR_WORDS[op]}${value}`;
}
