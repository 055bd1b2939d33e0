import { type Issue, at } from '../issue.ts';
import { nearest } from '../did-you-mean.ts';
import type { Block } from '../design/block.ts';
import type { Environments } from '../design/environment.ts';
import { rootOf } from '../design/language-spec.ts';
import type { ContentType, Design, Template } from '../design/spec.ts';
import { pageFieldsOf } from './page-fields.ts';
import type { Listing } from '../design/listing-spec.ts';
import type { Environment } from '../pattern/types.ts';
import {
  automaticFrame,
  automaticCard,
  automaticListing,
  automaticMenu,
  automaticPage,
  automaticPart,
} from './automatic.ts';
import type { FoundMenu, Render } from './context.ts';
import { cardPlace, placed } from './places.ts';
import { AUTOMATIC_MENU, type Cards, type FoundCard, TreeCompiler } from './tree-compiler.ts';

/**
 * A template ready to draw: the page itself, its further slots, and what it reads through
 * references.
 */
export interface CompiledTemplate {
  render: Render;
  slots: Record<string, Render>;
  needs: string[][];
  /** What it is called. */
  label: string;
  /** True where no template is bound and one was made from the fields. */
  automatic: boolean;
  /** Whether pages drawn with it do better with the script of pages. */
  isScripted: boolean;
}

/** All templates of a design. */
export interface Templates {
  /** By type key. */
  pages: Map<string, CompiledTemplate>;
  /** By listing key. */
  listings: Map<string, CompiledTemplate>;
  /** A listing's card by listing key. */
  listingCards: Map<string, CompiledTemplate>;
  /** The card bound to a type, by type key. */
  cards: Map<string, CompiledTemplate>;
  /** What entries may choose in place of their type's own page, by template id, by type key. */
  choices: Map<string, Map<string, CompiledTemplate>>;
  /** By type key and by listing key, where that has a frame of its own. */
  frames: { types: Map<string, CompiledTemplate>; listings: Map<string, CompiledTemplate> };
  /** Around every other page. */
  frame: CompiledTemplate;
}

/**
 * Compiles every template of a design; what is wrong is told by template and block.
 */
export function compileTemplates(
  design: Design,
  environments: Environments,
  marked: Marked | null = null,
): { templates: Templates; issues: Issue[] } {
  const compiler = new TemplateCompiler(design, environments, marked);
  return { templates: compiler.all(), issues: compiler.issues };
}

/** What stands between marks: what the blocks of one template draw, or each place to edit. */
export type Marked = { blocksOf: string } | 'places';

/** Blocks of a template, those of its further slots, and what of them is marked. */
interface Trees {
  blocks: Block[];
  slots?: Record<string, Block[]>;
  kind: Template['kind'];
  marks?: 'blocks' | 'places' | null;
}

class TemplateCompiler {
  readonly issues: Issue[] = [];
  private readonly cards = new Map<string, CompiledTemplate>();
  private readonly menus = new Map<string, FoundMenu>();
  private readonly frames = new Map<string, CompiledTemplate>();

  constructor(
    private readonly design: Design,
    private readonly environments: Environments,
    private readonly marked: Marked | null,
  ) {}

  all(): Templates {
    const { types, listings, templates, site } = this.design;
    for (const t of templates) if (t.kind === 'menu') this.menus.set(t.key, this.menu(t));
    this.menus.set(AUTOMATIC_MENU, this.listingsMenu());
    for (const t of templates) if (t.kind === 'card') this.cards.set(t.key, this.bound(t));
    const cards = new Map(
      types.map((t) => [t.key, this.listed(this.cardFor(t, t.card, `types/${t.key}/card`))]),
    );
    return {
      cards,
      pages: new Map(types.map((t) => [t.key, this.pageFor(t)])),
      listings: new Map(listings.map((l) => [l.key, this.listingFor(l)])),
      listingCards: new Map(listings.flatMap((l) => this.listingCard(l, cards) ?? [])),
      choices: new Map(types.map((t) => [t.key, this.choicesOf(t)])),
      frames: {
        types: this.framesOf(types, 'types'),
        listings: this.framesOf(listings, 'listings'),
      },
      frame: this.frameFor(site.frame, 'site/frame'),
    };
  }

  private framesOf(
    owners: readonly { key: string; frame?: string | undefined }[],
    list: 'types' | 'listings',
  ): Map<string, CompiledTemplate> {
    return new Map(
      owners.flatMap(({ key, frame }) =>
        frame === undefined ? [] : [[key, this.frameFor(frame, `${list}/${key}/frame`)] as const],
      ),
    );
  }

