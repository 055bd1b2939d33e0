import { type ListingRow, rowOf } from '@/core/listing/columns.ts';
import { countedAs, countedTogether } from '@/core/listing/counted.ts';
import { listedBy, othersBy } from '@/core/listing/evaluate.ts';
import { orderAt, totalOrder } from '@/core/listing/order.ts';
import { conditionsIn, partFor, throughIn } from '@/core/listing/parts.ts';
import type { ListingPlan } from '@/core/listing/plan.ts';
import { compareCodePoints } from '@/core/text.ts';
import { ownPresets } from '@/core/design/presets.ts';
import type { EntryView } from '@/core/design/values.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { LivePage, PathHolders, Neighbours, SiteReader } from '@/core/site/reader.ts';
import type { Instant, Validity } from '@/core/time/interval.ts';

/** What a site looks like otherwise: drafts, or what a form holds unsaved. */
export interface Overlay {
  /** Entries that look as given, and are live. */
  entries: readonly EntryView[];
  /** Where other entries stand, which move with them; null where they stand nowhere; by id. */
  moved: ReadonlyMap<string, string | null>;
}

/** A reader to which a site looks otherwise. */
export function withEntries(reader: SiteReader, { entries, moved }: Overlay): SiteReader {
  return entries.length + moved.size === 0
    ? reader
    : new OverlayReader(reader, new Map(entries.map((e) => [e.id, e])), moved);
}

const BATCH = 1000;

class OverlayReader implements SiteReader {
  /** Who stands at a path otherwise. */
  private readonly standing = new Map<string, string>();
  private known: { at: Instant; appearing: string[]; vanishing: number } | null = null;
  private pages: { at: Instant; inOrder: LivePage[] } | null = null;
  readonly picked: SiteReader['picked'];
  readonly subject: SiteReader['subject'];
  readonly subjectsOf: SiteReader['subjectsOf'];
  readonly filterWorld: SiteReader['filterWorld'];
  readonly media: SiteReader['media'];
  readonly nameOf: SiteReader['nameOf'];
  readonly comingAt: SiteReader['comingAt'];

  constructor(
    private readonly below: SiteReader,
    private readonly shown: ReadonlyMap<string, EntryView>,
    private readonly moved: ReadonlyMap<string, string | null>,
  ) {
    for (const [id, path] of moved) if (path !== null) this.standing.set(path, id);
    for (const { id, path } of shown.values()) if (path !== null) this.standing.set(path, id);
    this.picked = (...args) => below.picked(...args);
    this.subject = (...args) => below.subject(...args);
    this.subjectsOf = (...args) => below.subjectsOf(...args);
    this.filterWorld = (at) => below.filterWorld(at);
    this.media = (...asked) => below.media(...asked);
    this.nameOf = (id) => below.nameOf(id);
    this.comingAt = (...args) => below.comingAt(...args);
  }

  /** What looks otherwise does so in the language that it is in alone. */
  in(site: CompiledSite): SiteReader {
    return this.below.in(site);
  }

  liveEntries(ids: readonly string[], validity: Validity): Map<string, EntryView> {
    const below = this.below.liveEntries(ids, validity);
    const found = new Map<string, EntryView>();
    for (const id of ids) {
      const entry = this.shown.get(id) ?? this.elsewhere(below.get(id));
      if (entry) found.set(id, entry);
    }
    return found;
  }

  private elsewhere(entry: EntryView | undefined): EntryView | undefined {
    const path = entry && this.moved.get(entry.id);
    return path === undefined ? entry : { ...entry!, path };
  }

  holders(path: string, validity: Validity): PathHolders {
    const holder = this.standing.get(path);
    if (holder !== undefined) return { current: { entry: holder, role: 'current' }, former: null };
    const below = this.below.holders(path, validity);
    const { current } = below;
    const left = current?.role === 'current' && this.isElsewhere(current.entry);
    return left ? { current: null, former: current.entry } : below;
  }

  private isElsewhere(entry: string): boolean {
    return this.shown.has(entry) || this.moved.has(entry);
  }

