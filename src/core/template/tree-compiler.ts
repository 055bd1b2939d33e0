import { type Issue, at } from '../issue.ts';
import { didYouMean } from '../did-you-mean.ts';
import type { Block } from '../design/block.ts';
import { blocksWithin } from '../design/block-ids.ts';
import type { Field } from '../design/field.ts';
import type { Listing } from '../design/listing-spec.ts';
import type { ContentType, Design, Template } from '../design/spec.ts';
import { fieldsLacking } from './page-fields.ts';
import { compilePattern } from '../pattern/compile.ts';
import type { Environment, Member } from '../pattern/types.ts';
import { BLOCKS } from './blocks/index.ts';
import { boundTo, holderOf } from './bound.ts';
import { linksOf } from './field-html.ts';
import type {
  BlockCompiler,
  BlockSurroundings,
  Bound,
  FoundMenu,
  Holder,
  Render,
  RenderScope,
} from './context.ts';
import type { BlockKind } from './definition.ts';
import { marked } from './marks.ts';
import { placed, placeOf } from './places.ts';

const BY_NAME: ReadonlyMap<string, BlockKind> = new Map(BLOCKS.map((b) => [b.block, b]));

/** A card ready to be drawn, and what it reads through references. */
export interface FoundCard {
  render: Render;
  needs: string[][];
}

/** Finds a card by key, or the type's own; says where the key leads nowhere. */
export type CardFinder = (key: string | undefined, fail: (message: string) => void) => FoundCard;

/** What trees of blocks are drawn with besides. */
export interface Cards {
  find: CardFinder;
  /** Draws what stands in texts. */
  part: Render;
  /** A menu by key; null where there is none. */
  menu: (key: string) => FoundMenu | null;
}

/** In place of a key: the menu of a site that has no frame of its own. */
export const AUTOMATIC_MENU = '';

const nothing = (): string => '';
/** Draws nothing: for trees that are looked at, and not drawn. */
export const NO_CARDS: Cards = {
  find: () => ({ render: nothing, needs: [] }),
  part: nothing,
  menu: () => ({ label: '', items: nothing }),
};

/** Whose blocks they are, and what stands between marks, for previews: each block, or each place. */
interface Kept {
  kind?: Template['kind'];
  marks?: 'blocks' | 'places' | null;
}

/** Compiles one tree of blocks; issues are told by the place of the block. */
export class TreeCompiler implements BlockCompiler {
  readonly issues: Issue[] = [];
  readonly needs: string[][] = [];
  readonly linkedTexts = new Set<string>();
  /** Ids of the entries that it names. */
  readonly entriesRead: string[] = [];
  /** Whether any of its blocks does better with the script of pages. */
  isScripted = false;
  private itemNeeds: string[][] = [];
  private place = '';

  constructor(
    readonly design: Design,
    private surroundings: BlockSurroundings,
    private readonly cards: Cards,
    private readonly kept: Kept = {},
  ) {}

  get env(): Environment {
    return this.surroundings.env;
  }

  get type(): ContentType | null {
    return this.surroundings.type;
  }

  get item(): Holder | null {
    return this.surroundings.item ?? null;
  }

  blocks(blocks: readonly Block[], property: string): Render {
    const { place } = this;
    const renders = blocks.map((block, i) => {
      this.place = `${place === '' ? '' : `${place}/`}${property}/${i + 1}`;
      return this.block(block);
    });
    this.place = place;
    return inTurn(renders);
  }

  /** Draws a whole tree. */
  tree(blocks: readonly Block[], property: string): Render {
    for (const { block, field } of blocksWithin(blocks))
      if (block === 'contents') this.linkedTexts.add(String(field));
    return this.blocks(blocks, property);
  }

