import {
  ReadSet,
  type StretchRead,
  asCounted,
  asStretch,
  typesRead,
} from '@/core/forecast/read-set.ts';
import type { RenderedPage } from '@/core/site/render.ts';
import { type Instant, Validity } from '@/core/time/interval.ts';
import type { SiteView } from '../queries/site-view.ts';
import { siteIn } from '../store/designs-ahead.ts';
import { changedSince, publicGenerationOf } from '../store/write.ts';
import { CachedPage } from './cached-page.ts';
import { PageCache } from './page-cache.ts';
import type { StretchNow } from './stretches.ts';

/** Site maps and their parts; there are at most so many that these names are all of them. */
export const SITE_FILE = /^\/sitemap(-[1-9]\d{0,3})?\.xml$/;

/** The public pages of a site: made once, and kept until something they read changes. */
export class PublicPages {
  private readonly cache: PageCache;
  private readonly readGeneration: () => number;
  /** The last public change that the cache was told of. */
  private told = -1;
  private heard = false;

  constructor(
    private readonly view: SiteView,
    private readonly clock: () => Instant,
  ) {
    this.readGeneration = publicGenerationOf(view.connection);
    this.cache = new PageCache({
      read: (stretch, now) => stretchNow(view, stretch, now),
      typesOf: ({ plan }) => typesRead(plan, view.at(clock())?.site.types.values() ?? []),
    });
  }

  /** A page that is kept and still holds; undefined where it is to be made. */
  known(path: string): CachedPage | undefined {
    this.hearChanges();
    return this.cache.get(path, this.clock());
  }

  /**
   * A page as of now, kept or made; null while no site is loaded. Of a query what the page reads
   * counts alone. What somebody searches for is not kept.
   */
  find(path: string, query = ''): CachedPage | null {
    const known = query === '' ? this.known(path) : undefined;
    if (known) return known;
    const [reads, now] = [new ReadSet(), this.clock()];
    const asked = query === '' ? null : this.view.asked(path + query, now);
    if (!asked?.query) return query === '' ? this.made(path, reads, now) : this.find(path);
    const whole = `${path}?${asked.query}`;
    if (!asked.isSearch) return this.known(whole) ?? this.made(whole, reads, now);
    const page = this.view.render(whole, now);
    return page && new CachedPage(page, null, now);
  }

  private made(path: string, reads: ReadSet, now: Instant): CachedPage | null {
    return this.keep(path, this.view.render(path, now, reads), { reads, now });
  }

  /** A page that is made elsewhere, where it is not kept; null while no site is loaded. */
  async findMade(
    path: string,
    make: (path: string, at: Instant) => Promise<RenderedPage | null>,
  ): Promise<CachedPage | null> {
    const known = this.known(path);
    if (known) return known;
    const { told } = this;
    const now = this.clock();
    const page = await make(path, now);
    this.hearChanges();
    // What was written while it was made may be in it, or not.
    return this.keep(path, page, { reads: null, now }, this.told === told);
  }

  /**
   * Tells the cache what changed in public. The counter is read once for all requests that the
   * event loop picked up together: all of them had arrived before it is read, so it holds whatever
   * was written before they were sent.
   */
  private hearChanges(): void {
    if (this.heard) return;
    this.heard = true;
    setImmediate(() => (this.heard = false));
    const generation = this.readGeneration();
    if (generation === this.told) return;
    const changes = this.told < 0 ? null : changedSince(this.view.connection, this.told);
    this.cache.changed(changes, () => this.view.at(this.clock())!);
    this.told = generation;
  }

  private keep(
    path: string,
    page: RenderedPage | null,
    { reads, now }: { reads: ReadSet | null; now: Instant },
    sure = true,
  ): CachedPage | null {
    if (!page) return null;
    const made = new CachedPage(page, reads, now);
    // Missing site maps are remembered too: their names are few, and each takes long to be looked
    // for.
    const isThere = page.status !== 404 && page.status !== 400;
    if (sure && (isThere || SITE_FILE.test(path))) this.cache.set(path, made);
    return made;
  }
}

/** A stretch of a listing as it is now. */
function stretchNow(view: SiteView, stretch: StretchRead, now: Instant): StretchNow {
  const { plan, offset, limit, without, around, counted } = stretch;
  const validity = new Validity(now);
  const { site, reader: own } = view.at(now)!;
  const { edition } = plan.type;
  const reader = edition === undefined ? own : own.in(siteIn(site, edition));
  if (around) {
    const ids = asStretch(around, reader.neighbours(plan, around, validity, without));
    return { ids, total: 0, until: validity.until };
  }
  if (counted !== null) {
    const ids = asCounted(reader.counts(plan, counted, validity, without));
    return { ids, total: 0, until: validity.until };
  }
  const { ids, total } = reader.listing(plan, validity, offset, limit, without);
  return { ids, total, until: validity.until };
}
