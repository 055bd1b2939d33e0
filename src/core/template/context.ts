import type { Issue } from '../issue.ts';
import type { SiteScope } from '../design/site-scope.ts';
import type { Block } from '../design/block.ts';
import type { Environment, Member } from '../pattern/types.ts';
import type { Field } from '../design/field.ts';
import type { ContentType, Design } from '../design/spec.ts';
import type { EntryView, Media } from '../design/values.ts';
import type { FilterWorld } from '../listing/plan.ts';
import type { FanValue } from '../listing/fan-out.ts';
import type { Instant, Validity } from '../time/interval.ts';

/** One page of a listing, ready to be drawn. */
export interface ListingShown {
  key: string;
  entries: EntryView[];
  /** The page's number, from 1, and how many pages there are (at least 1). */
  number: number;
  count: number;
  /** Where page 1 stands; null for a listing without pages of its own. */
  address: string | null;
  /** How many entries there are on all pages; 0 where that is not asked. */
  total: number;
  /** What its visitor wants, as parameters of its address; '' for nothing. */
  query: string;
  /** What it is the page of, where a listing has one for each value. */
  value?: FanValue | null;
  empty: string;
  card: Render;
  needs: string[][];
}

/** A value by which visitors narrow a list, and how many entries have it. */
export interface VisitorOption {
  value: string;
  /** '' for yes and no. */
  label: string;
  /** Within how many others it lies. */
  depth: number;
  count: number;
  isChosen: boolean;
}

/** A field by whose values visitors narrow a list. */
export interface VisitorFilter {
  name: string;
  label: string;
  options: VisitorOption[];
  /** The values that are wanted, each with where the page stands without it. */
  chosen: { label: string; without: string }[];
}

/** What visitors may do with a listing's page. */
export interface VisitorShown {
  /** Where page 1 stands. */
  address: string;
  /** What is searched for, '' for nothing; null where nothing can be. */
  search: string | null;
  orders: { value: string; label: string; isChosen: boolean }[];
  filters: VisitorFilter[];
  /** Whether nothing is wanted. */
  isPlain: boolean;
}

/** What kinds of page there are, for conditions: pages of listings from the second on are `further`. */
export const PAGE_KINDS = ['front', 'entry', 'listing', 'value', 'further', 'other'] as const;

/** A page as conditions ask of it. */
export interface PageAt {
  kind: (typeof PAGE_KINDS)[number];
  /** Null for what is no page: where there is nothing, say. */
  path: string | null;
}

/** A page in one of the site's languages. */
export interface LanguageLink {
  /** BCP 47. */
  language: string;
  /** What it is called in itself. */
  label: string;
  /** Where the page stands in it; its front page where it does not. */
  path: string;
  /** Whether it is the language of the page at hand. */
  isHere: boolean;
  /** Whether the page stands in it, and whether in its own words. */
  isThere: boolean;
  isOwn: boolean;
}

/** The neighbours of an entry in an order. */
export interface Beside {
  previous: EntryView | null;
  next: EntryView | null;
}

/** What blocks read while a page is drawn. */
export interface RenderScope extends SiteScope {
  at: Instant;
  validity: Validity;
  /** The entry whose fields are read; null on listing pages and in the frame. */
  own: EntryView | null;
  /** The same page, reading another entry's fields. */
  of(entry: EntryView): RenderScope;
  /** The same page and entry with the items of a repetition, each put into its `roots` in turn. */
  repeating(): RenderScope;
  /** What the page is, and its path; null where that is nothing that stays. */
  page: PageAt;
  /** Where the front page of its language stands. */
  readonly root: string;
  /** The page in each language of the site; none where that is in one. */
  languages(): readonly LanguageLink[];
  /** What filters ask of subjects. */
  filterWorld(): FilterWorld;
  /** The entries that stand next to an entry in a listing's order; null where none does. */
  beside(listing: string, entry: EntryView): Beside;
  /**
   * A listing's first page, at most `limit` entries; the page itself where it is the listing
   * shown.
   */
  listing(key: string, limit?: number): ListingShown | null;
  /** The values that a listing has a page for each of, in their order. */
  values(listing: string): FanValue[];
  /** What visitors may do with the listing's page that this is; null where it is nothing. */
  visitor(): VisitorShown | null;
  /** The first live entries of picks, in their order. */
  picked(key: string, limit: number): EntryView[];
  /** Whether headings count one level higher: no heading stands between this list and the page's. */
  lifted: boolean;
  /** How many cards this one stands within; cards within cards end at 4. */
  depth: number;
  /** The listing this page shows; null on other pages. */
  shown: ListingShown | null;
  /** Reads in few steps the entries that field chains (by field id) of these entries lead to. */
  prefetch(entries: EntryView[], chains: string[][]): void;
  /** The live entries among the ids, in their order, in one step. */
  entries(ids: readonly string[]): EntryView[];
  /** What stands in the frame's slots. */
  slots: Record<string, string>;
  /** A medium as the picture that is wanted; null where it is none. */
  picture(medium: Media, wish: PictureWish): DrawnPicture | null;
}

