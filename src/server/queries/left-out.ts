import { actualOf, inWords } from './condition-in-words.ts';
import { displayWorld } from './display.ts';
import type { ContentType, Design } from '@/core/design/spec.ts';
import { firstPublished } from '../store/language-facts.ts';
import { tablesRead } from '../store/language-tables.ts';
import type { SiteView } from './site-view.ts';
import type { DisplayWorld } from '@/core/design/kinds/definition.ts';
import type { EntryView } from '@/core/design/values.ts';
import { searchKey } from '@/core/text.ts';
import {
  type Column,
  LISTED,
  type ListingRow,
  cell,
  rowOf as rowAsShown,
} from '@/core/listing/columns.ts';
import { type Others, holds } from '@/core/listing/evaluate.ts';
import { failedConditions } from '@/core/listing/explain.ts';
import { relativesOf } from '@/core/listing/operand.ts';
import { partFor, partsOf } from '@/core/listing/parts.ts';
import {
  type Condition,
  type Filter,
  type ListingPlan,
  conditionsOf,
} from '@/core/listing/plan.ts';
import { type ResolvedFilter, resolveFilter } from '@/core/listing/resolve.ts';
import { pinOf } from '@/core/site/pinned.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { SiteReader } from '@/core/site/reader.ts';
import { type Instant, type Interval, Validity, covers } from '@/core/time/interval.ts';
import { parseDay } from '@/core/time/parse.ts';
import { unitOf } from '@/core/time/unit.ts';
import { addDays, calendarDay, dayStart } from '@/core/time/zone.ts';
import { asOf } from '../store/as-of.ts';
import { shownOf } from './preview.ts';
import { type ListMisses, missesOf } from '../store/list-misses.ts';

/**
 * Why an entry is out: a condition by its place in the sentence, from 0; or null where it is not
 * live.
 */
export interface Reason {
  /** The condition as the sentence has it: "packets in stock is more than 0". */
  words: string;
  /** What the entry has instead: "it is 9"; null where nothing is compared. */
  actual: string | null;
  condition: number | null;
}

/** An entry that is left out, with all that keeps it out. */
export interface LeftOutEntry {
  id: string;
  name: string;
  reasons: Reason[];
  /** When it comes in, as things stand; ms UTC, null where nothing known brings it in. */
  appears: Instant | null;
  /** Whether it is to stand first, once it is in. */
  isPinned: boolean;
}

/** Those a listing leaves out. */
export interface LeftOut {
  leftOut: LeftOutEntry[];
  leftOutTotal: number;
  /** How many each condition keeps out, of those looked at: of all where there are very many. */
  counts: { words: string; count: number }[];
  /** How many entries were looked at for reasons, where that is not all; else null. */
  lookedAt: number | null;
}

const NOT_LIVE = 'not live at this instant';
const SHOWN = 60;
const LOOKED_AT = 5000;

type Row = {
  entry: string;
  type: string;
  created: number;
  author: string;
  published: number | null;
  starts: number | null;
  ends: number | null;
  values: string;
  name: string;
  next: number | null;
  /** Whether it is live in the site's own language; asked in further ones alone. */
  own: 0 | 1;
};

/**
 * What is asked: as of when, whose name, with which drafts in place of what is published, and how
 * many are in.
 */
interface Asked {
  /** The site in the language in which it is read. */
  site: CompiledSite;
  at: Instant;
  find: string;
  drafts: readonly EntryView[];
  total: number;
  /** Ids of those it has, where it leaves some out for their place; null where it has all. */
  shown: ReadonlySet<string> | null;
}

/** Those a listing leaves out, near misses first, with what keeps each out and when it comes in. */
export function leftOut(view: SiteView, plan: ListingPlan, asked: Asked): LeftOut {
  const all = view.connection.driver
    .prepare<unknown[], number>(
      `SELECT count(*) FROM entry WHERE type IN (SELECT value FROM json_each(?))
         AND deleted IS NULL`,
    )
    .pluck()
    .get(typesOf(plan))!;
  const misses = all > LOOKED_AT && asked.find === '' ? missesIn(view, plan, asked) : null;
  const rows = candidates(
    view,
    plan,
    asked,
    misses && [...misses.near, ...notLive(view, plan, asked)],
  );
  const explainer = new Explainer(view, plan, asked);
  const out = rows.flatMap((row) => explainer.explain(row) ?? []);
  out.sort((a, b) => a.reasons.length - b.reasons.length || a.name.localeCompare(b.name));
  return {
    leftOut: out.slice(0, SHOWN),
    leftOutTotal: Math.max(out.length, all - asked.total),
    counts: misses ? explainer.counted(misses, all) : countReasons(out),
    lookedAt: rows.length === LOOKED_AT ? LOOKED_AT : null,
  };
}

/** So many of those that miss least are looked at one by one, where there are very many. */
const NEAREST = 200;

function missesIn(view: SiteView, plan: ListingPlan, { site, at }: Asked): ListMisses | null {
  const world = view.readerOf(site).filterWorld(at);
  return missesOf(view.connection, site, plan, { at, world, most: NEAREST });
}

