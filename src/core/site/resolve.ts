import { isReserved, normalisePath, pagePath, splitPageNumber } from '../address/path.ts';
import { rootOf } from '../design/language-spec.ts';
import type { FanValue } from '../listing/fan-out.ts';
import type { ListingPlan } from '../listing/plan.ts';
import { type FannedOut, fanValueAt } from './fan-values.ts';
import { fedAt } from './feed-file.ts';
import { isSiteFile } from './site-file.ts';
import { pageCountOf } from './pinned.ts';
import { redirectAt } from './redirects.ts';
import { formatStyled } from '../pattern/date-format.ts';
import type { Instant, Validity } from '../time/interval.ts';
import type { CompiledSite } from './compile.ts';
import type { SiteReader } from './reader.ts';

/** What a path leads to as of an instant. */
export type Resolution =
  | { kind: 'entry'; entry: string; path: string }
  | { kind: 'listing'; listing: string; number: number; path: string; value?: FanValue }
  | { kind: 'front'; path: string }
  | { kind: 'file'; path: string }
  | { kind: 'redirect'; status: number; location: string }
  | { kind: 'gone' }
  | { kind: 'missing' }
  | { kind: 'bad'; reason: string };

/** One step of the answer to "why does this path lead there". */
export interface TraceStep {
  step:
    | 'address'
    | 'normal form'
    | 'reserved'
    | 'front page'
    | 'listing'
    | 'current address'
    | 'page of a value'
    | 'method'
    | 'redirect by hand'
    | 'former address'
    | 'parameters'
    | 'page';
  matched: boolean;
  words: string;
}

/**
 * Resolves a request's path; the first match answers. Steps are collected where a list for them
 * is given.
 */
export function resolvePath(
  site: CompiledSite,
  reader: SiteReader,
  rawPath: string,
  validity: Validity,
  steps: TraceStep[] | null = null,
): Resolution {
  const normal = normalisePath(rawPath);
  if (!normal.ok) {
    steps?.push({ step: 'normal form', matched: true, words: normal.reason });
    return { kind: 'bad', reason: normal.reason };
  }
  const resolution = new Resolver(site, reader, validity, steps).resolve(normal.path);
  const moves = normal.changed && ANSWERS.has(resolution.kind);
  if (steps && moves) for (const step of steps) step.matched = false;
  steps?.unshift({
    step: 'normal form',
    matched: moves,
    words: normal.changed ? `Read as ${normal.path}.` : 'The path is in normal form.',
  });
  return moves ? { kind: 'redirect', status: 308, location: normal.path } : resolution;
}

/** What answers 200, so that other spellings of its path lead there. */
const ANSWERS: ReadonlySet<Resolution['kind']> = new Set(['entry', 'listing', 'front', 'file']);

class Resolver {
  /** Where the front page stands. */
  private readonly root: string;

  constructor(
    private readonly site: CompiledSite,
    private readonly reader: SiteReader,
    private readonly validity: Validity,
    private readonly steps: TraceStep[] | null,
  ) {
    this.root = rootOf(site.design);
  }

  resolve(path: string): Resolution {
    return this.reserved(path) ?? this.front(path) ?? this.listing(path) ?? this.held(path);
  }

  private say(step: TraceStep['step'], matched: boolean, words: () => string): void {
    this.steps?.push({ step, matched, words: words() });
  }

  private name(entry: string): string {
    return `“${this.reader.nameOf(entry) ?? entry}”`;
  }

  private listingName(key: string): string {
    return `“${this.site.listings.get(key)?.listing.label ?? key}”`;
  }

  private when(at: Instant): string {
    const { language, zone } = this.site.design.site;
    return formatStyled(at, 'medium', language, zone);
  }

  private reserved(path: string): Resolution | null {
    const fed = fedAt(this.site, this.reader, path, this.validity);
    if (fed) {
      const { value, plan } = fed;
      const of = value ? ` for ${value.name}` : '';
      this.say('reserved', true, () => `The feed of ${this.listingName(plan.listing.key)}${of}.`);
      return { kind: 'file', path };
    }
    const matched = isReserved(path);
    this.say('reserved', matched, () =>
      matched ? 'The site keeps this path for itself.' : 'No reserved path.',
    );
    if (!matched) return null;
    return isSiteFile(path) ? { kind: 'file', path } : { kind: 'missing' };
  }

  private front(path: string): Resolution | null {
    if (path !== this.root) return null;
    const { frontListing, frontEntry } = this.site;
    if (frontListing !== null) {
      this.say(
        'front page',
        true,
        () => `"${path}" is set to show the listing ${this.listingName(frontListing)}.`,
      );
      return { kind: 'listing', listing: frontListing, number: 1, path };
    }
    if (frontEntry !== null) {
      const live = this.reader.holders(path, this.validity).current?.entry === frontEntry;
      this.say('front page', true, () => {
        const set = `"${path}" is set to show ${this.name(frontEntry)}`;
        return live ? `${set}.` : `${set}, which is not live; the automatic list stands in.`;
      });
      return live ? { kind: 'entry', entry: frontEntry, path } : { kind: 'front', path };
    }
    this.say(
      'front page',
      true,
      () => `Nothing is chosen for "${path}"; it shows an automatic list of the newest pages.`,
    );
    return { kind: 'front', path };
  }