  currentPath(entry: string, validity: Validity): string | null {
    const shown = this.shown.get(entry);
    if (shown) return shown.path;
    const path = this.moved.get(entry);
    return path === undefined ? this.below.currentPath(entry, validity) : path;
  }

  typeOf(entry: string): string | null {
    return this.shown.get(entry)?.type.id ?? this.below.typeOf(entry);
  }

  newestPages(limit: number, validity: Validity): string[] {
    const { appearing, vanishing } = this.pagesMoved(validity);
    const below = this.below.newestPages(limit + this.shown.size + vanishing, validity);
    const rest = this.liveEntries(
      [...below, ...appearing].filter((id) => !this.shown.has(id)),
      validity,
    );
    return [...rest.values(), ...this.shown.values()]
      .filter((e) => e.path !== null)
      .sort(
        (a, b) =>
          (b.published ?? 0) - (a.published ?? 0) ||
          a.created - b.created ||
          compareCodePoints(a.id, b.id),
      )
      .slice(0, limit)
      .map((e) => e.id);
  }

  livePages(after: string | null, limit: number, validity: Validity): LivePage[] {
    const all = this.pagesInOrder(validity);
    const start =
      after === null ? 0 : all.findIndex(({ path }) => compareCodePoints(path, after) > 0);
    return start < 0 ? [] : all.slice(start, start + limit);
  }

  livePageCount(validity: Validity): number {
    return this.pagesInOrder(validity).length;
  }

  /** All pages of entries as they are seen, in the order of their paths; gathered once. */
  private pagesInOrder(validity: Validity): LivePage[] {
    if (this.pages?.at === validity.at) return this.pages.inOrder;
    const found: LivePage[] = [];
    for (let after: string | null = null; ;) {
      const batch = this.below.livePages(after, BATCH, validity);
      for (const page of batch) {
        const path = this.moved.get(page.entry);
        if (this.shown.has(page.entry) || path === null) continue;
        found.push(path === undefined ? page : { ...page, path });
      }
      if (batch.length < BATCH) break;
      after = batch.at(-1)!.path;
    }
    const { appearing } = this.pagesMoved(validity);
    const more = [...this.liveEntries(appearing, validity).values(), ...this.shown.values()];
    for (const { id, type, path, updated, values } of more)
      if (path !== null)
        found.push({
          ...{ path, entry: id, type: type.id, updated: updated ?? 0 },
          presets: ownPresets(values),
        });
    found.sort((a, b) => compareCodePoints(a.path, b.path));
    this.pages = { at: validity.at, inOrder: found };
    return found;
  }

  /** Who has a page only otherwise, and how many have none. */
  private pagesMoved(validity: Validity): { appearing: string[]; vanishing: number } {
    if (this.known?.at === validity.at) return this.known;
    const all = [...this.moved];
    const appearing = all
      .filter(([id, path]) => path !== null && this.below.currentPath(id, validity) === null)
      .map(([id]) => id);
    const vanishing = all.filter(([, path]) => path === null).length;
    this.known = { at: validity.at, appearing, vanishing };
    return this.known;
  }

  person(id: string): string {
    return this.below.person(id);
  }

  referrers(targets: readonly string[], fields: readonly string[]): string[] {
    return this.below.referrers(targets, fields);
  }

  /**
   * Entries that are not shown otherwise, and that conditions see otherwise: they refer to what
   * only now is live, or to what has other values where these are asked for.
   */
  private affected(plan: ListingPlan, validity: Validity): EntryView[] {
    const fields = conditionsIn(plan).flatMap(({ column: { target, field } }) =>
      target?.of === 'entries' && field ? [field.id] : [],
    );
    if (fields.length === 0) return [];
    const ids = [...this.shown.keys()];
    const live = this.below.liveEntries(ids, validity);
    const isAsked = throughIn(plan).length > 0;
    const newly = isAsked ? ids : ids.filter((id) => !live.has(id));
    if (newly.length === 0) return [];
    const referring = this.below.referrers(newly, fields).filter((id) => !this.shown.has(id));
    return [...this.below.liveEntries(referring, validity).values()];
  }

