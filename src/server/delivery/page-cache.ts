import { LRUCache } from 'lru-cache';
import { readKey } from '@/core/forecast/read-set.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { CachedPage, DesignHolds } from './cached-page.ts';
import { type ListNow, Stretches } from './stretches.ts';

const MAX_BYTES = 64 * 1024 * 1024;

/**
 * Public pages, least recently used first out, by bytes. What is written drops the pages that read
 * it, and no others.
 */
export class PageCache {
  private readonly pages: LRUCache<string, CachedPage>;
  private readonly readers = new Map<string, Set<string>>();
  private readonly unknown = new Set<string>();
  private readonly stretches: Stretches;

  constructor(listNow: ListNow) {
    this.stretches = new Stretches(listNow);
    this.pages = new LRUCache({
      maxSize: MAX_BYTES,
      maxEntrySize: MAX_BYTES / 8,
      sizeCalculation: ({ page }) => page.body.length * 3 + 1024,
      dispose: (page, path) => this.forget(path, page),
    });
  }

  /** How many pages are kept. */
  get size(): number {
    return this.pages.size;
  }

  /** A page that still holds as of an instant; undefined where there is none. */
  get(path: string, now: Instant): CachedPage | undefined {
    const page = this.pages.get(path);
    if (!page?.holdsAt(now)) return undefined;
    if (!page.reads || this.stretches.hold(page.reads, now)) return page;
    this.pages.delete(path);
    return undefined;
  }

  /** Keeps a page, in place of the one there was. */
  set(path: string, page: CachedPage): void {
    this.put(path, page);
    if (page.reads && this.pages.has(path)) this.stretches.note(page.reads);
  }

  /**
   * Drops the pages that read what changed; all of them where that is not known. The others go on
   * with the design that holds by now.
   */
  changed(keys: readonly string[] | null, design: () => DesignHolds): void {
    if (keys === null || keys.includes(readKey.everything)) return this.clear();
    const paths = new Set(this.unknown);
    for (const key of keys) for (const path of this.readers.get(key) ?? []) paths.add(path);
    for (const path of paths) this.pages.delete(path);
    this.stretches.changed(keys);
    if (keys.includes(readKey.design)) this.redraw(design());
  }

  private redraw(design: DesignHolds): void {
    // Those asked for last stay those that go last.
    for (const [path, page] of [...this.pages.entries()].toReversed())
      this.put(path, page.drawnWith(design));
  }

  private put(path: string, page: CachedPage): void {
    this.pages.delete(path);
    this.pages.set(path, page);
    if (!this.pages.has(path)) return; // too large to be kept
    if (!page.reads) this.unknown.add(path);
    for (const key of page.reads?.keys ?? []) {
      const paths = this.readers.get(key);
      if (paths) paths.add(path);
      else this.readers.set(key, new Set([path]));
    }
  }

  private clear(): void {
    this.pages.clear();
    this.stretches.clear();
  }

  private forget(path: string, { reads }: CachedPage): void {
    this.unknown.delete(path);
    for (const key of reads?.keys ?? []) {
      const paths = this.readers.get(key);
      paths?.delete(path);
      if (paths?.size === 0) this.readers.delete(key);
    }
  }
}
