import type { EntryView, Media, Subject } from '../design/values.ts';
import { valuesOf } from '../design/values.ts';
import { rootOf } from '../design/language-spec.ts';
import { MAX_STEPS } from '../pattern/compile.ts';
import type { Issue } from '../issue.ts';
import type { Instant, Validity } from '../time/interval.ts';
import { type FanValue, fanned } from '../listing/fan-out.ts';
import { onPageOf } from '../listing/of-page.ts';
import { otherSideOf } from '../listing/other-side.ts';
import { PLAIN_VISIT, type Visit, visited } from '../listing/visit.ts';
import { markingHits } from '../template/mark-hits.ts';
import { fanValues } from './fan-values.ts';
import { besideIn, stretchOf } from './pinned.ts';
import { visitorShown } from './visitor-shown.ts';
import { type Parameter, queryOf, visitOf } from './visits.ts';
import type { ListingPlan, FilterWorld } from '../listing/plan.ts';
import type { CompiledTemplate } from '../template/compile.ts';
import { pagePath } from '../address/path.ts';
import type {
  Beside,
  DrawnPicture,
  LanguageLink,
  ListingShown,
  PageAt,
  PictureWish,
  RenderScope,
  VisitorShown,
} from '../template/context.ts';
import type { CompiledSite } from './compile.ts';
import { type Shown, languageLinks } from './languages.ts';
import { drawnPicture, imagePath } from './pictures.ts';
import type { SiteReader } from './reader.ts';

/** So many pictures at the top of a page are fetched at once. */
const AT_ONCE = 3;

/** At most so many entries that lead to one are shown with it. */
const MOST_REFERRING = 1000;

const NO_SLOTS: Record<string, string> = {};
const ALONE: Beside = { previous: null, next: null };
const NO_PAGE: PageAt = { kind: 'other', path: null };

/** A listing as it is planned, and the card it is drawn with. */
interface FoundListing {
  plan: ListingPlan;
  card: CompiledTemplate;
}

/** What one page reads, with every entry read at most once. */
export class PageScope implements RenderScope {
  readonly language: string;
  readonly zone: string;
  readonly address = false;
  readonly at: Instant;
  readonly root: string;
  readonly issues: Issue[];
  steps = MAX_STEPS;
  own: EntryView | null = null;
  roots: Record<string, unknown>;
  shown: ListingShown | null;
  slots: Record<string, string> = NO_SLOTS;
  depth: number;
  lifted = false;
  page: PageAt;
  private inFrame = false;
  /** The list that the page shows, and what its visitor wants of it; null on other pages. */
  private visiting: { plan: ListingPlan; visit: Visit } | null;
  private readonly known: Map<string, EntryView | null>;
  /** What the page has drawn by now, in all its parts. */
  private readonly drawn: { pictures: number; shown: Shown; languages?: LanguageLink[] };

  constructor(
    private readonly site: CompiledSite,
    private readonly reader: SiteReader,
    readonly validity: Validity,
    within?: PageScope,
  ) {
    const settings = site.design.site;
    this.language = settings.language;
    this.zone = settings.zone;
    this.at = validity.at;
    this.root = rootOf(site.design);
    this.issues = within ? within.issues : [];
    this.roots = within ? within.roots : { site: settings, locale: settings.language };
    this.shown = within ? within.shown : null;
    this.depth = within ? within.depth + 1 : 0;
    this.page = within ? within.page : NO_PAGE;
    this.inFrame = within?.inFrame ?? false;
    this.visiting = within?.visiting ?? null;
    this.known = within ? within.known : new Map();
    this.drawn = within ? within.drawn : { pictures: 0, shown: { kind: 'nothing' } };
  }

  of(entry: EntryView): PageScope {
    const scope = new PageScope(this.site, this.reader, this.validity, this);
    scope.own = entry;
    return scope;
  }

  /**
   * The same page for the frame around it: no entry of its own, and the page's blocks in its
   * slots.
   */
  frame(slots: Record<string, string>): PageScope {
    const scope = new PageScope(this.site, this.reader, this.validity, this);
    scope.slots = slots;
    scope.inFrame = true;
    return scope;
  }

