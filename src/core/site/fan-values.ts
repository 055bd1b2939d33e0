import { formatPattern } from '../pattern/date-format.ts';
import { MAX_SEGMENT, fallbackSlug } from '../address/build.ts';
import { type EntryView, type Subject, nameOf, valuesOf } from '../design/values.ts';
import { slugText, trimHyphens } from '../pattern/slug.ts';
import { compareCodePoints } from '../text.ts';
import { sortKey } from '../listing/sort-key.ts';
import { cell, rowOf } from '../listing/columns.ts';
import { type FanValue, fanned, isDated, latestBefore } from '../listing/fan-out.ts';
import { partFor } from '../listing/parts.ts';
import type { ListingPlan } from '../listing/plan.ts';
import type { Validity } from '../time/interval.ts';
import { calendarDay } from '../time/zone.ts';
import type { SiteReader } from './reader.ts';

/** A listing that has a page for each value, where it is read, and in which language it speaks. */
export interface FannedOut {
  plan: ListingPlan;
  reader: Pick<
    SiteReader,
    'listing' | 'counts' | 'liveEntries' | 'subject' | 'subjectsOf' | 'person'
  >;
  validity: Validity;
  language: string;
}

/** A value that may have a page; how many entries it has where that is known already. */
type Candidate = Omit<FanValue, 'count'> & { count?: number };

/**
 * The values that a listing has pages for as of an instant: those that have entries. Each comes
 * after the one that it lies within; dates come newest first.
 */
export function fanValues(out: FannedOut): FanValue[] {
  return candidates(out).flatMap((value) => counted(out, value) ?? []);
}

/** The value whose first page stands at a path; null where none does. */
export function fanValueAt(out: FannedOut, path: string): FanValue | null {
  const { address } = out.plan.listing;
  if (!out.plan.each || !path.startsWith(`${address}/`)) return null;
  const rest = path.slice(address!.length + 1);
  const value = isDated(out.plan)
    ? dateAt(out, rest)
    : candidates(out).find((v) => v.path === path);
  return value ? counted(out, value) : null;
}

/** The value of a key, where it has a page; null where it has none. */
export function fanValueOf(out: FannedOut, key: string): FanValue | null {
  if (!out.plan.each) return null;
  const value = candidates(out).find((candidate) => candidate.key === key);
  return value ? counted(out, value) : null;
}

function counted({ plan, reader, validity }: FannedOut, value: Candidate): FanValue | null {
  const total = value.count ?? reader.listing(fanned(plan, value.key), validity, 0, 1).total;
  return total === 0 ? null : { ...value, count: total };
}

function candidates(out: FannedOut): Candidate[] {
  const { plan } = out;
  if (isDated(out.plan)) return [...dates(out)];
  const { column, per } = plan.each!;
  if (per === 'entry') return entries(out);
  if (per === 'author') return authors(out);
  if (column.target?.of === 'subjects') return subjects(out, column.target.set);
  return (column.field!.options ?? []).map(({ id, key, label }) => ({
    ...{ key: id, name: label, description: '', parent: null },
    path: `${plan.listing.address}/${key}`,
  }));
}

/** Subjects as they lie within each other, each before those within it. */
function subjects({ plan, reader, validity }: FannedOut, set: string): Candidate[] {
  const all = reader.subjectsOf(set, validity);
  const there = new Set(all.map(({ key }) => key));
  // What a subject lies within may have been merged into another.
  const parentOf = ({ parent }: Subject): string =>
    parent === null || there.has(parent)
      ? (parent ?? '')
      : (reader.subject(set, parent, validity)?.key ?? '');
  const within = new Map<string, Subject[]>();
  for (const subject of all) {
    const parent = parentOf(subject);
    const known = within.get(parent);
    if (known) known.push(subject);
    else within.set(parent, [subject]);
  }
  const below = (parent: string, path: string): Candidate[] =>
    (within.get(parent) ?? []).flatMap(({ key, name, description, slug }) => [
      { key, name, description, path: `${path}/${slug}`, parent: parent || null },
      ...below(key, `${path}/${slug}`),
    ]);
  return below('', plan.listing.address!);
}