/** Some that are not live, the newest first. */
function notLive({ connection }: SiteView, plan: ListingPlan, { site, at }: Asked): string[] {
  const { live } = tablesRead(connection, site.design.edition?.id);
  const sql = `SELECT e.id FROM entry AS e WHERE e.type IN (SELECT value FROM json_each(@types))
    AND e.deleted IS NULL AND NOT EXISTS
      (SELECT 1 FROM ${live} AS l WHERE l.entry = e.id AND ${asOf('l', '@at')})
    ORDER BY e.created DESC LIMIT ${SHOWN}`;
  return connection.driver
    .prepare<unknown[], string>(sql)
    .pluck()
    .all({ at, types: typesOf(plan) });
}

/** The ids of its types, as JSON. */
function typesOf(plan: ListingPlan): string {
  return JSON.stringify(partsOf(plan).map(({ type }) => type.id));
}

/** Says of entries why a listing leaves them out. */
class Explainer {
  private readonly at: Instant;
  private readonly reader: SiteReader;
  private readonly drafts: Map<string, EntryView>;
  private readonly world: DisplayWorld;
  private readonly live: (id: string, at: Instant) => boolean;

  constructor(
    private readonly view: SiteView,
    private readonly plan: ListingPlan,
    private readonly asked: Asked,
  ) {
    const { site, at, drafts } = asked;
    this.at = at;
    this.reader = view.readerOf(site);
    this.drafts = new Map(drafts.map((d) => [d.id, d]));
    this.world = displayWorld(view, at);
    const published = liveTest(view, site);
    this.live = (id, t) => this.drafts.has(id) || published(id, t);
  }

  /** Why an entry is out; null where it is in. */
  explain(stored: Row): LeftOutEntry | null {
    const part = partFor(this.plan, stored.type)!;
    const { site, at } = this.asked;
    const row = rowOf(stored, this.drafts.get(stored.entry), at, part.type, site.design);
    const filter = this.filterAt(part, this.at);
    const places = conditionsOf(part.filter);
    const isLive = stored.starts !== null || this.drafts.has(stored.entry);
    const others = this.othersAt(this.at);
    if (isLive && holds(filter, row, others)) return this.cutOff(stored);
    const failed = failedConditions(filter, row, others);
    const reasons: Reason[] = [
      ...(isLive ? [] : [{ words: this.notLive(stored), actual: null, condition: null }]),
      ...failed.map((c) =>
        c.column.name === LISTED.name
          ? { words: 'kept out of lists', actual: null, condition: null }
          : {
              words: inWords(c, this.world),
              actual: actualOf(c, row, { world: this.world, others, reader: this.reader }),
              condition: places.indexOf(c),
            },
      ),
    ];
    const appears = isLive
      ? this.appears(row, failed)
      : this.firstOf([stored.next ?? []].flat(), row, { from: this.at, to: null });
    return this.out(stored, reasons, appears);
  }

  private notLive({ own }: Row): string {
    const { edition } = this.asked.site.design;
    return edition && own === 1 ? `not in ${edition.label}` : NOT_LIVE;
  }

  /** How many each condition, or group of them, keeps out, of all that there are. */
  counted({ counts, live }: ListMisses, all: number): LeftOut['counts'] {
    const words = counts.map(({ filter, count }) => ({ words: this.wordsOf(filter), count }));
    const lines = [...words, { words: NOT_LIVE, count: all - live }];
    return lines.filter(({ count }) => count > 0).sort((a, b) => b.count - a.count);
  }

  private wordsOf(filter: Filter): string {
    if (filter.kind !== 'condition')
      return `${filter.kind} of: ${filter.filters.map((f) => this.wordsOf(f)).join('; ')}`;
    return filter.column.name === LISTED.name ? 'kept out of lists' : inWords(filter, this.world);
  }

  /** Those whose conditions hold, and whose place is before or after those that it has. */
  private cutOff(row: Row): LeftOutEntry | null {
    if (this.asked.shown === null || this.asked.shown.has(row.entry)) return null;
    const { skip, most } = this.plan.listing;
    const words = [
      ...(skip === undefined ? [] : [`the first ${skip} are left out`]),
      ...(most === undefined ? [] : [`it has ${most} at most`]),
    ].join(', ');
    const reason = { words: `its place: ${words}`, actual: null, condition: null };
    return this.out(row, [reason], null);
  }

  private out({ entry, name }: Row, reasons: Reason[], appears: Instant | null): LeftOutEntry {
    const isPinned = pinOf(this.plan, entry, this.at) !== null;
    return { id: entry, name, reasons, appears, isPinned };
  }

  private appears(row: ListingRow, failed: readonly Condition[]): Instant | null {
    const instants = failed.flatMap((c) =>
      crossings(c, row, { at: this.at, zone: this.plan.zone }),
    );
    return this.firstOf(instants, row, row);
  }

