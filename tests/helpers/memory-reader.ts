import type { CompiledSite } from '@/core/site/compile.ts';
import type { LivePage, PathHolders, Neighbours, SiteReader } from '@/core/site/reader.ts';
import { ownPresets } from '@/core/design/presets.ts';
import type { EntryView, Media, Subject } from '@/core/design/values.ts';
import { type ListingRow, rowOf } from '@/core/listing/columns.ts';
import { evaluateListing, othersBy } from '@/core/listing/evaluate.ts';
import { orderAt, totalOrder } from '@/core/listing/order.ts';
import { countedAs, countedTogether } from '@/core/listing/counted.ts';
import type { ListingPlan, FilterWorld } from '@/core/listing/plan.ts';
import { compareCodePoints } from '@/core/text.ts';
import type { Validity } from '@/core/time/interval.ts';

/** What a site holds while a test runs: nothing in it ever changes. */
export interface Held {
  entries: EntryView[];
  /** Entries by paths they held and hold no more. */
  former?: Record<string, string>;
  subjects?: Subject[];
  media?: Media[];
  /** Ids of entries in picks, by the picks' ids. */
  picks?: Record<string, string[]>;
}

/** A reader over lists in memory: the plainest there can be. All its entries are live. */
export class MemoryReader implements SiteReader {
  constructor(
    private readonly site: CompiledSite,
    private readonly held: Held,
  ) {}

  in(): SiteReader {
    return this;
  }

  liveEntries(ids: readonly string[]): Map<string, EntryView> {
    const found = this.held.entries.filter(({ id, state }) => ids.includes(id) && state === 'live');
    return new Map(found.map((e) => [e.id, e]));
  }

  holders(path: string): PathHolders {
    const current = this.pages().find((e) => e.path === path);
    return {
      current: current ? { entry: current.id, role: 'current' } : null,
      former: this.held.former?.[path] ?? null,
    };
  }

  currentPath(entry: string): string | null {
    return this.pages().find((e) => e.id === entry)?.path ?? null;
  }

  typeOf(entry: string): string | null {
    return this.held.entries.find((e) => e.id === entry)?.type.id ?? null;
  }

  nameOf(entry: string): string | null {
    const found = this.held.entries.find((e) => e.id === entry);
    return found ? String(found.values.title) : null;
  }

  comingAt(): null {
    return null;
  }

  listing(
    plan: ListingPlan,
    { at }: Validity,
    offset: number,
    limit: number,
    without: readonly string[] = [],
  ): { ids: string[]; total: number } {
    const ids = this.idsOf(plan, at, without);
    return { ids: ids.slice(offset, offset + limit), total: ids.length };
  }

  preceding(
    plan: ListingPlan,
    row: ListingRow,
    { at }: Validity,
    without: readonly string[] = [],
  ): number {
    const order = totalOrder(plan, orderAt(plan, at, this.filterWorld()));
    const rows = this.idsOf(plan, at, without).map((id) =>
      rowOf(this.held.entries.find((e) => e.id === id)!),
    );
    return rows.filter((other) => order(other, row) < 0).length;
  }

  neighbours(
    plan: ListingPlan,
    row: ListingRow,
    validity: Validity,
    without: readonly string[] = [],
  ): Neighbours {
    const ids = this.idsOf(plan, validity.at, without);
    const at = this.preceding(plan, row, validity, without);
    const isIn = ids[at] === row.entry;
    return { isIn, before: ids[at - 1] ?? null, after: ids[isIn ? at + 1 : at] ?? null };
  }

  private idsOf(plan: ListingPlan, at: number, without: readonly string[]): string[] {
    const rows = this.held.entries
      .filter((e) => e.state === 'live' && !without.includes(e.id))
      .map(rowOf);
    const others = othersBy((id) => this.liveEntries([id]).get(id) ?? null);
    return evaluateListing(plan, rows, at, this.filterWorld(), others);
  }

  counts(plan: ListingPlan, name: string, { at }: Validity): Map<string, number> {
    const ids = this.idsOf(plan, at, []);
    const rows = this.held.entries.filter(({ id }) => ids.includes(id)).map(rowOf);
    const world = {
      ...this.filterWorld(),
      subjectsOf: (set: string) => this.subjectsOf(set),
      isLive: (id: string) => this.liveEntries([id]).size > 0,
    };
    return countedTogether(rows.map((row) => countedAs(plan, name, row, world)));
  }

  person(id: string): string {
    return id;
  }

  picked(picks: string, _: Validity, offset: number, limit: number): string[] {
    return (this.held.picks?.[picks] ?? []).slice(offset, offset + limit);
  }

  newestPages(limit: number): string[] {
    const newest = this.pages().sort((a, b) => b.published! - a.published!);
    return newest.slice(0, limit).map((e) => e.id);
  }

  livePageCount(): number {
    return this.pages().length;
  }

  livePages(after: string | null, limit: number): LivePage[] {
    return this.pages()
      .map(({ path, id, type, updated, values }) => ({
        presets: ownPresets(values),
        path: path!,
        entry: id,
        type: type.id,
        updated: updated!,
      }))
      .sort((a, b) => compareCodePoints(a.path, b.path))
      .filter(({ path }) => after === null || path > after)
      .slice(0, limit);
  }

  referrers(targets: readonly string[], fields: readonly string[]): string[] {
    return this.held.entries
      .filter(({ values }) =>
        fields.some((f) => [values[f]].flat().some((v) => targets.includes(String(v)))),
      )
      .map((e) => e.id);
  }

  subject(set: string, key: string): Subject | null {
    return this.held.subjects?.find((s) => s.set === set && s.key === key) ?? null;
  }

  subjectsOf(set: string): Subject[] {
    return (this.held.subjects ?? []).filter((s) => s.set === set);
  }

  filterWorld(): FilterWorld {
    return {
      keysWithin: (set, key) => this.keysWithin(set, key),
      gone: () => [],
      picked: (picks) => this.held.picks?.[picks] ?? [],
    };
  }

  private keysWithin(set: string, key: string): string[] {
    const below = (this.held.subjects ?? []).filter((s) => s.set === set && s.parent === key);
    return [key, ...below.flatMap((s) => this.keysWithin(set, s.key))];
  }

  media(id: string): Media | null {
    return this.held.media?.find((m) => m.id === id) ?? null;
  }

  private pages(): EntryView[] {
    return this.held.entries.filter((e) => e.path !== null && e.state === 'live');
  }
}
