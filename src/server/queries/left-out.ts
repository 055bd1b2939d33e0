import { displayWorld } from './display.ts';
import type { Converting } from '@/core/design/conversion.ts';
import type { ContentType } from '@/core/design/spec.ts';
import { valuesOfType } from '../store/stored-values.ts';
import type { SiteView } from './site-view.ts';
import { displayValues } from '@/core/design/field-values.ts';
import type { DisplayWorld } from '@/core/design/kinds/definition.ts';
import { kindOf } from '@/core/design/kinds/index.ts';
import type { EntryView } from '@/core/design/values.ts';
import { formatStyled } from '@/core/pattern/date-format.ts';
import { searchKey } from '@/core/text.ts';
import { type Column, LISTED, type ListingRow, cell } from '@/core/listing/columns.ts';
import { holds } from '@/core/listing/evaluate.ts';
import { failedConditions } from '@/core/listing/explain.ts';
import { relativesOf } from '@/core/listing/operand.ts';
import { OPERATOR_WORDS } from '@/core/listing/operators.ts';
import { partFor, partsOf } from '@/core/listing/parts.ts';
import { type Condition, type ListingPlan, conditionsOf } from '@/core/listing/plan.ts';
import { withinSentence } from '@/core/design/words.ts';
import { type ResolvedFilter, resolveFilter } from '@/core/listing/resolve.ts';
import type { SiteReader } from '@/core/site/reader.ts';
import { type Instant, type Interval, covers } from '@/core/time/interval.ts';
import { parseDay } from '@/core/time/parse.ts';
import { unitOf } from '@/core/time/unit.ts';
import { addDays, calendarDay, dayStart } from '@/core/time/zone.ts';
import { asOf } from '../store/as-of.ts';

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
}

/** Those a listing leaves out. */
export interface LeftOut {
  leftOut: LeftOutEntry[];
  leftOutTotal: number;
  /** How many each condition keeps out, of those looked at. */
  counts: { words: string; count: number }[];
  /** How many entries were looked at for reasons, where that is not all; else null. */
  lookedAt: number | null;
}

const SHOWN = 60;
const LOOKED_AT = 5000;

type Row = {
  entry: string;
  type: string;
  created: number;
  published: number | null;
  starts: number | null;
  ends: number | null;
  values: string;
  name: string;
  next: number | null;
};

/**
 * What is asked: as of when, whose name, with which drafts in place of what is published, and how
 * many are in.
 */
interface Asked {
  at: Instant;
  find: string;
  drafts: readonly EntryView[];
  total: number;
}