  /** The first of some instants, while the row runs, at which it is in. */
  private firstOf(instants: Instant[], row: ListingRow, runs: Interval): Instant | null {
    const part = partFor(this.plan, row.type)!;
    const ahead = instants.filter((t) => t > this.at && covers(runs, t)).sort((a, b) => a - b);
    return ahead.find((t) => holds(this.filterAt(part, t), row, this.othersAt(t))) ?? null;
  }

  private othersAt(at: Instant): Others {
    return { isLive: (id) => this.live(id, at), row: (id) => this.otherAt(id, at) };
  }

  private otherAt(id: string, at: Instant): ListingRow | null {
    const entry = this.drafts.get(id) ?? this.reader.liveEntries([id], new Validity(at)).get(id);
    return entry ? rowAsShown(entry) : null;
  }

  private filterAt({ filter, zone }: ListingPlan, instant: Instant): ResolvedFilter {
    return resolveFilter(filter, instant, zone, this.reader.filterWorld(instant));
  }
}

function rowOf(
  row: Row,
  draft: EntryView | undefined,
  at: Instant,
  type: ContentType,
  design: Design,
): ListingRow {
  const { values } = draft ?? shownOf(type, row.values, design);
  return {
    entry: row.entry,
    type: type.id,
    created: row.created,
    published: firstPublished(row.published, row.starts ?? at),
    updated: row.starts ?? at,
    from: row.starts ?? at,
    to: row.ends,
    author: row.author,
    values,
  };
}

function countReasons(out: readonly LeftOutEntry[]): LeftOut['counts'] {
  const counts = new Map<string, number>();
  for (const { reasons } of out)
    for (const { words } of reasons) counts.set(words, (counts.get(words) ?? 0) + 1);
  return [...counts].map(([words, count]) => ({ words, count })).sort((a, b) => b.count - a.count);
}

/** Entries that may be left out: those of some ids, where these are given. */
function candidates(
  view: SiteView,
  plan: ListingPlan,
  { site, at, find }: Asked,
  ids: readonly string[] | null,
): Row[] {
  const { edition } = site.design;
  const { live } = tablesRead(view.connection, edition?.id);
  const inOwn = `EXISTS (SELECT 1 FROM live_interval AS o WHERE o.entry = e.id
    AND ${asOf('o', '@at')})`;
  const among = ids === null ? '' : 'AND e.id IN (SELECT value FROM json_each(@ids))';
  const sql = `
    SELECT e.id AS entry, e.type, e.created, e.author, e.published, l.starts, l.ends, r."values", r.name,
      (SELECT min(starts) FROM ${live} AS n WHERE n.entry = e.id AND n.starts > @at) AS next,
      ${edition ? inOwn : '0'} AS own
    FROM entry AS e LEFT JOIN ${live} AS l ON l.entry = e.id AND ${asOf('l', '@at')}
    JOIN revision AS r ON r.entry = e.id AND r.number = coalesce(l.revision, e.newest)
    WHERE e.type IN (SELECT value FROM json_each(@types)) AND e.deleted IS NULL AND (@find = '' OR instr(r.search, @find) > 0) ${among} ORDER BY e.created, e.id LIMIT ${LOOKED_AT}`;
  return view.connection.driver
    .prepare<unknown[], Row>(sql)
    .all({ at, types: typesOf(plan), find: searchKey(find), ids: JSON.stringify(ids) });
}

function liveTest(
  { connection }: SiteView,
  { design }: CompiledSite,
): (id: string, at: Instant) => boolean {
  const { live } = tablesRead(connection, design.edition?.id);
  const one = connection.driver
    .prepare(`SELECT 1 FROM ${live} WHERE entry = ? AND ${asOf('')}`)
    .pluck();
  return (id, at) => one.get(id, at, at) !== undefined;
}

/** The instants at which a comparison with today or now may turn for a row, by the value it has. */
function crossings(
  { column, op, operand, through }: Condition,
  row: ListingRow,
  { at, zone }: { at: Instant; zone: string },
): Instant[] {
  const value = valueOf(row, column);
  if (value === null || through) return [];
  const day = typeof value === 'number' ? calendarDay(value, zone) : String(value);
  const starting = (days: readonly string[]): Instant[] => days.map((d) => dayStart(d, zone));
  if (operand.kind === 'unit') return starting([unitOf(operand.unit, day).from]);
  if (op === 'on-this-day') return starting(nextAnniversaries(day, calendarDay(at, zone)));
  return relativesOf(op, operand).flatMap((relative) => {
    if ('today' in relative)
      return starting([-1, 0, 1, 2].map((more) => addDays(day, more - relative.today)));
    return typeof value === 'number' ? [value - relative.now, value - relative.now + 1] : [];
  });
}

/** The next days of the same month and day; in leap years alone where that is 29 February. */
function nextAnniversaries(day: string, today: string): string[] {
  const year = Number(today.slice(0, 4));
  return Array.from({ length: 9 }, (_, i) => `${year + i}${day.slice(4)}`).filter(
    (next) => parseDay(next) !== null,
  );
}

function valueOf(row: ListingRow, column: Column): string | number | null {
  if (column.family === 'identity') return null;
  const value = cell(row, column);
  return typeof value === 'string' || typeof value === 'number' ? value : null;
}
