import type { IncomingMessage, ServerResponse } from 'node:http';
import { type RenderedPage, cacheControl } from '@/core/site/render.ts';
import { ReadSet, type StretchRead, typesRead } from '@/core/forecast/read-set.ts';
import { type Instant, Validity } from '@/core/time/interval.ts';
import type { SiteView } from '../queries/site-view.ts';
import { changedSince, publicGenerationOf } from '../store/write.ts';
import { codingFor, isUnchanged } from './conditional.ts';
import { plain } from './answer.ts';
import { PUBLIC_POLICY } from './etag.ts';
import { MediaDelivery } from './media.ts';
import { CachedPage } from './cached-page.ts';
import { PageCache } from './page-cache.ts';
import type { StretchNow } from './stretches.ts';

const EMPTY_SITE =
  '<!DOCTYPE html>\n<html lang="en"><head><meta charset="utf-8"><title>No site yet</title></head><body><h1>No site yet</h1><p>Load a site folder, or open the builder at <a href="/build">/build</a>.</p></body></html>\n';

/** Site maps and their parts; there are at most so many that these names are all of them. */
const SITE_FILE = /^\/sitemap(-[1-9]\d{0,3})?\.xml$/;

/**
 * Answers public requests: from the page cache, or by rendering through the core. Reads no
 * cookies.
 */
export class Delivery {
  private readonly cache: PageCache;
  private readonly media: MediaDelivery;
  private readonly readGeneration: () => number;
  /** The last public change that the cache was told of. */
  private told = -1;
  private asked = false;

  constructor(
    private readonly view: SiteView,
    folder: string,
    /** Makes what may take long, elsewhere. */
    private readonly makeFile: (path: string, at: Instant) => Promise<RenderedPage | null>,
    private readonly clock: () => Instant = Date.now,
  ) {
    this.media = new MediaDelivery(view, folder);
    this.cache = new PageCache({
      read: (stretch, now) => stretchNow(view, stretch, now),
      typesOf: ({ plan }) => typesRead(plan, view.at(this.clock())?.site.types.values() ?? []),
    });
    this.readGeneration = publicGenerationOf(view.connection);
  }

  /**
   * Answers one request: pages at once, what is read from files or made elsewhere when it is
   * there.
   */
  answer(request: IncomingMessage, response: ServerResponse): void | Promise<void> {
    if (request.method !== 'GET' && request.method !== 'HEAD') {
      return plain(response, 405, 'This address answers GET and HEAD only.', {
        allow: 'GET, HEAD',
      });
    }
    const url = request.url ?? '/';
    const mark = url.search(/[?#]/);
    const path = mark < 0 ? url : url.slice(0, mark);
    if (path.startsWith('/media/') || path.startsWith('/style/') || path.startsWith('/sitemap'))
      return this.answerFile(path, request, response);
    this.send(this.find(path), request, response);
  }

  private async answerFile(
    path: string,
    request: IncomingMessage,
    response: ServerResponse,
  ): Promise<void> {
    if (!path.startsWith('/sitemap') && (await this.media.answer(path, request, response))) return;
    this.send(
      path.startsWith('/sitemap') ? await this.findFile(path) : this.find(path),
      request,
      response,
    );
  }

  private send(
    cached: CachedPage | null,
    request: IncomingMessage,
    response: ServerResponse,
  ): void {
    if (!cached) {
      response
        .writeHead(503, {
          'content-type': 'text/html; charset=utf-8',
          'cache-control': 'no-store',
          'x-content-type-options': 'nosniff',
          'content-security-policy': PUBLIC_POLICY,
        })
        .end(request.method === 'HEAD' ? undefined : EMPTY_SITE);
      return;
    }
    const { status, body } = cached.page;
    const encoded = cached.in(
      body.length < 1024 ? 'identity' : codingFor(request.headers['accept-encoding']),
    );
    const fresh = this.freshness(cached);
    if (
      status === 200 &&
      isUnchanged(request.headers, encoded.etag, cached.headers['last-modified'])
    ) {
      response.writeHead(304, withFreshness(encoded.headersUnchanged, fresh)).end();
      return;
    }
    response.writeHead(status, withFreshness(encoded.headers, fresh));
    response.end(request.method === 'HEAD' ? undefined : encoded.body);
  }

  /**
   * A page made earlier may be reused for less long than when it was made; null where nothing
   * changes.
   */
  private freshness({ page }: CachedPage): string | null {
    if (page.freshness === 0 || page.validUntil === null) return null;
    return cacheControl(page.freshness, page.validUntil, this.clock());
  }

  /**
   * Tells the cache what changed in public. The counter is read once for all requests that the
   * event loop picked up together: all of them had arrived before it is read, so it holds whatever
   * was written before they were sent.
   */
  private hearChanges(): void {
    if (this.asked) return;
    this.asked = true;
    setImmediate(() => (this.asked = false));
    const generation = this.readGeneration();
    if (generation === this.told) return;
    this.cache.changed(this.told < 0 ? null : changedSince(this.view.connection, this.told));
    this.told = generation;
  }

  private find(path: string): CachedPage | null {
    const now = this.clock();
    this.hearChanges();
    const known = this.cache.get(path, now);
    if (known) return known;
    const reads = new ReadSet();
    return this.keep(path, this.view.render(path, now, reads), { reads, now });
  }

  private async findFile(path: string): Promise<CachedPage | null> {
    if (!SITE_FILE.test(path)) return this.find(path);
    const now = this.clock();
    this.hearChanges();
    const known = this.cache.get(path, now);
    if (known) return known;
    const { told } = this;
    const page = await this.makeFile(path, now);
    this.hearChanges();
    // What was written while it was made may be in it, or not.
    return this.keep(path, page, { reads: null, now }, this.told === told);
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
    if (sure && ((page.status !== 404 && page.status !== 400) || SITE_FILE.test(path)))
      this.cache.set(path, made);
    return made;
  }
}

/** A stretch of a listing as it is now. */
function stretchNow(view: SiteView, { plan, ...read }: StretchRead, now: Instant): StretchNow {
  const validity = new Validity(now);
  const { offset, limit, without } = read;
  const { ids, total } = view.at(now)!.reader.listing(plan, validity, offset, limit, without);
  return { ids, total, until: validity.until };
}

function withFreshness(headers: string[], value: string | null): string[] {
  if (value === null) return headers;
  const i = headers.indexOf('cache-control');
  return [...headers.slice(0, i + 1), value, ...headers.slice(i + 2)];
}