  /**
   * What a page of the list would be: without the entries shown otherwise the list is read from
   * as many places earlier, for as many longer, and they are put in where the order wants them.
   */
  listing(
    plan: ListingPlan,
    validity: Validity,
    offset: number,
    limit: number,
    without: readonly string[] = [],
  ): { ids: string[]; total: number } {
    const own = this.seenOtherwise(plan, validity, without);
    if (own.length === 0) return this.below.listing(plan, validity, offset, limit, without);
    const start = Math.max(0, offset - own.length);
    const rest = this.below.listing(plan, validity, start, limit + own.length, [
      ...without,
      ...own.map((e) => e.id),
    ]);
    const added = this.among(plan, own, validity);
    const there = [...this.below.liveEntries(rest.ids, validity).values()].map(rowOf);
    const merged = [...there, ...added].sort(this.orderOf(plan, validity)).map((row) => row.entry);
    return {
      ids: merged.slice(offset - start, offset - start + limit),
      total: rest.total + added.length,
    };
  }

  preceding(
    plan: ListingPlan,
    row: ListingRow,
    validity: Validity,
    without: readonly string[] = [],
  ): number {
    const own = this.seenOtherwise(plan, validity, without);
    const order = this.orderOf(plan, validity);
    const before = this.among(plan, own, validity).filter((other) => order(other, row) < 0);
    const rest = [...without, ...own.map((e) => e.id)];
    return before.length + this.below.preceding(plan, row, validity, rest);
  }

  /** The nearest of those that are as they are, and of those seen otherwise. */
  neighbours(
    plan: ListingPlan,
    row: ListingRow,
    validity: Validity,
    without: readonly string[] = [],
  ): Neighbours {
    const own = this.seenOtherwise(plan, validity, without);
    const rest = [...without, ...own.map((e) => e.id)];
    const { isIn, before, after } = this.below.neighbours(plan, row, validity, rest);
    const ids = [before, after].filter((id) => id !== null);
    const added = this.among(plan, own, validity);
    const order = this.orderOf(plan, validity);
    const all = [...this.below.liveEntries(ids, validity).values()].map(rowOf).concat(added);
    const sorted = all.filter(({ entry }) => entry !== row.entry).sort(order);
    const next = sorted.findIndex((other) => order(other, row) > 0);
    const from = next < 0 ? sorted.length : next;
    return {
      isIn: isIn || added.some(({ entry }) => entry === row.entry),
      before: sorted[from - 1]?.entry ?? null,
      after: sorted[from]?.entry ?? null,
    };
  }

  counts(
    plan: ListingPlan,
    name: string,
    validity: Validity,
    without: readonly string[] = [],
  ): Map<string, number> {
    const own = this.seenOtherwise(plan, validity, without);
    const rest = [...without, ...own.map((e) => e.id)];
    const counts = new Map(this.below.counts(plan, name, validity, rest));
    const world = {
      ...this.filterWorld(validity.at),
      subjectsOf: (set: string) => this.subjectsOf(set, validity),
      isLive: (id: string) => this.liveEntries([id], validity).has(id),
    };
    const added = this.among(plan, own, validity).map((row) => countedAs(plan, name, row, world));
    for (const [key, count] of countedTogether(added))
      counts.set(key, (counts.get(key) ?? 0) + count);
    return counts;
  }

  /** The entries of a listing's type that it has to see otherwise. */
  private seenOtherwise(
    plan: ListingPlan,
    validity: Validity,
    without: readonly string[],
  ): EntryView[] {
    return [...this.shown.values(), ...this.affected(plan, validity)].filter(
      (e) => partFor(plan, e.type.id) !== undefined && !without.includes(e.id),
    );
  }

  /** The rows of the entries that a listing lets in. */
  private among(plan: ListingPlan, entries: EntryView[], validity: Validity): ListingRow[] {
    const { at } = validity;
    const others = othersBy((id) => this.liveEntries([id], validity).get(id) ?? null);
    return entries.map(rowOf).filter(listedBy(plan, at, this.filterWorld(at), others));
  }

  private orderOf(plan: ListingPlan, { at }: Validity): ReturnType<typeof totalOrder> {
    return totalOrder(plan, orderAt(plan, at, this.filterWorld(at)));
  }
}