/** Those a listing leaves out, near misses first, with what keeps each out and when it comes in. */
export function leftOut(view: SiteView, plan: ListingPlan, asked: Asked): LeftOut {
  const rows = candidates(view, plan, asked);
  const explainer = new Explainer(view, plan, asked);
  const out = rows.flatMap((row) => explainer.explain(row) ?? []);
  out.sort((a, b) => a.reasons.length - b.reasons.length || a.name.localeCompare(b.name));
  const all = view.connection.driver
    .prepare<unknown[], number>(
      `SELECT count(*) FROM entry WHERE type IN (SELECT value FROM json_each(?))
         AND deleted IS NULL`,
    )
    .pluck()
    .get(typesOf(plan))!;
  return {
    leftOut: out.slice(0, SHOWN),
    leftOutTotal: Math.max(out.length, all - asked.total),
    counts: countReasons(out),
    lookedAt: rows.length === LOOKED_AT ? LOOKED_AT : null,
  };
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
  private readonly site: Converting;
  private readonly live: (id: string, at: Instant) => boolean;

  constructor(
    private readonly view: SiteView,
    private readonly plan: ListingPlan,
    { at, drafts }: Asked,
  ) {
    this.at = at;
    this.reader = view.readerOf(view.at(at)!.site);
    this.drafts = new Map(drafts.map((d) => [d.id, d]));
    this.world = displayWorld(view, at);
    this.site = view.at(at)!.site.design.site;
    const published = liveTest(view);
    this.live = (id, t) => this.drafts.has(id) || published(id, t);
  }

  /** Why an entry is out; null where it is in. */
  explain(stored: Row): LeftOutEntry | null {
    const part = partFor(this.plan, stored.type)!;
    const row = rowOf(stored, this.drafts.get(stored.entry), this.at, part.type, this.site);
    const filter = this.filterAt(part, this.at);
    const places = conditionsOf(part.filter);
    const isLive = stored.starts !== null || this.drafts.has(stored.entry);
    const live = (id: string): boolean => this.live(id, this.at);
    if (isLive && holds(filter, row, live)) return null;
    const failed = failedConditions(filter, row, live);
    const reasons: Reason[] = [
      ...(isLive ? [] : [{ words: 'not live at this instant', actual: null, condition: null }]),
      ...failed.map((c) =>
        c.column.name === LISTED.name
          ? { words: 'kept out of lists', actual: null, condition: null }
          : {
              words: inWords(c, this.world),
              actual: actualOf(c, row, this.world),
              condition: places.indexOf(c),
            },
      ),
    ];
    const appears = isLive
      ? this.appears(row, failed)
      : this.firstOf([stored.next ?? []].flat(), row, { from: this.at, to: null });
    return { id: stored.entry, name: stored.name, reasons, appears };
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
    return ahead.find((t) => holds(this.filterAt(part, t), row, (id) => this.live(id, t))) ?? null;
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
  site: Converting,
): ListingRow {
  const values = draft ? draft.values : valuesOfType(type, row.values, site);
  return {
    entry: row.entry,
    type: type.id,
    created: row.created,
    published: row.published ?? at,
    updated: row.starts ?? at,
    from: row.starts ?? at,
    to: row.ends,
    values,
  };
}

function countReasons(out: readonly LeftOutEntry[]): LeftOut['counts'] {
  const counts = new Map<string, number>();
  for (const { reasons } of out)
    for (const { words } of reasons) counts.set(words, (counts.get(words) ?? 0) + 1);
  return [...counts].map(([words, count]) => ({ words, count })).sort((a, b) => b.count - a.count);
}

function candidates(view: SiteView, plan: ListingPlan, { at, find }: Asked): Row[] {
  const sql = `
    SELECT e.id AS entry, e.type, e.created, e.published, l.starts, l.ends, r."values", r.name, (SELECT min(starts) FROM live_interval AS n WHERE n.entry = e.id AND n.starts > @at) AS next
    FROM entry AS e LEFT JOIN live_interval AS l ON l.entry = e.id AND ${asOf('l', '@at')}
    JOIN revision AS r ON r.entry = e.id AND r.number = coalesce(l.revision, e.newest)
    WHERE e.type IN (SELECT value FROM json_each(@types)) AND e.deleted IS NULL AND (@find = '' OR instr(r.search, @find) > 0) ORDER BY e.created, e.id LIMIT ${LOOKED_AT}`;
  return view.connection.driver
    .prepare<unknown[], Row>(sql)
    .all({ at, types: typesOf(plan), find: searchKey(find) });
}

function liveTest(view: SiteView): (id: string, at: Instant) => boolean {
  const one = view.connection.driver
    .prepare(`SELECT 1 FROM live_interval WHERE entry = ? AND ${asOf('')}`)
    .pluck();
  return (id, at) => one.get(id, at, at) !== undefined;
}

/** The instants at which a comparison with today or now may turn for a row, by the value it has. */
function crossings(
  { column, op, operand }: Condition,
  row: ListingRow,
  { at, zone }: { at: Instant; zone: string },
): Instant[] {
  const value = valueOf(row, column);
  if (value === null) return [];
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

/** A condition as it reads in the sentence: "stock is more than 0". */
function inWords({ column, op, spec }: Condition, world: DisplayWorld): string {
  const { field } = column;
  const shown = (value: unknown): string =>
    field && (column.target || column.family === 'choice')
      ? kindOf(field).display(value, field, world)
      : String(value);
  const value = spec.value === undefined ? '' : ` ${[spec.value].flat().map(shown).join(', ')}`;
  return `${withinSentence(column.label, world.language)} ${OPERATOR_WORDS[op]}${value}`;
}

/** What an entry has where a condition wants something else: "it is 9". */
function actualOf({ column }: Condition, row: ListingRow, world: DisplayWorld): string | null {
  if (column.family === 'identity') return null;
  if (column.isAbsent) return 'it has none';
  const shown = column.meta
    ? formatStyled(row[column.meta], 'medium', world.language, world.zone)
    : displayValues(row.values, column.field!, world);
  if (shown.trim() === '') return 'it is blank';
  return `it is ${shown.length > 80 ? `${shown.slice(0, 80)}…` : shown}`;
}