  repeating(): PageScope {
    const scope = new PageScope(this.site, this.reader, this.validity, this);
    scope.own = this.own;
    scope.slots = this.slots;
    scope.depth = this.depth;
    scope.roots = { ...this.roots };
    return scope;
  }

  /** Makes this page's own entry the one whose fields are read. */
  show(entry: EntryView): this {
    this.own = entry;
    this.drawn.shown = { kind: 'entry', id: entry.id };
    this.page = { kind: entry.path === this.root ? 'front' : 'entry', path: entry.path };
    this.known.set(entry.id, entry);
    return this;
  }

  /** Makes this a page of a listing. */
  showListing(shown: ListingShown): this {
    this.shown = shown;
    const { key, address, number, count, value = null } = shown;
    this.drawn.shown = { kind: 'listing', key, number, value: value?.key ?? null };
    const path = address === null ? null : pagePath(address, number);
    const first = path === this.root ? 'front' : value ? 'value' : 'listing';
    this.page = { kind: number > 1 ? 'further' : first, path };
    const url = path === null ? '' : this.site.design.site.url + path;
    this.roots = { ...this.roots, page: { number, count, url }, value };
    return this;
  }

  /** Makes this the front page of a site that has nothing chosen for it. */
  showFront(): this {
    this.drawn.shown = { kind: 'front' };
    this.page = { kind: 'front', path: this.root };
    return this;
  }

  entry(id: string): EntryView | null {
    const known = this.known.get(id);
    if (known !== undefined) return known;
    this.read([id]);
    return this.known.get(id) ?? null;
  }

  /** The live entries among the ids, in their order. */
  entries(ids: readonly string[]): EntryView[] {
    this.read(ids);
    return ids.map((id) => this.known.get(id) ?? null).filter((e) => e !== null);
  }

  prefetch(entries: EntryView[], chains: string[][]): void {
    for (const chain of chains) {
      let level = entries;
      for (const field of chain) {
        const ids = new Set<string>();
        for (const { values } of level)
          for (const value of valuesOf(values, field))
            if (typeof value === 'string') ids.add(value);
        if (ids.size === 0) break;
        level = this.entries([...ids]);
      }
    }
  }

  listing(key: string, limit?: number): ListingShown | null {
    // With a limit of its own, and in the frame, it is not the list that the page is about.
    if (this.shown?.key === key && limit === undefined && !this.inFrame) return this.shown;
    const found = this.found(key);
    if (!found) return null;
    const { ids } = this.stretch(onPageOf(found.plan, this.own), 1, limit);
    // How many there are in all is not asked: it is shown on the listing's own pages alone.
    return { ...this.shownOf(found, ids), number: 1, count: 1, total: 0, query: '' };
  }

  /**
   * A page of a listing, or of its list for one value, as its visitor wants it; null where there is
   * no such page.
   */
  listingPage(
    key: string,
    number: number,
    value: FanValue | null,
    parameters: readonly Parameter[] = [],
  ): ListingShown | null {
    const found = this.found(key);
    if (!found) return null;
    const { site, reader, validity } = this;
    const { each, listing } = found.plan;
    // The page that leads to all values is one, and visitors do nothing there.
    const isIndex = each?.hasIndex === true && !value;
    const plan = value ? fanned(found.plan, value.key) : found.plan;
    const visit = isIndex ? PLAIN_VISIT : visitOf({ site, reader, validity }, plan, parameters);
    const { ids, total } = this.stretch(visited(plan, visit), number);
    const count = isIndex ? 1 : Math.max(1, Math.ceil(total / listing.pageSize));
    if (number > count) return null;
    const query = queryOf(plan, visit);
    const shown = { ...this.shownOf(found, ids), number, count, total, query };
    if (!isIndex) this.visiting = { plan, visit };
    if (visit.search !== '') shown.card = markingHits(shown.card, visit.search);
    return value ? { ...shown, address: value.path, value } : shown;
  }

