import { type FilterWorld, type ListingPlan, countedColumns } from '../listing/plan.ts';
import { allConditionsIn, partsOf } from '../listing/parts.ts';
import type { EntryView, Media, Subject } from '../design/values.ts';
import type { ListingRow } from '../listing/columns.ts';
import type { CompiledSite } from '../site/compile.ts';
import type { LivePage, Neighbours, PathHolders, SiteReader } from '../site/reader.ts';
import { type Instant, Validity } from '../time/interval.ts';

/** A stretch of a listing that was looked at: which, from where, how many, without whom. */
export interface StretchRead {
  plan: ListingPlan;
  offset: number;
  limit: number;
  without: readonly string[];
  /** What stood there, and until when that certainly holds. */
  ids: readonly string[];
  until: Instant | null;
  /** How many entries there were in all; null where that was not asked. */
  total: number | null;
  /** The row whose neighbours were looked at, where that is what it is: it stands between them. */
  around: ListingRow | null;
  /** The column whose values were counted, by name, where that is what it is. */
  counted: string | null;
}

/** Counts as a stretch: each value with how many have it. */
export function asCounted(counts: ReadonlyMap<string, number>): string[] {
  return [...counts].map(([value, count]) => `${value} ${count}`).sort();
}

/** Neighbours as a stretch: what stands before a row, it, and what stands after it. */
export function asStretch({ entry }: ListingRow, { isIn, before, after }: Neighbours): string[] {
  return [before ?? '', isIn ? entry : '', after ?? ''];
}

/**
 * What rendering looked at. A page changes only where something of it does: an entry (live or
 * missing, with its address), a path (held or missed), a stretch of a listing, subjects, media.
 */
export class ReadSet {
  readonly keys = new Set<string>();
  /** By a name of the stretch among those of its listing. */
  readonly stretches = new Map<string, StretchRead>();
}

/** The names by which read sets and writes speak of the same things. */
export const readKey = {
  entry: (id: string): string => `e:${id}`,
  path: (path: string): string => `p:${path}`,
  /** Which entries of a type, by its id, are live when. */
  type: (id: string): string => `t:${id}`,
  /** All pages with their addresses: what site maps and automatic lists read. */
  pages: 'pages',
  /** What a key stands for, in whichever set. */
  subject: (key: string): string => `s:${key}`,
  /** Any subject at all: of what asks where categories stand. */
  subjects: 'subjects',
  /** Who stands in picks, by their id, in which order. */
  picks: (id: string): string => `pk:${id}`,
  medium: (id: string): string => `m:${id}`,
  /** Any medium at all; no page reads it. */
  media: 'media',
  /** What the pages of a type's entries, by its id, read of the design. */
  designOfType: (id: string): string => `dt:${id}`,
  /** What the pages of a listing, by its id, read of the design. */
  designOfListing: (id: string): string => `dl:${id}`,
  /** Anything of the design: of pages that are of no entry and of no listing. */
  design: 'design',
  /** Everything: of so much that it is not said piece by piece. */
  everything: '*',
} as const;

/** Ids of the types whose entries decide which entries a listing has. */
export function typesRead(
  plan: ListingPlan,
  types: Iterable<{ id: string; key: string }>,
): string[] {
  const wanted = new Set(partsOf(plan).map(({ type }) => type.id));
  const byKey = new Map([...types].map(({ id, key }) => [key, id]));
  const narrowing = partsOf(plan).flatMap(countedColumns);
  for (const { target } of [...allConditionsIn(plan).map(({ column }) => column), ...narrowing]) {
    if (target?.of !== 'entries') continue;
    for (const key of target.types ?? byKey.keys()) wanted.add(byKey.get(key) ?? '');
  }
  return [...wanted];
}

/** A reader that notes in a read set what is asked of another one. */
export function recording(reader: SiteReader, reads: ReadSet): SiteReader {
  return new RecordingReader(reader, reads);
}

/** What a listing is called among those of all languages. */
function readIn({ listing, type: { edition } }: ListingPlan): string {
  return edition === undefined ? listing.id : `${edition}:${listing.id}`;
}

class RecordingReader implements SiteReader {
  constructor(
    private readonly below: SiteReader,
    private readonly reads: ReadSet,
  ) {}

  in(site: CompiledSite): SiteReader {
    return new RecordingReader(this.below.in(site), this.reads);
  }

  liveEntries(...args: Parameters<SiteReader['liveEntries']>): Map<string, EntryView> {
    for (const id of args[0]) this.note(readKey.entry(id));
    return this.below.liveEntries(...args);
  }

  holders(...args: Parameters<SiteReader['holders']>): PathHolders {
    this.note(readKey.path(args[0]));
    return this.below.holders(...args);
  }