  eachItem(
    blocks: readonly Block[],
    property: string,
    item: BlockSurroundings,
  ): { render: Render; needs: string[][] } {
    const outer = { surroundings: this.surroundings, needs: this.itemNeeds };
    const needs: string[][] = [];
    [this.surroundings, this.itemNeeds] = [item, needs];
    const render = this.blocks(blocks, property);
    [this.surroundings, this.itemNeeds] = [outer.surroundings, outer.needs];
    return { render, needs };
  }

  private block(block: Block): Render {
    const kind = BY_NAME.get(block.block);
    if (!kind) {
      const names = [...BY_NAME.keys()];
      const fix = didYouMean(block.block, names, `There are: ${names.join(', ')}.`);
      this.fail('unknown-block', 'block', `There is no block "${block.block.slice(0, 60)}".`, fix);
      return () => '';
    }
    if (this.isMisplaced(kind)) return () => '';
    const parsed = kind.spec.safeParse(block);
    if (parsed.success) {
      this.isScripted ||= kind.scripted === true;
      const render = kind.compile(this.styled(parsed.data as Block) as never, this);
      return this.kept.marks ? this.between(block, kind, render) : render;
    }
    for (const { path, message } of parsed.error.issues)
      this.fail(
        'wrong-form',
        path.join('/'),
        `${path.length > 0 ? `${path.join('.')}: ` : ''}${message}`,
        `A block "${kind.block}" has: ${Object.keys(kind.spec.shape).join(', ')}.`,
      );
    return () => '';
  }

  /** A block with the class of the named style that it has, where it is one of the site's. */
  private styled(block: Block): Block {
    const { style } = block;
    const isNamed = this.design.styles.some(({ key, on }) => on === 'block' && key === style);
    return isNamed ? { ...block, style: `style-${String(style)}` } : block;
  }

  /** What a block draws, between its marks. */
  private between(block: Block, kind: BlockKind, render: Render): Render {
    if (this.kept.marks === 'blocks')
      return block.id === undefined ? render : marked(block.id, render);
    const place = placeOf(block, kind, this);
    return place ? placed(place, render) : render;
  }

  /** Menus hold their own blocks and nothing else; so do other templates. */
  private isMisplaced({ block, in: place }: BlockKind): boolean {
    const { kind } = this.kept;
    if (kind === undefined || (place === 'menu') === (kind === 'menu')) return false;
    const message = `"${block}" does not stand in a ${kind === 'menu' ? 'menu' : `${kind} template`}.`;
    const takes = BLOCKS.filter((k) => k.in === 'menu').map((k) => k.block);
    const fix = kind === 'menu' ? `Menus hold: ${takes.join(', ')}.` : 'Put it into a menu.';
    this.fail('wrong-place', 'block', message, fix);
    return true;
  }

  pattern(
    source: string,
    property: string,
    context: 'text' | 'attribute' = 'text',
  ): (scope: RenderScope) => string | null {
    const { pattern, issues } = compilePattern(source, this.env, context);
    this.issues.push(...at(`${this.place}/${property}`, issues));
    for (const { root, references, fields } of pattern?.chains ?? [])
      if ((root === '' || root === 'item') && references > 0)
        this.reads({ root, chain: fields.slice(0, references) });
    return pattern ? pattern.text : () => null;
  }

  inGroup({ label, fields = [] }: Field, path: string, keys: readonly string[]) {
    const { pattern: group } = compilePattern(`{${path}}`, this.env, 'value');
    const object = group?.type.object ?? null;
    return keys.flatMap((key) => {
      const field = fields.find((f) => f.key === key);
      if (!field) {
        const message = `${label} has no field "${key}".`;
        const fix = `It has: ${fields.map((f) => f.key).join(', ')}.`;
        this.fail('unknown-field', 'fields', message, fix);
        return [];
      }
      const { pattern } = compilePattern(`{${key}}`, { own: object, roots: new Map() }, 'text');
      const words: Render = (scope) => pattern?.text(scope) ?? '';
      return [{ label: field.label, html: linksOf(field) ?? words }];
    });
  }