  private listing(path: string): Resolution | null {
    const { frontListing } = this.site;
    const key = this.site.listingAt.get(path);
    if (key !== undefined) {
      this.say('listing', true, () => `The listing ${this.listingName(key)} stands here.`);
      if (key === frontListing) return { kind: 'redirect', status: 308, location: this.root };
      return { kind: 'listing', listing: key, number: 1, path };
    }
    const page = splitPageNumber(path);
    const paged =
      page && (page.address === this.root ? frontListing : this.site.listingAt.get(page.address));
    if (page && paged) {
      const plain = path === pagePath(page.address, page.number);
      const isOne = this.site.listings.get(paged)?.each?.hasIndex ?? false;
      const exists = plain && page.number >= 2 && !isOne;
      this.say('listing', true, () => {
        if (isOne) return `The page of ${this.listingName(paged)} that leads to its values is one.`;
        return exists
          ? `Page ${page.number} of the listing ${this.listingName(paged)}.`
          : 'Page 1 of a listing has no number in its address.';
      });
      if (!exists) return { kind: 'missing' };
      if (paged === frontListing && page.address !== this.root) {
        const there = page.number <= this.pageCount(paged);
        const location = pagePath(this.root, page.number);
        return there ? { kind: 'redirect', status: 308, location } : { kind: 'missing' };
      }
      return { kind: 'listing', listing: paged, number: page.number, path };
    }
    this.say('listing', false, () => 'No listing stands here.');
    return null;
  }

  /** A page of a listing that has one for each value. */
  private value(path: string): Resolution | null {
    const { fannedOut } = this.site;
    if (fannedOut.length === 0) return null;
    const split = splitPageNumber(path);
    const { address, number } = split ?? { address: path, number: 1 };
    const isPlain = !split || (number >= 2 && path === pagePath(address, number));
    for (const plan of isPlain ? fannedOut : []) {
      const value = fanValueAt(this.fanned(plan), address);
      if (!value) continue;
      const listing = plan.listing.key;
      this.say('page of a value', true, () => {
        const page = number > 1 ? `Page ${number} of ` : '';
        return `${page}the listing ${this.listingName(listing)} for ${value.name}.`;
      });
      return { kind: 'listing', listing, number, path, value };
    }
    this.say('page of a value', false, () => 'No listing has a page for a value here.');
    return null;
  }

  private fanned(plan: ListingPlan): FannedOut {
    const { language } = this.site.design.site;
    return { plan, reader: this.reader, validity: this.validity, language };
  }

  /** How many pages a listing has, at least 1. */
  private pageCount(key: string): number {
    const plan = this.site.listings.get(key);
    return plan ? pageCountOf(this.reader, plan, this.validity) : 0;
  }

  private held(path: string): Resolution {
    const { current, former } = this.reader.holders(path, this.validity);
    if (current?.role === 'current') {
      this.say('current address', true, () => `${this.name(current.entry)} stands here.`);
      return { kind: 'entry', entry: current.entry, path };
    }
    this.say('current address', false, () => 'No entry stands here.');
    const value = this.value(path);
    if (value) return value;
    const found = redirectAt(this.site.redirects, path);
    if (found) {
      const { byHand, location } = found;
      this.say('redirect by hand', true, () => {
        const of = byHand.from === path ? 'Set' : `All below ${byHand.from} is set`;
        return `${of} by hand to lead to ${location}.`;
      });
      return { kind: 'redirect', status: byHand.status, location };
    }
    this.say('redirect by hand', false, () => 'No redirect is set by hand.');
    if (current) {
      this.say(
        'former address',
        true,
        () => `${this.name(current.entry)} is chosen for "${this.root}" and stands there only.`,
      );
      return { kind: 'redirect', status: 308, location: this.root };
    }
    return this.formerly(path, former);
  }

  private formerly(asked: string, former: string | null): Resolution {
    if (former === null) {
      const elsewhere = this.formerlyElsewhere(asked);
      if (!elsewhere) this.say('former address', false, () => this.nobodyYet(asked));
      return elsewhere ?? { kind: 'missing' };
    }
    const path = this.reader.currentPath(former, this.validity);
    if (path !== null) return this.leadOn(former, path);
    const type = this.reader.typeOf(former);
    this.say('former address', true, () =>
      type === null
        ? 'What stood here was purged: nothing is left of it.'
        : `${this.name(former)} stood here and is not live.`,
    );
    return this.retired(type);
  }

  /** Where what stood at a path in another language stands now; null where nothing did. */
  private formerlyElsewhere(asked: string): Resolution | null {
    for (const other of this.site.languages) {
      if (other === this.site) continue;
      const reader = this.reader.in(other);
      const { current, former } = reader.holders(asked, this.validity);
      const entry = current?.entry ?? former ?? '';
      const path = reader.currentPath(entry, this.validity);
      if (path !== null && path !== asked) return this.leadOn(entry, path);
    }
    return null;
  }

  private leadOn(entry: string, location: string): Resolution {
    const words = (): string => `${this.name(entry)} stood here, and stands at ${location} now.`;
    this.say('former address', true, words);
    return { kind: 'redirect', status: 308, location };
  }

  private nobodyYet(path: string): string {
    const next = this.reader.comingAt(path, this.validity.at);
    return next === null
      ? 'No entry ever stood here by then.'
      : `Nobody stood here by then; ${this.name(next.entry)} will from ${this.when(next.at)}.`;
  }

  private listingPath(key: string): string | undefined {
    return key === this.site.frontListing
      ? this.root
      : this.site.listings.get(key)?.listing.address;
  }

  /** What the address of an entry of a type, by its id, answers while it is not live. */
  private retired(type: string | null): Resolution {
    const rule = this.site.types.get(type ?? '')?.retired ?? 'gone';
    if (rule === 'gone') return { kind: 'gone' };
    const location = 'path' in rule ? rule.path : this.listingPath(rule.listing);
    return location === undefined ? { kind: 'gone' } : { kind: 'redirect', status: 308, location };
  }
}