/** Shapes that pictures can be cut to, width by height. */
export const RATIOS = ['1:1', '4:3', '3:4', '3:2', '2:3', '16:9', '9:16', '2:1', '3:1'] as const;
/** A shape by its name. */
export type RatioName = (typeof RATIOS)[number];

/** How a picture is wanted. */
export interface PictureWish {
  /** How wide it stands on a page that has the room, CSS px. */
  width: number;
  /** What it is cut to, around what matters in it; whole where left out. */
  ratio?: RatioName | undefined;
}

/** A picture with what an `img` needs; sizes in CSS px. */
export interface DrawnPicture {
  src: string;
  /** Candidates by their widths, and how wide it stands; '' where there is one file for all. */
  srcset: string;
  sizes: string;
  alt: string;
  width: number;
  height: number;
  /** Whether it is fetched only when it comes near: it does not stand at the top of the page. */
  lazy: boolean;
}

/** A compiled block or template: gives HTML, '' where there is nothing to show. */
export type Render = (scope: RenderScope) => string;

/** A menu as its block draws it. */
export interface FoundMenu {
  label: string;
  items: Render;
}

/** A field that a block is bound to, and how it is come at from where the block stands. */
export interface Bound {
  field: Field;
  /** The type that has it; null for a field of a group. */
  type: ContentType | null;
  /** The page as it reads the field's owner; null where there is no owner. */
  owner: (scope: RenderScope) => RenderScope | null;
  /** The field's values, in their order. */
  read: (scope: RenderScope) => unknown[];
  /** Ids of the fields that lead to it, its own last; from the page's entry, or from the item. */
  chain: string[];
  root: '' | 'item';
}

/** Fields that can be bound to: those of a type, or of one item of a group. */
export interface Holder {
  /** In words, for messages. */
  label: string;
  type: ContentType | null;
  fields: readonly Field[];
}

/** What patterns and fields of blocks are read from. */
export interface BlockSurroundings {
  env: Environment;
  type: ContentType | null;
  /** What each item has as fields, within a block that repeats; null where it has none. */
  item?: Holder | null;
}

/** What compiling a block may use. Issues are added where the block stands. */
export interface BlockCompiler {
  readonly design: Design;
  readonly env: Environment;
  readonly type: ContentType | null;
  readonly item: Holder | null;
  issues: Issue[];
  /** Names of the rich texts whose headings the tree links to. */
  readonly linkedTexts: ReadonlySet<string>;
  /** Chains of field ids, ending in references, that the template reads. */
  needs: string[][];
  /** HTML of a pattern, escaped for text or attribute; null where blank. */
  pattern(
    source: string,
    property: string,
    context?: 'text' | 'attribute',
  ): (scope: RenderScope) => string | null;
  /**
   * The field a block is bound to; null with an issue where it does not fit. `words` say what
   * would.
   */
  field(
    path: string,
    property: string,
    fits: (field: Field) => boolean,
    words: string,
  ): Bound | null;
  /** A field of any kind by the name it is bound by; null where there is none. */
  found(path: string): Bound | null;
  /** Says that a field's entries are read, so that they are in few steps. */
  reads(bound: Pick<Bound, 'chain' | 'root'>): void;
  /**
   * Fields of a group, which is bound by a name, drawn from one item of it; an issue for each that
   * is not there.
   */
  inGroup(group: Field, path: string, keys: readonly string[]): { label: string; html: Render }[];
  /** The entries that lead to the one shown by a reference called so on this side; else null. */
  otherSide(name: string): Member | null;
  /** Blocks within the block. */
  blocks(blocks: Block[], property: string): Render;
  /** Blocks that are drawn for each item, and what they read of items through references. */
  eachItem(
    blocks: Block[],
    property: string,
    item: BlockSurroundings,
  ): { render: Render; needs: string[][] };
  /** A card by key, or the type's own, or the automatic one; looked up when drawn. */
  card(key: string | undefined, property: string): { render: Render; needs: string[][] };
  /** A menu's items, ready to be drawn; null with an issue where there is no such menu. */
  menu(key: string, property: string): FoundMenu | null;
  /** Says that a menu leads to an entry, so that all of them are read in one step. */
  readsEntry(id: string): void;
  /** Draws an entry, or values that stand in a text, as a part of that text. */
  part(): Render;
  /** A content type by its id, and by its key. */
  typeOf(id: string): ContentType | undefined;
  typeByKey(key: string): ContentType | undefined;
  /** Whether there is such a listing; an issue where not. */
  listing(key: string, property: string): boolean;
  /** Whether there are such picks; an issue where not. */
  picks(key: string, property: string): boolean;
  fail(code: string, property: string, message: string, fix: string): void;
}
