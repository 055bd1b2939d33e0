import type { Connection } from '../db/connection.ts';
import { WorkingDesigns } from '../store/bench.ts';
import { type DesignStore, designsOf } from '../store/design-store.ts';
import { NO_SITE } from '../store/designs-ahead.ts';
import { languagesMade, tablesIn } from '../store/language-tables.ts';
import { RowCache } from '../store/row-cache.ts';
import { StoredReader } from '../store/site-reader.ts';
import { type Subjects, SubjectStore } from '../store/subject-store.ts';
import { settledInstant, totalGeneration } from '../store/write.ts';
import type { Folded } from '@/core/design-edit/fold.ts';
import { type ReadSet, readKey, recording } from '@/core/forecast/read-set.ts';
import { pageCountOf } from '@/core/site/pinned.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import { siteAtPath } from '@/core/site/languages.ts';
import type { SiteReader } from '@/core/site/reader.ts';
import { type PageLine, allPages } from '@/core/site/pages.ts';
import { type PageRequest, type RenderedPage, render, trace } from '@/core/site/render.ts';
import { compareCodePoints } from '@/core/text.ts';
import { type Parameter, visitAt } from '@/core/site/visits.ts';
import { type Instant, Validity } from '@/core/time/interval.ts';
import { pagePath } from '@/core/address/path.ts';

/** The design and a reader as of an instant. */
export interface SiteAt {
  site: CompiledSite;
  reader: StoredReader;
  /** When the next design takes over, ms UTC; null for none. */
  until: Instant | null;
  /** When this one was released, ms UTC; null where that is not known. */
  since: Instant | null;
}

/** The working design and a reader as of an instant. */
export interface WorkingAt extends SiteAt {
  folded: Folded;
}

/** By which key a page reads the design. */
function designRead({ site, reader }: SiteAt, { kind, entry, listing }: RenderedPage): string {
  if (kind === 'entry') return readKey.designOfType(reader.typeOf(entry!) ?? '');
  if (kind !== 'listing') return readKey.design;
  return readKey.designOfListing(site.listings.get(listing!)!.listing.id);
}

/** A site, and a reader for it, in the language below whose root a path stands. */
export function inLanguageOf(
  view: Pick<SiteAt, 'site'> & { reader: SiteReader },
  path: string,
): { site: CompiledSite; reader: SiteReader } {
  const site = siteAtPath(view.site, path);
  return { site, reader: readerIn(view, site) };
}

function readerIn(
  view: Pick<SiteAt, 'site'> & { reader: SiteReader },
  site: CompiledSite,
): SiteReader {
  return site === view.site ? view.reader : view.reader.in(site);
}

/** Of a longer list of parameters none is read. */
const LONGEST_QUERY = 4000;

/** What is asked for by an address: its path, and the parameters behind it. */
export function requestOf(address: string, at: Instant): PageRequest {
  return { path: pathOnly(address), at, parameters: parametersOf(address) };
}

