import { encodeAddress, isSafeTarget } from '../link.ts';
import { escapeHtml } from '../text.ts';
import { type Instant, Validity } from '../time/interval.ts';
import { rootOf } from '../design/language-spec.ts';
import { isListed } from '../design/presets.ts';
import type { EntryView } from '../design/values.ts';
import type { PageMeta } from '../metadata/head.ts';
import { cardList } from '../template/card-list.ts';
import type { Render } from '../template/context.ts';
import { wordsOf } from '../template/words.ts';
import type { CompiledSite } from './compile.ts';
import { documentHtml } from './document.ts';
import { drawnBy } from './drawn-by.ts';
import { entryMeta, errorMeta, frontMeta, listingMeta } from './meta.ts';
import { PageScope } from './page-scope.ts';
import type { SiteReader } from './reader.ts';
import { type Resolution, type TraceStep, resolvePath } from './resolve.ts';
import { siteFile } from './site-file.ts';
import { frameOfListing, templatesOf } from './templates-of.ts';
import { stepsBeyond } from './trace-listing.ts';
import { type Parameter, visitAt } from './visits.ts';

/** What a visitor asks for; `at` in ms UTC. */
export interface PageRequest {
  path: string;
  at: Instant;
  /** Of the address, decoded; what no listing there declares is passed over. */
  parameters?: readonly Parameter[];
}

/** A page as of an instant, with the stretch over which it certainly stays the same. */
export interface RenderedPage {
  status: number;
  /** Lower-case names. */
  headers: Record<string, string>;
  body: string;
  kind: 'entry' | 'listing' | 'front' | 'file' | 'redirect' | 'gone' | 'missing' | 'bad';
  /** ms UTC; null for never. */
  validUntil: Instant | null;
  /** When something on it changed last, ms UTC; null where unknown. */
  changed: Instant | null;
  /**
   * Seconds for which it may be reused unasked when it was made; less as `validUntil` comes near.
   */
  freshness: number;
  meta: PageMeta | null;
  entry: string | null;
  listing: string | null;
  page: number | null;
  /** True where no template is bound and an automatic page stands in. */
  automatic: boolean;
}

/**
 * How long a page may be reused unasked as of an instant (RFC 9111 §5.2.2): its freshness, and
 * never past its validity.
 */
export function cacheControl(freshness: number, validUntil: Instant | null, at: Instant): string {
  const left = validUntil === null ? freshness : Math.floor((validUntil - at) / 1000);
  const maxAge = Math.max(0, Math.min(freshness, left));
  return maxAge > 0 ? `public, max-age=${maxAge}` : 'public, max-age=0, must-revalidate';
}

const NEWEST = 24;
/** How many listings a page that says that there is nothing leads to. */
const MAX_WAYS = 12;

/**
 * Renders a path: normal form → address → redirect, gone, not found, or page → data needs → read
 * → metadata → template → frame → HTML. Pure: the same arguments give the same page.
 */
export function render(
  site: CompiledSite,
  reader: SiteReader,
  request: PageRequest,
  design: { since: Instant | null; until: Instant | null } = { since: null, until: null },
): RenderedPage {
  const validity = new Validity(request.at);
  validity.tell(design.until);
  validity.tell(design.since);
  const resolution = resolvePath(site, reader, request.path, validity);
  return new Renderer(site, reader, validity, request.parameters).page(resolution);
}

/** The steps from a path to its outcome, by what that is drawn, and the outcome. */
export function trace(
  site: CompiledSite,
  reader: SiteReader,
  request: PageRequest,
): { steps: TraceStep[]; drawn: string | null; page: RenderedPage } {
  const steps: TraceStep[] = [];
  const validity = new Validity(request.at);
  const resolution = resolvePath(site, reader, request.path, validity, steps);
  const drawn = drawnBy(site, reader, resolution, validity);
  const page = render(site, reader, request);
  steps.push(...stepsBeyond({ site, reader, validity }, request, resolution, page.status));
  return { steps, drawn, page };
}

/** An entry's page at whatever address it has or would have: for previews of what is not live. */
export function renderEntry(
  site: CompiledSite,
  reader: SiteReader,
  entry: EntryView,
  at: Instant,
): RenderedPage {
  return new Renderer(site, reader, new Validity(at)).entry(entry);
}

class Renderer {
  constructor(
    private readonly site: CompiledSite,
    private readonly reader: SiteReader,
    private readonly validity: Validity,
    private readonly parameters: readonly Parameter[] = [],
  ) {}

  page(resolution: Resolution): RenderedPage {
    switch (resolution.kind) {
      case 'entry': {
        const entry = this.reader
          .liveEntries([resolution.entry], this.validity)
          .get(resolution.entry);
        return entry ? this.entry({ ...entry, path: resolution.path }) : this.missing();
      }
      case 'listing':
        return this.listing(resolution);
      case 'front':
        return this.front();
      case 'file': {
        const file = siteFile(this.site, this.reader, resolution.path, this.validity);
        if (!file) return this.missing();
        return this.result('file', 200, file.body, null, {
          headers: { 'content-type': file.contentType },
        });
      }
      case 'redirect':
        return this.redirect(resolution.status, this.withQuery(resolution.location));
      case 'gone':
        return this.error('gone', 410);
      case 'missing':
        return this.missing();
      case 'bad':
        return this.error('bad', 400);
    }
  }

