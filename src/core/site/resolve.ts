import { isReserved, normalisePath, splitPageNumber } from '../address/path.ts';
import type { Validity } from '../time/interval.ts';
import type { CompiledSite } from './compile.ts';
import type { SiteReader } from './reader.ts';

/** What a path leads to as of an instant. */
export type Resolution =
  | { kind: 'entry'; entry: string; path: string }
  | { kind: 'listing'; listing: string; number: number; path: string }
  | { kind: 'front'; path: '/' }
  | { kind: 'file'; path: string }
  | { kind: 'redirect'; status: number; location: string }
  | { kind: 'gone' }
  | { kind: 'missing' }
  | { kind: 'bad'; reason: string };

/** One step of the answer to "why does this path lead there". */
export interface TraceStep {
  step:
    | 'normal form'
    | 'reserved'
    | 'front page'
    | 'listing'
    | 'current address'
    | 'redirect by hand'
    | 'former address';
  matched: boolean;
  words: string;
}

/** Resolves a request's path; the first match answers. Steps are collected for the trace. */
export function resolvePath(
  site: CompiledSite,
  reader: SiteReader,
  rawPath: string,
  validity: Validity,
  steps: TraceStep[] = [],
): Resolution {
  const normal = normalisePath(rawPath);
  if (!normal.ok) {
    steps.push({ step: 'normal form', matched: true, words: normal.reason });
    return { kind: 'bad', reason: normal.reason };
  }
  steps.push({
    step: 'normal form',
    matched: normal.changed,
    words: normal.changed ? `Read as ${normal.path}.` : 'The path is in normal form.',
  });
  const resolution = new Resolver(site, reader, validity, steps).resolve(normal.path);
  const answers =
    resolution.kind === 'entry' ||
    resolution.kind === 'listing' ||
    resolution.kind === 'front' ||
    resolution.kind === 'file';
  return normal.changed && answers
    ? { kind: 'redirect', status: 308, location: normal.path }
    : resolution;
}

class Resolver {
  constructor(
    private readonly site: CompiledSite,
    private readonly reader: SiteReader,
    private readonly validity: Validity,
    private readonly steps: TraceStep[],
  ) {}

  resolve(path: string): Resolution {
    return this.reserved(path) ?? this.front(path) ?? this.listing(path) ?? this.held(path);
  }

  private say(step: TraceStep['step'], matched: boolean, words: string): void {
    this.steps.push({ step, matched, words });
  }

  private reserved(path: string): Resolution | null {
    const matched = isReserved(path);
    this.say(
      'reserved',
      matched,
      matched ? 'The site keeps this path for itself.' : 'No reserved path.',
    );
    if (!matched) return null;
    return path === '/robots.txt' || /^\/sitemap(-\d+)?\.xml$/.test(path)
      ? { kind: 'file', path }
      : { kind: 'missing' };
  }

  private front(path: string): Resolution | null {
    if (path !== '/') return null;
    const front = this.site.design.site.front;
    if (front && 'listing' in front && this.site.listings.has(front.listing)) {
      this.say('front page', true, `"/" is set to show the listing "${front.listing}".`);
      return { kind: 'listing', listing: front.listing, number: 1, path };
    }
    if (front && 'entry' in front) {
      const live = this.reader.holders('/', this.validity).current?.entry === front.entry;
      this.say(
        'front page',
        true,
        live
          ? `"/" is set to show "${front.entry}".`
          : `"/" is set to show "${front.entry}", which is not live; the automatic list stands in.`,
      );
      return live ? { kind: 'entry', entry: front.entry, path } : { kind: 'front', path };
    }
    this.say(
      'front page',
      true,
      'Nothing is chosen for "/"; it shows an automatic list of the newest pages.',
    );
    return { kind: 'front', path };
  }

  private listing(path: string): Resolution | null {
    const front = this.site.design.site.front;
    const frontListing = front && 'listing' in front ? front.listing : null;
    const key = this.site.listingAt.get(path);
    if (key !== undefined) {
      this.say('listing', true, `The listing "${key}" stands here.`);
      if (key === frontListing) return { kind: 'redirect', status: 308, location: '/' };
      return { kind: 'listing', listing: key, number: 1, path };
    }
    const page = splitPageNumber(path);
    const paged =
      page && (page.address === '/' ? frontListing : this.site.listingAt.get(page.address));
    if (page && paged) {
      const plain = String(page.number) === /\d+$/.exec(path)![0];
      const exists = plain && page.number >= 2;
      this.say(
        'listing',
        true,
        exists
          ? `Page ${page.number} of the listing "${paged}".`
          : 'Page 1 of a listing has no number in its address.',
      );
      if (!exists) return { kind: 'missing' };
      if (paged === frontListing && page.address !== '/')
        return { kind: 'redirect', status: 308, location: `/page-${page.number}` };
      return { kind: 'listing', listing: paged, number: page.number, path };
    }
    this.say('listing', false, 'No listing stands here.');
    return null;
  }

  private held(path: string): Resolution {
    const { current, former } = this.reader.holders(path, this.validity);
    if (current?.role === 'current') {
      this.say('current address', true, `"${current.entry}" stands here.`);
      return { kind: 'entry', entry: current.entry, path };
    }
    this.say('current address', false, 'No entry stands here.');
    const byHand = this.site.redirects.get(path);
    if (byHand) {
      this.say('redirect by hand', true, `Set by hand to lead to ${byHand.to}.`);
      return { kind: 'redirect', status: byHand.status, location: byHand.to };
    }
    this.say('redirect by hand', false, 'No redirect is set by hand.');
    if (current) {
      this.say(
        'former address',
        true,
        `"${current.entry}" is chosen for "/" and stands there only.`,
      );
      return { kind: 'redirect', status: 308, location: '/' };
    }
    return this.formerly(former);
  }

  private formerly(former: string | null): Resolution {
    if (former === null) {
      this.say('former address', false, 'No entry ever stood here by then.');
      return { kind: 'missing' };
    }
    const path = this.reader.currentPath(former, this.validity);
    if (path !== null) {
      this.say('former address', true, `"${former}" stood here, and stands at ${path} now.`);
      return { kind: 'redirect', status: 308, location: path };
    }
    this.say('former address', true, `"${former}" stood here and is not live.`);
    return this.retired(former);
  }

  private listingPath(key: string): string | undefined {
    const { front } = this.site.design.site;
    return front && 'listing' in front && front.listing === key
      ? '/'
      : this.site.listings.get(key)?.listing.address;
  }

  private retired(entry: string): Resolution {
    const rule = this.site.types.get(this.reader.typeOf(entry) ?? '')?.retired ?? 'gone';
    if (rule === 'gone') return { kind: 'gone' };
    const location = 'path' in rule ? rule.path : this.listingPath(rule.listing);
    return location === undefined ? { kind: 'gone' } : { kind: 'redirect', status: 308, location };
  }
}