/** A request's path without query and fragment. */
function pathOnly(path: string): string {
  return path.split(/[?#]/, 1)[0]!;
}

/** The parameters of a request's path; none where they are too long to be anybody's. */
function parametersOf(path: string): Parameter[] {
  const query = /\?([^#]*)/.exec(path)?.[1] ?? '';
  return query === '' || query.length > LONGEST_QUERY ? [] : [...new URLSearchParams(query)];
}

/** What is public of a stored site, as of any instant. Sees other processes' writes. */
export class SiteView {
  private readonly subjectStore: SubjectStore;
  private readonly designs: DesignStore;
  private readonly workingDesigns: WorkingDesigns;
  private readonly rows = new RowCache();
  private generation = -1;

  constructor(readonly connection: Connection) {
    this.subjectStore = new SubjectStore(connection);
    this.designs = designsOf(connection);
    this.workingDesigns = new WorkingDesigns(connection);
  }

  /** The design released as of an instant and a reader for it; null while no site is loaded. */
  at(instant: Instant): SiteAt | null {
    const generation = totalGeneration(this.connection);
    if (generation !== this.generation) {
      this.generation = generation;
      this.rows.clear(); // a load may have put other values under the same entry and number
    }
    const released = this.designs.at(instant);
    if (!released) return null;
    return {
      site: released.site,
      reader: this.readerOf(released.site, this.rows),
      until: released.until,
      since: released.since,
    };
  }

  /**
   * The working design on top of what is released as of an instant, and a reader for it; null while
   * no site is loaded.
   */
  working(instant: Instant): WorkingAt | null {
    const released = this.at(instant);
    if (!released) return null;
    const folded = this.workingDesigns.on(released.site);
    const { site } = folded;
    const reader = site === released.site ? released.reader : this.readerOf(site);
    return { ...released, site, reader, folded };
  }

  /** The design that screens edit: the working one, but in the past what was released then. */
  editable(instant: Instant, past: boolean): SiteAt | null {
    return past ? this.at(instant) : this.working(instant);
  }

  /** A reader for a design that need not be released; it remembers nothing from before. */
  readerOf(site: CompiledSite, rows = new RowCache()): StoredReader {
    const settled = settledInstant(this.connection);
    return new StoredReader(this.connection, site, this.subjectStore.under(site), rows, settled);
  }

  /** The subjects, by the keys that their sets have as of an instant. */
  subjects(at: Instant): Subjects {
    return this.subjectStore.under(this.at(at)?.site ?? NO_SITE).at(at);
  }

  /**
   * A page as of an instant; null while no site is loaded. A path may have parameters. What it looks
   * at is noted in a read set, where one is given.
   */
  render(path: string, at: Instant, reads?: ReadSet): RenderedPage | null {
    const view = this.at(at);
    if (!view) return null;
    const asked = requestOf(path, at);
    const { site, reader: plain } = inLanguageOf(view, asked.path);
    const reader = reads ? recording(plain, reads) : plain;
    const page = render(site, reader, asked, view);
    reads?.keys.add(designRead(view, page));
    return page;
  }

  /**
   * What of a path's parameters its page reads, and whether something is searched for; `query` is ''
   * where that is nothing.
   */
  asked(path: string, at: Instant): { query: string; isSearch: boolean } {
    const [view, parameters] = [this.at(at), parametersOf(path)];
    if (!view || parameters.length === 0) return { query: '', isSearch: false };
    const world = { ...inLanguageOf(view, pathOnly(path)), validity: new Validity(at) };
    const { query, visit } = visitAt(world, pathOnly(path), parameters);
    return { query, isSearch: visit.search !== '' };
  }

  /** Why a path leads where it leads; null while no site is loaded. */
  trace(path: string, at: Instant): ReturnType<typeof trace> | null {
    const view = this.at(at);
    if (!view) return null;
    const asked = requestOf(path, at);
    const { site, reader } = inLanguageOf(view, asked.path);
    return trace(site, reader, asked);
  }

  /** Every page that answers 200 with HTML, by path; null while no site is loaded. */
  pages(at: Instant): PageLine[] | null {
    const view = this.at(at);
    if (!view) return null;
    const pages = view.site.languages.flatMap((site) => allPages(site, readerIn(view, site), at));
    return pages.sort((a, b) => compareCodePoints(a.path, b.path));
  }

  /**
   * The own addresses of the listing chosen for "/" and of its pages: all lead to "/" and below
   * it.
   */
  private frontListingPaths(at: Instant): string[] {
    const view = this.at(at);
    const plan = view?.site.listings.get(view.site.frontListing ?? '');
    const address = plan?.listing.address;
    if (!view || !plan || address === undefined) return [];
    const count = pageCountOf(view.reader, plan, new Validity(at));
    return Array.from({ length: count }, (_, i) => pagePath(address, i + 1));
  }

  /** Paths that lead elsewhere or are gone as of an instant, by path. */
  formerPaths(at: Instant): { path: string; page: RenderedPage }[] {
    const languages = [undefined, ...languagesMade(this.connection)];
    const paths = languages.flatMap((language) => {
      const sql = `SELECT DISTINCT path FROM ${tablesIn(language).address}
        WHERE starts <= @at AND (role <> 'current' OR ends <= @at)`;
      return this.connection.driver.prepare<unknown[], string>(sql).pluck().all({ at });
    });
    const byHand = this.at(at)?.site.redirects.keys() ?? [];
    const all = [...new Set([...paths, ...byHand, ...this.frontListingPaths(at)])];
    return all.sort(compareCodePoints).flatMap((path) => {
      const page = this.render(path, at);
      return page && page.status !== 200 && page.status !== 404 ? [{ path, page }] : [];
    });
  }
}