  visitor(): VisitorShown | null {
    const { shown, visiting, reader, validity } = this;
    if (!visiting?.plan.visitor || !shown || shown.address === null) return null;
    return visitorShown({ ...visiting, address: shown.address, reader, validity });
  }

  values(key: string): FanValue[] {
    const plan = this.site.listings.get(key);
    if (!plan?.each) return [];
    const { reader, validity, language } = this;
    return fanValues({ plan, reader, validity, language });
  }

  private found(key: string): FoundListing | null {
    const plan = this.site.listings.get(key);
    const card = this.site.templates.listingCards.get(key);
    return plan && card ? { plan, card } : null;
  }

  private stretch(
    plan: ListingPlan,
    number: number,
    limit?: number,
  ): ReturnType<SiteReader['listing']> {
    const size = plan.listing.pageSize;
    return stretchOf(this.reader, plan, this.validity, (number - 1) * size, limit ?? size);
  }

  private shownOf(
    { plan: { listing }, card }: FoundListing,
    ids: string[],
  ): Omit<ListingShown, 'number' | 'count' | 'total' | 'query'> {
    return {
      key: listing.key,
      entries: this.entries(ids),
      address: listing.address ?? null,
      empty: listing.empty,
      card: card.render,
      needs: card.needs,
    };
  }

  referring(reference: string, entry: string): EntryView[] {
    const plan = this.site.otherSides.get(reference);
    if (!plan) return [];
    return this.entries(this.stretch(otherSideOf(plan, entry), 1, MOST_REFERRING).ids);
  }

  picked(key: string, limit: number): EntryView[] {
    const id = this.site.picksIds.get(key);
    const found: EntryView[] = [];
    for (let offset = 0; id !== undefined && found.length < limit; offset += limit) {
      const ids = this.reader.picked(id, this.validity, offset, limit);
      found.push(...this.entries(ids));
      if (ids.length < limit) break;
    }
    return found.slice(0, limit);
  }

  beside(key: string, entry: EntryView): Beside {
    const plan = this.site.listings.get(key);
    if (!plan) return ALONE;
    const found = besideIn(this.reader, onPageOf(plan, this.own), entry, this.validity);
    if (!found.isIn) return ALONE;
    const { before, after } = found;
    this.read([before, after].filter((id) => id !== null));
    const named = (id: string | null): EntryView | null => (id === null ? null : this.entry(id));
    return { previous: named(before), next: named(after) };
  }

  filterWorld(): FilterWorld {
    return this.reader.filterWorld(this.at);
  }

  languages(): readonly LanguageLink[] {
    const { site, reader, validity } = this;
    return (this.drawn.languages ??= languageLinks(site, reader, validity, this.drawn.shown));
  }

  single(type: string): EntryView | null {
    const plan = this.site.singles.get(type);
    const [id] = plan ? this.stretch(plan, 1, 1).ids : [];
    return id === undefined ? null : this.entry(id);
  }

  subject(set: string, key: string): Subject | null {
    return this.reader.subject(set, key, this.validity);
  }

  media(id: string): Media | null {
    return this.reader.media(id, this.validity);
  }

  pathOf(entry: EntryView): string | null {
    return entry.path;
  }

  urlOf(entry: unknown): string | null {
    const { path } = entry as EntryView;
    return path === null ? null : this.site.design.site.url + path;
  }

  imageUrl(media: unknown, width: number): string | null {
    return media ? imagePath(media as Media, width) : null;
  }

  picture(medium: Media, wish: PictureWish): DrawnPicture | null {
    const drawn = drawnPicture(medium, wish, this.drawn.pictures >= AT_ONCE);
    if (drawn) this.drawn.pictures += 1;
    return drawn;
  }

  private read(ids: readonly string[]): void {
    const missing = ids.filter((id) => !this.known.has(id));
    if (missing.length === 0) return;
    const found = this.reader.liveEntries(missing, this.validity);
    for (const id of missing) this.known.set(id, found.get(id) ?? null);
  }
}