/** The live entries that a reference leads to, by their names. */
function entries(out: FannedOut): Candidate[] {
  const { plan, reader, validity, language } = out;
  const counts = reader.counts(plan, plan.each!.column.name, validity);
  const live = [...reader.liveEntries([...counts.keys()], validity).values()];
  live.sort((a, b) => a.created - b.created || compareCodePoints(a.id, b.id));
  return named(
    out,
    live.map((entry) => ({
      ...{ key: entry.id, name: nameOf(entry), description: summaryOf(entry) },
      fallback: fallbackSlug(entry.type.key, entry.id, language),
      count: counts.get(entry.id)!,
    })),
  );
}

/** Those who wrote entries, by their names. */
function authors(out: FannedOut): Candidate[] {
  const { plan, reader, validity } = out;
  const counts = [...reader.counts(plan, plan.each!.column.name, validity)];
  counts.sort(([a], [b]) => compareCodePoints(a, b));
  const people = counts.map(([key, count]) => ({
    ...{ key, count, name: reader.person(key), description: '', fallback: 'author' },
  }));
  return named(out, people);
}

/** Values that stand at their names, told apart in their order; then by their names. */
function named(
  { plan, language }: FannedOut,
  values: readonly (Pick<Candidate, 'key' | 'name' | 'description' | 'count'> & {
    fallback: string;
  })[],
): Candidate[] {
  const taken = new Set<string>();
  const found = values.map(({ fallback, ...value }) => {
    const short = trimHyphens(slugText(value.name, language).slice(0, MAX_SEGMENT));
    const segment = freeSegment(short || fallback, taken);
    taken.add(segment);
    return { ...value, path: `${plan.listing.address}/${segment}`, parent: null };
  });
  const byName = found.map((value) => [sortKey(value.name), value] as const);
  return byName.sort(([a], [b]) => compareCodePoints(a, b)).map(([, value]) => value);
}

/** A segment told apart from those that are taken, and from further pages. */
function freeSegment(own: string, taken: ReadonlySet<string>): string {
  if (!taken.has(own) && !FURTHER.test(own)) return own;
  for (let n = 2; ; n++) if (!taken.has(`${own}-${n}`)) return `${own}-${n}`;
}

const FURTHER = /^page-\d+$/;

function summaryOf({ type, values }: EntryView): string {
  const field = type.fields.find(({ key }) => key === type.summary);
  const [value] = field ? valuesOf(values, field.id) : [];
  return typeof value === 'string' ? value : '';
}

/** The years, and the months, on which entries lie: the newest first. */
function* dates(out: FannedOut): Generator<Candidate> {
  const { plan, reader, validity } = out;
  const { per } = plan.each!;
  let [before, year]: [string | null, string] = [null, ''];
  for (;;) {
    const [id] = reader.listing(latestBefore(plan, before), validity, 0, 1).ids;
    const entry = id === undefined ? undefined : reader.liveEntries([id], validity).get(id);
    if (!entry) return;
    const { column } = partFor(plan, entry.type.id)!.each!;
    const value = cell(rowOf(entry), column) as string | number;
    const day = typeof value === 'number' ? calendarDay(value, plan.zone) : value;
    if (day.slice(0, 4) !== year) yield dated(out, (year = day.slice(0, 4)));
    if (per === 'month') yield dated(out, day.slice(0, 7));
    before = per === 'month' ? `${day.slice(0, 7)}-01` : `${year}-01-01`;
  }
}

function dated({ plan, language }: FannedOut, key: string): Candidate {
  const [year, month] = key.split('-') as [string, string?];
  const name = month ? formatPattern(`${key}-01`, 'LLLL yyyy', language, 'UTC') : year;
  const path = `${plan.listing.address}/${key.replace('-', '/')}`;
  return { key, name, description: '', path, parent: month ? year : null };
}

const YEAR = /^(?!0000)\d{4}$/;
const MONTH = /^(?!0000)\d{4}\/(?:0[1-9]|1[0-2])$/;

function dateAt(out: FannedOut, rest: string): Candidate | null {
  const isOne = YEAR.test(rest) || (out.plan.each!.per === 'month' && MONTH.test(rest));
  return isOne ? dated(out, rest.replace('/', '-')) : null;
}
