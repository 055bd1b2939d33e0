import type { Looking } from './clock.ts';
import { designSeen, readerSeeing, seenIn } from './drafts.ts';
import type { SiteView } from './site-view.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import type { SiteReader } from '@/core/site/reader.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import {
  type ListingPath,
  type PageLine,
  automaticFront,
  listingLine,
  listingPaths,
  pageLines,
} from '@/core/site/pages.ts';
import { siteAtPath } from '@/core/site/languages.ts';
import { rootOf } from '@/core/design/language-spec.ts';
import { resolvePath } from '@/core/site/resolve.ts';
import { compareCodePoints, searchKey } from '@/core/text.ts';
import { type Instant, Validity } from '@/core/time/interval.ts';
import { asOf } from '../store/as-of.ts';
import { type LanguageTables, tablesRead } from '../store/language-tables.ts';
import { UntilWrite } from '../store/until-write.ts';

/** What stands at a path: an entry's page, that of a list, or nothing of its own any more or yet. */
export const ADDRESS_KINDS = ['list', 'page', 'redirect', 'coming', 'former'] as const;
/** What stands at a path. */
export type AddressKind = (typeof ADDRESS_KINDS)[number];

/** Which addresses are wanted. */
export interface AddressesAsked {
  /** Words in the path or the name. */
  search: string;
  kind: AddressKind | null;
  /** Key of a type; null for all. */
  type: string | null;
  /** Id of a further language; null for the site's own. */
  language?: string | null | undefined;
}

/** A path as of an instant. */
export interface AddressRow {
  path: string;
  kind: AddressKind;
  /** What it is, in words: "Variety", "Listing", "Leads on, set by hand". */
  shows: string;
  /** Title of what it shows, or the place that it leads to. */
  title: string;
  entry: string | null;
  listing: string | null;
  /** From when it stands there, where that is ahead; ms UTC. */
  from: Instant | null;
  /** Whether it was numbered, since others have what it was to be. */
  isNumbered: boolean;
}

/** Some addresses, and how many there are of each kind. */
export interface AddressRows {
  rows: AddressRow[];
  total: number;
  counts: Record<AddressKind, number>;
}

/** So many are given at once. */
export const ADDRESSES_AT_ONCE = 100;

/** A kind's addresses: how many, and a stretch of them. */
interface Section {
  kind: AddressKind;
  total: number;
  rows: (offset: number, limit: number) => AddressRow[];
}

/** Addresses as of an instant, from one place on: those of lists, of entries, and the others. */
export function addressRows(
  view: SiteView,
  actor: Actor,
  { at, seeing }: Pick<Looking, 'at' | 'seeing'>,
  asked: AddressesAsked,
  from = 0,
): AddressRows {
  permit(actor, 'read-unpublished', SITE);
  const own = designSeen(view, { at, seeing });
  if (!own) return { rows: [], total: 0, counts: countsOf([]) };
  const found = seenIn(own, asked.language ?? null);
  // Drafts are seen in the site's own language.
  const reader = asked.language ? found.reader : readerSeeing(view, { actor, at, seeing }, own);
  const addresses = new Addresses(view, { ...found, reader, isAsIs: reader === found.reader }, at);
  const sections = addresses.sections(asked);
  const rows: AddressRow[] = [];
  let skip = from;
  for (const { total, rows: of } of sections.filter((s) => (asked.kind ?? s.kind) === s.kind)) {
    const left = ADDRESSES_AT_ONCE - rows.length;
    if (skip < total && left > 0) rows.push(...of(skip, left));
    skip = Math.max(0, skip - total);
  }
  const counts = countsOf(sections);
  const total = asked.kind ? counts[asked.kind] : sections.reduce((sum, s) => sum + s.total, 0);
  return { rows, total, counts };
}

function countsOf(sections: readonly Section[]): Record<AddressKind, number> {
  const totals = ADDRESS_KINDS.map((kind) => [
    kind,
    sections.find((s) => s.kind === kind)?.total ?? 0,
  ]);
  return Object.fromEntries(totals) as Record<AddressKind, number>;
}

/** An address in the database. */
interface Stored {
  path: string;
  entry: string;
  type: string;
  updated: number;
  base: string;
}

const NOTHING = { entry: null, listing: null, from: null, isNumbered: false } as const;

/** Counts of addresses: each hundred that is asked for comes with them. */
const COUNTED = new UntilWrite<number>(100);

class Addresses {
  private readonly validity: Validity;
  private readonly tables: LanguageTables;

  constructor(
    private readonly view: SiteView,
    private readonly seen: {
      site: CompiledSite;
      reader: SiteReader;
      /** Whether nothing is seen but what is published. */
      isAsIs: boolean;
    },
    private readonly at: Instant,
  ) {
    this.validity = new Validity(at);
    this.tables = tablesRead(view.connection, seen.site.design.edition?.id);
  }