  private choicesOf(type: ContentType): Map<string, CompiledTemplate> {
    return new Map(
      (type.templates ?? []).flatMap((key, i) => {
        const path = `types/${type.key}/templates/${i + 1}`;
        const template = this.find(key, 'page', path);
        if (!template || !this.readsType(template, type, path)) return [];
        return [[template.id, this.bound(template)] as const];
      }),
    );
  }

  /** The items of a menu: the entries that they lead to are read in one step. */
  private menu(template: Template): FoundMenu {
    const { render, entriesRead } = this.bound(template);
    return {
      label: template.label,
      items: (scope) => {
        if (entriesRead.length > 1) scope.entries(entriesRead);
        return render(scope);
      },
    };
  }

  /** What leads to the listings, in a site without a frame of its own. */
  private listingsMenu(): FoundMenu {
    const blocks: Trees = { blocks: automaticMenu(this.design), kind: 'menu' };
    const { render } = this.compile(blocks, this.environments.ofFrame(), null, 'frame');
    return { label: this.design.site.name, items: render };
  }

  private listingCard(
    listing: Listing,
    cards: Map<string, CompiledTemplate>,
  ): [string, CompiledTemplate][] {
    const keys = [listing.type, ...(listing.also ?? [])];
    const types = keys.flatMap((key) => this.design.types.find((t) => t.key === key) ?? []);
    if (types.length === 0) return [];
    const of = this.design.templates.find(({ key }) => key === listing.card)?.type;
    // A card of one type says nothing of how entries of the others are drawn.
    const chosen = types.find(({ key }) => key === of) ?? types[0]!;
    const drawn = types.map((type): [string, CompiledTemplate] => [
      type.id,
      listing.card === undefined || type !== chosen
        ? cards.get(type.key)!
        : this.listed(this.cardFor(type, listing.card, `listings/${listing.key}/card`)),
    ]);
    return [[listing.key, drawn.length === 1 ? drawn[0]![1] : eachByItsType(drawn)]];
  }

  private pageFor(type: ContentType): CompiledTemplate {
    const template = this.find(type.template, 'page', `types/${type.key}/template`);
    if (template && this.readsType(template, type, `types/${type.key}/template`))
      return this.bound(template);
    return this.automatic(automaticPage(type), this.environments.ofType(type), type);
  }

  private listingFor(listing: Listing): CompiledTemplate {
    const template = this.find(listing.template, 'page', `listings/${listing.key}/template`);
    if (template) return this.bound(template);
    // What stands on pages of entries alone has none of its own.
    const blocks = pageFieldsOf(listing).length > 0 ? [] : automaticListing(listing);
    return {
      ...this.compile(
        { blocks, kind: 'page', marks: this.marksIn(null) },
        this.environments.ofListing(),
        null,
        `listings/${listing.key}`,
      ),
      label: 'Automatic page',
      automatic: false,
    };
  }

  private cardFor(type: ContentType, key: string | undefined, path: string): CompiledTemplate {
    const template = this.find(key, 'card', path);
    if (template && this.readsType(template, type, path)) return this.cards.get(template.key)!;
    return this.automatic(automaticCard(type), this.environments.ofType(type), type);
  }

  private frameFor(key: string | undefined, path: string): CompiledTemplate {
    const made = key === undefined ? undefined : this.frames.get(key);
    if (made) return made;
    const template = this.find(key, 'frame', path);
    const frame = template ? this.frame(template) : this.defaultFrame();
    if (key !== undefined) this.frames.set(key, frame);
    return frame;
  }

  private defaultFrame(): CompiledTemplate {
    const blocks: Trees = { blocks: automaticFrame(rootOf(this.design)), kind: 'frame' };
    const compiled = this.compile(blocks, this.environments.ofFrame(), null, 'frame');
    return { ...compiled, label: 'Automatic frame', automatic: true };
  }

  private frame(template: Template): CompiledTemplate {
    const count = JSON.stringify(template.blocks).split('"slot":"main"').length - 1;
    if (count !== 1)
      this.issues.push({
        code: 'frame-slot',
        path: `templates/${template.key}`,
        message: `A frame has exactly one slot "main", and this one has ${count}.`,
        fix: 'Add {block: slot, slot: main} once.',
      });
    return this.bound(template);
  }

  private readsType(template: Template, type: ContentType, path: string): boolean {
    if (template.type === type.key) return true;
    this.issues.push({
      code: 'template-type',
      path,
      message: `The template "${template.key}" reads ${template.type ? `"${template.type}"` : 'no type'}, not "${type.key}".`,
      fix: `Set its type to "${type.key}", or name another.`,
    });
    return false;
  }