  otherSide(name: string): Member | null {
    const member = this.type ? this.env.own?.member(name) : undefined;
    return member?.otherSide ? member : null;
  }

  field(
    path: string,
    property: string,
    fits: (field: Field) => boolean,
    words: string,
  ): Bound | null {
    const found = this.lookUp(path, fits, words);
    if (!('code' in found)) return found;
    this.fail(found.code, property, found.message, found.fix);
    return null;
  }

  found(path: string): Bound | null {
    const found = this.lookUp(path, () => true, 'a field');
    return 'code' in found ? null : found;
  }

  private lookUp(path: string, fits: (field: Field) => boolean, words: string) {
    const { item, type } = this.surroundings;
    const typeOf = (key: string): ContentType | undefined => this.typeByKey(key);
    return boundTo(path, { own: type && holderOf(type), item: item ?? null, typeOf }, fits, words);
  }

  reads({ chain, root }: Pick<Bound, 'chain' | 'root'>): void {
    (root === 'item' ? this.itemNeeds : this.needs).push(chain);
  }

  typeByKey(key: string): ContentType | undefined {
    return this.design.types.find((type) => type.key === key);
  }

  card(key: string | undefined, property: string): FoundCard {
    return this.cards.find(key, (message) =>
      this.fail('unknown-template', property, message, 'Name a card, or leave it out.'),
    );
  }

  menu(key: string, property: string): FoundMenu | null {
    const keys = this.design.templates.filter(({ kind }) => kind === 'menu').map((t) => t.key);
    if (key === AUTOMATIC_MENU || keys.includes(key)) return this.cards.menu(key);
    const fix = didYouMean(key, keys, 'Name one of the menus.');
    this.fail('unknown-menu', property, `There is no menu "${key}".`, fix);
    return null;
  }

  readsEntry(id: string): void {
    this.entriesRead.push(id);
  }

  part(): Render {
    return this.cards.part;
  }

  typeOf(id: string): ContentType | undefined {
    return this.design.types.find((type) => type.id === id);
  }

  listing(key: string, property: string): boolean {
    const keys = this.design.listings.map((l) => l.key);
    const listing = this.design.listings.find((l) => l.key === key);
    if (listing) return this.hasWhatItReads(listing, property);
    const fix = didYouMean(key, keys, 'Name one of the listings.');
    this.fail('unknown-listing', property, `There is no listing "${key}".`, fix);
    return false;
  }

  /** Whether the entries drawn here have the fields that a listing compares with. */
  private hasWhatItReads(listing: Listing, property: string): boolean {
    const [lacking] = fieldsLacking(listing, this.design, this.type);
    if (lacking === undefined) return true;
    const message = this.type
      ? `"${listing.key}" compares with what ${this.type.label} has as "${lacking}", which does not fit or is not there.`
      : `"${listing.key}" compares with what a page’s entry has, and none is drawn here.`;
    const fix = 'Place it where its entry has that field, or let the listing compare otherwise.';
    this.fail('no-page-field', property, message, fix);
    return false;
  }

  picks(key: string, property: string): boolean {
    const keys = this.design.picks.map((p) => p.key);
    if (keys.includes(key)) return true;
    const fix = didYouMean(key, keys, 'Name one of the picks.');
    this.fail('unknown-picks', property, `There are no picks "${key}".`, fix);
    return false;
  }

  fail(code: string, property: string, message: string, fix: string): void {
    this.issues.push({ code, path: `${this.place}/${property}`, message, fix });
  }
}

/** Draws one after the other: by threes, as calls that are written out are quicker than a loop. */
function inTurn(renders: Render[]): Render {
  const [first, second, third, ...more] = renders;
  if (!first) return nothing;
  if (!second) return first;
  if (!third) return (scope) => first(scope) + second(scope);
  const three: Render = (scope) => first(scope) + second(scope) + third(scope);
  return more.length === 0 ? three : inTurn([three, inTurn(more)]);
}