  sections({ search, type }: AddressesAsked): Section[] {
    const all = [
      this.lists(search, type),
      this.seen.isAsIs ? this.pages(search, type) : this.pagesSeen(search, type),
      this.byHand(search, type),
      this.coming(search, type),
      this.former(search, type),
    ];
    return all.map(([kind, total, rows]) => ({ kind, total, rows }));
  }

  private lists(search: string, type: string | null): SectionParts {
    const { site, reader } = this.seen;
    const { validity } = this;
    const all = listingPaths(site, reader, validity);
    const root = rootOf(site.design);
    const isChosen =
      reader.holders(root, validity).current !== null || all.some((p) => p.path === root);
    const automatic = isChosen || type !== null ? [] : [automaticFront(site)];
    const found = all
      .filter((p) => isOfType(site, p.key, type) && fits(listWords(site, p), search))
      .sort((a, b) => compareCodePoints(a.path, b.path));
    const front = automatic.filter((p) => fits(`${p.path} ${p.title}`, search));
    return inMemory('list', [...front, ...found], (page) =>
      this.rowOf('key' in page ? listingLine(site, reader, validity, page) : page, 'list'),
    );
  }

  private pages(search: string, type: string | null): SectionParts {
    const from = `FROM ${this.tables.address} AS a JOIN entry AS e ON e.id = a.entry
      JOIN ${this.tables.live} AS l ON l.entry = a.entry AND ${asOf('l', '@at')}
      JOIN revision AS r ON r.entry = l.entry AND r.number = l.revision
      WHERE a.role = 'current' AND ${asOf('a', '@at')} ${this.having(search, type)}`;
    const rows = (offset: number, limit: number): AddressRow[] =>
      this.asPages(
        this.all<Stored>(
          search === '' && type === null
            ? `SELECT a.*, e.type, l.starts AS updated FROM (SELECT path, entry, base FROM ${this.tables.address}
                WHERE role = 'current' AND ${asOf('', '@at')}
                ORDER BY path LIMIT ${limit} OFFSET ${offset}) AS a
              JOIN entry AS e ON e.id = a.entry
              JOIN ${this.tables.live} AS l ON l.entry = a.entry AND ${asOf('l', '@at')} ORDER BY a.path`
            : `SELECT a.path, a.entry, e.type, l.starts AS updated, a.base ${from}
                ORDER BY a.path LIMIT ${limit} OFFSET ${offset}`,
          this.params(search, type),
        ),
      );
    // Without words to be looked for, nothing but the addresses is counted.
    const plain = `FROM ${this.tables.address} AS a JOIN entry AS e ON e.id = a.entry
      WHERE a.role = 'current' AND ${asOf('a', '@at')} ${this.having('', type)}`;
    const counted = `SELECT count(*) ${search === '' ? plain : from}`;
    const total =
      search === '' && type === null
        ? this.seen.reader.livePageCount(this.validity)
        : this.count(counted, search, type);
    return ['page', total, rows];
  }

  private asPages(stored: readonly Stored[]): AddressRow[] {
    const { site, reader } = this.seen;
    const numbered = new Set(stored.filter(({ path, base }) => path !== base).map((s) => s.path));
    return pageLines(site, reader, this.validity, stored as never).map((page) => ({
      ...this.rowOf(page, 'page'),
      isNumbered: numbered.has(page.path),
    }));
  }

  /** The pages that one sees who sees more than what is published. */
  private pagesSeen(search: string, type: string | null): SectionParts {
    const { site, reader } = this.seen;
    const id = type === null ? null : (site.typesByKey.get(type)?.id ?? '');
    const all = reader
      .livePages(null, Infinity, this.validity)
      .filter((page) => id === null || page.type === id)
      .filter(({ path, entry }) =>
        search === '' ? true : fits(`${path} ${reader.nameOf(entry) ?? ''}`, search),
      );
    const rows = (offset: number, limit: number): AddressRow[] =>
      pageLines(site, reader, this.validity, all.slice(offset, offset + limit)).map((page) =>
        this.rowOf(page, 'page'),
      );
    return ['page', all.length, rows];
  }

  private byHand(search: string, type: string | null): SectionParts {
    const { site } = this.seen;
    const own = site.languages[0]!;
    const all = [...site.redirects.values()]
      .filter(({ from, to }) => type === null && fits(`${from} ${to}`, search))
      .filter(({ from }) => siteAtPath(own, from) === site)
      .sort((a, b) => compareCodePoints(a.from, b.from));
    return inMemory('redirect', all, ({ from, to, isPrefix }) => ({
      ...{ ...NOTHING, path: from, title: to, kind: 'redirect' as const },
      shows: isPrefix ? 'Leads on, with all below' : 'Leads on, set by hand',
    }));
  }

