import { formatPattern } from '../pattern/date-format.ts';
import type { Subject } from '../design/values.ts';
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
  reader: Pick<SiteReader, 'listing' | 'liveEntries' | 'subject' | 'subjectsOf'>;
  validity: Validity;
  language: string;
}

/** A value that may have a page. */
type Candidate = Omit<FanValue, 'count'>;

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

function counted({ plan, reader, validity }: FannedOut, value: Candidate): FanValue | null {
  const { total } = reader.listing(fanned(plan, value.key), validity, 0, 1);
  return total === 0 ? null : { ...value, count: total };
}

function candidates(out: FannedOut): Candidate[] {
  const { plan } = out;
  if (isDated(out.plan)) return [...dates(out)];
  const { column } = plan.each!;
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