  entry(entry: EntryView): RenderedPage {
    const scope = new PageScope(this.site, this.reader, this.validity).show(entry);
    const { template, frame } = templatesOf(this.site, entry);
    scope.prefetch([entry], template.needs);
    this.validity.tell(entry.updated);
    const meta = entryMeta(this.site, scope, entry);
    const html = documentHtml(this.site, scope, meta, template, frame);
    return this.result('entry', 200, html, meta, {
      entry: entry.id,
      automatic: template.automatic,
    });
  }

  private listing({
    listing: key,
    number,
    path,
    value,
  }: Extract<Resolution, { kind: 'listing' }>): RenderedPage {
    const scope = new PageScope(this.site, this.reader, this.validity);
    const shown = scope.listingPage(key, number, value ?? null, this.parameters);
    if (!shown) return this.missing();
    const root = rootOf(this.site.design);
    const isFront = path === root || (key === this.site.frontListing && !value);
    const base = isFront ? root : shown.address!;
    scope.showListing({ ...shown, address: base });
    const template = this.site.templates.listings.get(key)!;
    const meta = listingMeta(this.site, scope, shown, base);
    const html = documentHtml(this.site, scope, meta, template, frameOfListing(this.site, key));
    return this.result('listing', 200, html, meta, {
      listing: key,
      page: number,
    });
  }

  /** The newest pages that lists show. */
  private newest(scope: PageScope): EntryView[] {
    for (let limit = NEWEST; ; limit *= 4) {
      const ids = this.reader.newestPages(limit, this.validity);
      const listed = scope.entries(ids).filter(isListed);
      if (listed.length >= NEWEST || ids.length < limit) return listed.slice(0, NEWEST);
    }
  }

  private front(): RenderedPage {
    const scope = new PageScope(this.site, this.reader, this.validity).showFront();
    const entries = this.newest(scope);
    const meta = frontMeta(this.site, scope);
    const card: Render = (s) =>
      s.own ? (this.site.templates.cards.get(s.own.type.key)?.render(s) ?? '') : '';
    const render: Render = (s) => {
      const list = cardList(entries, card, [], s);
      const words = wordsOf(s.language);
      return `<h1>${escapeHtml(meta.title)}</h1>${list === '' ? '' : `<section class="listing"><h2>${words.newest}</h2>${list}</section>`}`;
    };
    return this.result(
      'front',
      200,
      documentHtml(this.site, scope, meta, { render, slots: {} }),
      meta,
      { automatic: true },
    );
  }

  private missing(): RenderedPage {
    return this.error('missing', 404);
  }

  private error(kind: 'missing' | 'gone' | 'bad', status: number): RenderedPage {
    const words = wordsOf(this.site.design.site.language);
    const [title, text] = {
      missing: [words.notFound, words.notFoundText],
      gone: [words.gone, words.goneText],
      bad: [words.badRequest, words.badRequestText],
    }[kind] as [string, string];
    const scope = new PageScope(this.site, this.reader, this.validity);
    const meta = errorMeta(this.site, title);
    const ways = kind === 'bad' ? '' : this.waysOn();
    const render: Render = () => `<h1>${escapeHtml(title)}</h1><p>${escapeHtml(text)}</p>${ways}`;
    return this.result(
      kind,
      status,
      documentHtml(this.site, scope, meta, { render, slots: {} }),
      meta,
    );
  }

  /**
   * Links to what stands on its own: the front page, and the listings that search engines may
   * see.
   */
  private waysOn(): string {
    const { site, listings } = this.site.design;
    const ways = listings.flatMap((l) =>
      l.address === undefined || l.seo?.index === false
        ? []
        : [{ href: l.address, words: l.label }],
    );
    const links = [
      { href: rootOf(this.site.design), words: site.name },
      ...ways.slice(0, MAX_WAYS),
    ].map(({ href, words }) => `<li><a href="${escapeHtml(href)}">${escapeHtml(words)}</a></li>`);
    return `<ul class="ways-on">${links.join('')}</ul>`;
  }

  /** What a visitor wants of a list goes along to where it stands. */
  private withQuery(location: string): string {
    const { site, reader, validity, parameters } = this;
    const { query } = visitAt({ site, reader, validity }, location, parameters);
    return query === '' ? location : `${location}?${query}`;
  }

  private redirect(status: number, location: string): RenderedPage {
    if (!isSafeTarget(location)) return this.missing();
    const { language } = this.site.design.site;
    const target = encodeAddress(location);
    const href = escapeHtml(target);
    const body = `<!DOCTYPE html>\n<html lang="${escapeHtml(language)}"><head><meta charset="utf-8"><title>${href}</title></head><body><p>${wordsOf(language).moved} <a href="${href}">${href}</a>.</p></body></html>\n`;
    return this.result('redirect', status, body, null, { headers: { location: target } });
  }

  private result(
    kind: RenderedPage['kind'],
    status: number,
    body: string,
    meta: PageMeta | null,
    more: Partial<RenderedPage> = {},
  ): RenderedPage {
    const { language: own, freshness } = this.site.design.site;
    const language = meta?.language ?? own;
    const { until, since, at } = this.validity;
    const headers: Record<string, string> = {
      'content-type': 'text/html; charset=utf-8',
      'content-language': language,
      'cache-control': cacheControl(freshness, until, at),
      ...more.headers,
    };
    if (since !== null && status === 200) headers['last-modified'] = new Date(since).toUTCString();
    return {
      status,
      body,
      kind,
      validUntil: until,
      changed: since,
      freshness,
      meta,
      entry: null,
      listing: null,
      page: null,
      automatic: false,
      ...more,
      headers,
    };
  }
}
