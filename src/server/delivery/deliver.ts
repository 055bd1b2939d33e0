import type { IncomingMessage, ServerResponse } from 'node:http';
import { type RenderedPage, cacheControl } from '@/core/site/render.ts';
import type { Instant } from '@/core/time/interval.ts';
import { isReserved } from '@/core/address/path.ts';
import { normalOf, redirectAt } from '@/core/site/redirects.ts';
import type { Traffic } from '../db/traffic.ts';
import type { SiteView } from '../queries/site-view.ts';
import { codingFor, isUnchanged } from './conditional.ts';
import { plain } from './answer.ts';
import { PUBLIC_POLICY } from './etag.ts';
import { MediaDelivery } from './media.ts';
import type { CachedPage } from './cached-page.ts';
import { PublicPages, SITE_FILE } from './public-pages.ts';

const EMPTY_SITE =
  '<!DOCTYPE html>\n<html lang="en"><head><meta charset="utf-8"><title>No site yet</title></head><body><h1>No site yet</h1><p>Load a site folder, or open the builder at <a href="/build">/build</a>.</p></body></html>\n';

/**
 * Answers public requests: from the page cache, or by rendering through the core. Reads no
 * cookies.
 */
export class Delivery {
  private readonly pages: PublicPages;
  private readonly media: MediaDelivery;

  constructor(
    private readonly view: SiteView,
    folder: string,
    /** Makes what may take long, elsewhere. */
    private readonly makeFile: (path: string, at: Instant) => Promise<RenderedPage | null>,
    private readonly clock: () => Instant = Date.now,
    /** Hears of paths where nothing is, and of redirects that lead somebody on. */
    private readonly traffic: Pick<Traffic, 'noteLost' | 'noteLed'> | null = null,
  ) {
    this.media = new MediaDelivery(view, folder);
    this.pages = new PublicPages(view, clock);
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
    const page = this.pages.find(path, url.slice(path.length));
    if (page && request.method === 'GET') this.note(path, page.page.kind);
    this.send(page, request, response);
  }

  private note(path: string, kind: RenderedPage['kind']): void {
    if (!this.traffic || (kind !== 'missing' && kind !== 'redirect')) return;
    const [at, normal] = [this.clock(), normalOf(path)];
    if (kind === 'missing')
      return isReserved(normal) ? undefined : this.traffic.noteLost(normal, at);
    const found = redirectAt(this.view.at(at)?.site.redirects ?? new Map<never, never>(), normal);
    if (found) this.traffic.noteLed(found.byHand.id);
  }

  private async answerFile(
    path: string,
    request: IncomingMessage,
    response: ServerResponse,
  ): Promise<void> {
    if (!path.startsWith('/sitemap') && (await this.media.answer(path, request, response))) return;
    const page = SITE_FILE.test(path)
      ? await this.pages.findMade(path, this.makeFile)
      : this.pages.find(path);
    this.send(page, request, response);
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
}

function withFreshness(headers: string[], value: string | null): string[] {
  if (value === null) return headers;
  const i = headers.indexOf('cache-control');
  return [...headers.slice(0, i + 1), value, ...headers.slice(i + 2)];
}