  currentPath(...args: Parameters<SiteReader['currentPath']>): string | null {
    this.note(readKey.entry(args[0]));
    return this.below.currentPath(...args);
  }

  typeOf(id: string): string | null {
    this.note(readKey.entry(id));
    return this.below.typeOf(id);
  }

  listing(
    plan: ListingPlan,
    validity: Validity,
    offset: number,
    limit: number,
    without: readonly string[] = [],
  ): { ids: string[]; total: number } {
    const own = new Validity(validity.at);
    const { ids, total } = this.below.listing(plan, own, offset, limit, without);
    validity.tell(own.until);
    validity.tell(own.since);
    const { stretches } = this.reads;
    this.notePicks(plan);
    const name = `${readIn(plan)}/${offset}/${limit}/${without.join('/')}`;
    const asked = stretches.get(name)?.total ?? null;
    const read = {
      plan,
      offset,
      limit,
      without,
      ids,
      until: own.until,
      total: asked,
      ...{ around: null, counted: null },
    };
    stretches.set(name, read);
    return {
      ids,
      get total() {
        read.total = total;
        return total;
      },
    };
  }

  /** Where an entry stands; no page says so. */
  preceding(...args: Parameters<SiteReader['preceding']>): number {
    return this.below.preceding(...args);
  }

  neighbours(
    plan: ListingPlan,
    row: ListingRow,
    validity: Validity,
    without: readonly string[] = [],
  ): Neighbours {
    const own = new Validity(validity.at);
    const found = this.below.neighbours(plan, row, own, without);
    validity.tell(own.until);
    validity.tell(own.since);
    const read = { offset: 0, limit: 0, without, ids: asStretch(row, found), total: 0 };
    this.notePicks(plan);
    const name = `${readIn(plan)}/around/${row.entry}/${without.join('/')}`;
    this.reads.stretches.set(name, {
      ...read,
      plan,
      until: own.until,
      around: row,
      counted: null,
    });
    return found;
  }

  counts(
    plan: ListingPlan,
    name: string,
    validity: Validity,
    without: readonly string[] = [],
  ): Map<string, number> {
    const own = new Validity(validity.at);
    const counts = this.below.counts(plan, name, own, without);
    this.note(readKey.subjects);
    validity.tell(own.until);
    validity.tell(own.since);
    this.notePicks(plan);
    const read = { offset: 0, limit: 0, without, ids: asCounted(counts), total: 0, around: null };
    const stretch = `${readIn(plan)}/counted/${name}/${without.join('/')}`;
    this.reads.stretches.set(stretch, { ...read, plan, until: own.until, counted: name });
    return counts;
  }

  /** Picks decide what a listing has that asks of them. */
  private notePicks(plan: ListingPlan): void {
    for (const { column, operand } of allConditionsIn(plan))
      if (column.target?.of === 'picks' && operand.kind === 'keys')
        for (const picks of operand.keys) this.note(readKey.picks(picks));
  }

  picked(...args: Parameters<SiteReader['picked']>): string[] {
    this.note(readKey.picks(args[0]));
    return this.below.picked(...args);
  }

  newestPages(...args: Parameters<SiteReader['newestPages']>): string[] {
    this.note(readKey.pages);
    return this.below.newestPages(...args);
  }

  livePageCount(validity: Validity): number {
    this.note(readKey.pages);
    return this.below.livePageCount(validity);
  }

  livePages(...args: Parameters<SiteReader['livePages']>): LivePage[] {
    this.note(readKey.pages);
    return this.below.livePages(...args);
  }

  referrers(targets: readonly string[], fields: readonly string[]): string[] {
    for (const id of targets) this.note(readKey.entry(id));
    return this.below.referrers(targets, fields);
  }

  subject(set: string, key: string, validity: Validity): Subject | null {
    const found = this.below.subject(set, key, validity);
    for (const read of new Set([key, found?.key ?? key])) this.note(readKey.subject(read));
    return found;
  }

  subjectsOf(...args: Parameters<SiteReader['subjectsOf']>): Subject[] {
    this.note(readKey.subjects);
    return this.below.subjectsOf(...args);
  }

  /** Asked by conditions of pages; lists have their stretches noted. */
  filterWorld(at: Instant): FilterWorld {
    this.note(readKey.subjects);
    return this.below.filterWorld(at);
  }

  person(id: string): string {
    return this.below.person(id);
  }

  media(id: string, validity: Validity): Media | null {
    this.note(readKey.medium(id));
    return this.below.media(id, validity);
  }

  /** Said in traces and to people, on no public page. */
  nameOf(id: string): string | null {
    return this.below.nameOf(id);
  }

  /** Said in traces and to people, on no public page. */
  comingAt(path: string, at: Instant): { entry: string; at: Instant } | null {
    return this.below.comingAt(path, at);
  }

  private note(key: string): void {
    this.reads.keys.add(key);
  }
}