  private find(
    key: string | undefined,
    kind: Template['kind'],
    path: string,
  ): Template | undefined {
    if (key === undefined) return undefined;
    const found = this.design.templates.find((t) => t.key === key && t.kind === kind);
    if (found) return found;
    const near = nearest(
      key,
      this.design.templates.filter((t) => t.kind === kind).map((t) => t.key),
    );
    this.issues.push({
      code: 'unknown-template',
      path,
      message: `There is no ${kind} template "${key}".`,
      fix: near
        ? `Did you mean "${near}"?`
        : `Add the template, or leave it out for the automatic ${kind}.`,
    });
    return undefined;
  }

  private bound(template: Template): CompiledTemplate & { entriesRead: string[] } {
    const type =
      template.type === undefined
        ? null
        : (this.design.types.find((t) => t.key === template.type) ?? null);
    const path = `templates/${template.key}`;
    if (template.type !== undefined && !type)
      this.issues.push({
        code: 'unknown-type',
        path: `${path}/type`,
        message: `There is no content type "${template.type}".`,
        fix: 'Name one of the types.',
      });
    const env = this.environments.ofTemplate(template.kind, type);
    const { blocks, slots, kind, key, label } = template;
    const compiled = this.compile(
      { blocks, slots, kind, marks: this.marksIn(key) },
      env,
      type,
      path,
    );
    return { ...compiled, label, automatic: false };
  }

  private automatic(blocks: Block[], env: Environment, type: ContentType): CompiledTemplate {
    const trees: Trees = { blocks, kind: 'page', marks: this.marksIn(null) };
    const compiled = this.compile(trees, env, type, `types/${type.key}`);
    return { ...compiled, label: 'Automatic page', automatic: true };
  }

  /** What is marked in a template; null for one that is made from a type. */
  private marksIn(key: string | null): Trees['marks'] {
    if (this.marked === 'places') return 'places';
    return key !== null && this.marked?.blocksOf === key ? 'blocks' : null;
  }

  private listed(card: CompiledTemplate): CompiledTemplate {
    return this.marked === 'places' ? { ...card, render: this.asCard(card.render) } : card;
  }

  /** A card as lists draw it. */
  private asCard(render: Render): Render {
    return this.marked === 'places' ? placed(cardPlace, render) : render;
  }

  private compile(
    { blocks, slots = {}, kind, marks = null }: Trees,
    env: Environment,
    type: ContentType | null,
    path: string,
  ): Omit<CompiledTemplate, 'automatic' | 'label'> & { entriesRead: string[] } {
    const compiler = new TreeCompiler(this.design, { env, type }, this.found, { kind, marks });
    const render = compiler.tree(blocks, 'blocks');
    const compiled = Object.fromEntries(
      Object.entries(slots).map(([name, inner]) => [name, compiler.tree(inner, `slots/${name}`)]),
    );
    this.issues.push(...at(path, compiler.issues));
    const { needs, entriesRead, isScripted } = compiler;
    return { render, slots: compiled, needs, entriesRead, isScripted };
  }

  /** Cards may hold cards, and texts parts with texts, so they are found when drawn. */
  private readonly found: Cards = {
    find: (key, fail) => this.lookUpCard(key, fail),
    part: this.drawnBy((type) => type.card, automaticPart),
    menu: (key) => this.menus.get(key) ?? null,
  };

  private lookUpCard(key: string | undefined, fail: (message: string) => void): FoundCard {
    if (key !== undefined && !this.design.templates.some((t) => t.kind === 'card' && t.key === key))
      fail(`There is no card "${key}".`);
    const render = this.asCard(this.drawnBy((type) => key ?? type.card, automaticCard));
    return { render, needs: key === undefined ? [] : (this.cards.get(key)?.needs ?? []) };
  }

  /** Draws an entry by the card that is chosen for it, or by the blocks made from its type. */
  private drawnBy(
    chosen: (type: ContentType) => string | undefined,
    blocksOf: (type: ContentType) => Block[],
  ): Render {
    const automatic = new Map<string, Render>();
    const byType = (type: ContentType): Render => {
      const key = chosen(type);
      const card = key === undefined ? undefined : this.cards.get(key);
      if (card) return card.render;
      let made = automatic.get(type.key);
      if (!made) {
        const env = this.environments.ofType(type);
        automatic.set(type.key, (made = this.automatic(blocksOf(type), env, type).render));
      }
      return made;
    };
    return (scope) => (scope.own && scope.depth < 4 ? byType(scope.own.type)(scope) : '');
  }
}

/** A card that draws entries of several types, each as its type has it, by id. */
function eachByItsType(drawn: [string, CompiledTemplate][]): CompiledTemplate {
  const [[, first]] = drawn as [[string, CompiledTemplate]];
  const renders = new Map(drawn.map(([type, { render }]) => [type, render]));
  return {
    ...first,
    render: (scope) => (scope.own ? (renders.get(scope.own.type.id)?.(scope) ?? '') : ''),
    needs: drawn.flatMap(([, { needs }]) => needs),
  };
}