  private coming(search: string, type: string | null): SectionParts {
    const from = `FROM ${this.tables.address} AS a JOIN entry AS e ON e.id = a.entry
      JOIN revision AS r ON r.entry = e.id AND r.number = e.newest
      WHERE a.role = 'current' AND a.starts > @at ${this.having(search, type)}`;
    const rows = (offset: number, limit: number): AddressRow[] =>
      this.all<{ path: string; entry: string; type: string; name: string; starts: number }>(
        `SELECT a.path, a.entry, e.type, r.name, a.starts ${from}
           ORDER BY a.starts, a.path LIMIT ${limit} OFFSET ${offset}`,
        this.params(search, type),
      ).map(({ path, entry, type: of, name, starts }) => ({
        ...{ ...NOTHING, path, entry, kind: 'coming' as const, title: name, from: starts },
        shows: this.seen.site.types.get(of)?.label ?? '',
      }));
    return ['coming', this.count(`SELECT count(*) ${from}`, search, type), rows];
  }

  /** Paths that were some entry's and are nobody's now. */
  private former(search: string, type: string | null): SectionParts {
    const from = `FROM (SELECT a.path, max(a.starts) AS starts FROM ${this.tables.address} AS a
        WHERE a.starts <= @at AND (a.role <> 'current' OR a.ends <= @at) AND NOT EXISTS
          (SELECT 1 FROM ${this.tables.address} AS n WHERE n.path = a.path AND n.role = 'current' AND ${asOf('n', '@at')})
        GROUP BY a.path) AS p
      JOIN ${this.tables.address} AS a ON a.path = p.path AND a.starts = p.starts
      JOIN entry AS e ON e.id = a.entry
      JOIN revision AS r ON r.entry = e.id AND r.number = e.newest
      WHERE 1 ${this.having(search, type)}`;
    const rows = (offset: number, limit: number): AddressRow[] =>
      this.all<{ path: string }>(
        `SELECT DISTINCT a.path ${from} ORDER BY a.path LIMIT ${limit} OFFSET ${offset}`,
        this.params(search, type),
      ).map(({ path }) => this.formerRow(path));
    return ['former', this.count(`SELECT count(DISTINCT a.path) ${from}`, search, type), rows];
  }

  private formerRow(path: string): AddressRow {
    const { site, reader } = this.seen;
    const found = resolvePath(site, reader, path, this.validity);
    const leads = found.kind === 'redirect' ? found.location : '';
    const shows = found.kind === 'redirect' ? `Leads on (${found.status})` : 'Gone (410)';
    const other = found.kind === 'listing' || found.kind === 'file' ? 'Shown otherwise' : shows;
    return { ...NOTHING, path, kind: 'former', shows: other, title: leads };
  }

  /** Conditions on an address `a`, its entry `e` and the revision `r` that names it. */
  private having(search: string, type: string | null): string {
    const words = `AND instr(a.path || ' ' || r.search, @search) > 0`;
    return `${search === '' ? '' : words} ${type === null ? '' : 'AND e.type = @type'}`;
  }

  private params(search: string, type: string | null): Record<string, unknown> {
    const id = type === null ? null : (this.seen.site.typesByKey.get(type)?.id ?? '');
    return { at: this.at, search: searchKey(search), type: id };
  }

  private all<Row>(sql: string, params: object): Row[] {
    return this.view.connection.driver.prepare<unknown[], Row>(sql).all(params);
  }

  private count(sql: string, search: string, type: string | null): number {
    const { connection } = this.view;
    const params = this.params(search, type);
    return COUNTED.get(connection, JSON.stringify([sql, params]), () =>
      connection.driver.prepare<unknown[], number>(sql).pluck().get(params)!,
    );
  }

  private rowOf(page: PageLine, kind: AddressKind): AddressRow {
    const { path, title, entry, listing } = page;
    const shows = showsOf(this.seen.site, page);
    return { ...NOTHING, path, kind, shows, title, entry, listing };
  }
}

type SectionParts = [AddressKind, number, Section['rows']];

function inMemory<T>(
  kind: AddressKind,
  all: readonly T[],
  row: (one: T) => AddressRow,
): SectionParts {
  return [kind, all.length, (offset, limit) => all.slice(offset, offset + limit).map(row)];
}

/** What a page of a list is found by: its path, the list's name, the value it is for. */
function listWords(site: CompiledSite, { key, path, value }: ListingPath): string {
  return `${path} ${site.listings.get(key)!.listing.label} ${value?.name ?? ''}`;
}

function isOfType(site: CompiledSite, key: string, type: string | null): boolean {
  if (type === null) return true;
  const { listing } = site.listings.get(key)!;
  return [listing.type, ...(listing.also ?? [])].includes(type);
}

/** What a page is, in words: "Variety", "Listing for Beans, page 2". */
function showsOf(site: CompiledSite, { entry, type, listing, value, page }: PageLine): string {
  if (entry !== null) return site.typesByKey.get(type ?? '')?.label ?? '';
  if (listing === null) return 'Automatic list';
  const of = value === null ? 'Listing' : `Listing for ${value}`;
  return page !== null && page > 1 ? `${of}, page ${page}` : of;
}

function fits(text: string, search: string): boolean {
  return searchKey(text).includes(searchKey(search));
}
