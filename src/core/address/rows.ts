import type { Design } from '../design/spec.ts';
import { shownBy } from '../publication/shown.ts';
import type { Instant } from '../time/interval.ts';
import { isFront } from './held.ts';
import type { Held, Refusal, Standing, Timeline } from './model.ts';

/** Gathers the rows that a simulation makes; stretches without length leave none. */
export class Rows {
  private readonly timeline: Timeline = {
    live: [],
    addresses: [],
    published: new Map(),
    refusals: [],
    touched: new Set(),
  };
  private readonly refusedAt = new Set<string>();

  /** The site's own language; the same where it is the one that is read. */
  private own: string;

  constructor(private language: string) {
    this.own = language;
  }

  /** Says which further language is read, from when there is one. */
  speak({ site, edition }: Design): void {
    if (!edition) return;
    this.language = site.language;
    this.own = edition.own;
  }

  /** Names an entry whose rows are to be replaced. */
  touch(entry: string): void {
    this.timeline.touched.add(entry);
  }

  /** A live stretch that ends at an instant, or runs on. */
  live(entry: string, { revision, from }: NonNullable<Standing['live']>, to: Instant | null): void {
    if (to !== null && to <= from) return;
    const shown = shownBy(revision);
    const language = shown.isFallback ? this.own : this.language;
    const { revision: number, shared: sharedRevision } = shown;
    this.timeline.live.push({ entry, language, revision: number, sharedRevision, from, to });
  }

  /**
   * An address held until an instant, or from now on; what stands at "/" has its pattern's path
   * lead there.
   */
  held(entry: string, { path, base, from }: Held, to: Instant | null): void {
    if (to !== null && to <= from) return;
    const row = { entry, language: this.language, from, to };
    this.timeline.addresses.push({ ...row, path, base, role: 'current' });
    const pattern = isFront(base) ? base.slice('front:'.length) : '';
    if (pattern !== '')
      this.timeline.addresses.push({ ...row, path: pattern, base, role: 'redirect' });
  }

  /**
   * The first refusal of an entry at an instant; further ones of the same instant say nothing
   * new.
   */
  refuse(refusal: Refusal): void {
    const key = `${refusal.entry}\n${refusal.at}`;
    if (this.refusedAt.has(key)) return;
    this.refusedAt.add(key);
    this.timeline.refusals.push(refusal);
  }

  /** Closes what runs on, and gives all rows of the entries touched. */
  finish(standings: ReadonlyMap<string, Standing>): Timeline {
    const { touched, live, addresses, published } = this.timeline;
    for (const [id, standing] of standings) {
      if (standing.live) this.live(id, standing.live, null);
      if (standing.held) this.held(id, standing.held, null);
      if (touched.has(id)) published.set(id, standing.published);
    }
    return {
      ...this.timeline,
      live: live.filter((row) => touched.has(row.entry)),
      addresses: addresses.filter((row) => touched.has(row.entry)),
    };
  }
}
