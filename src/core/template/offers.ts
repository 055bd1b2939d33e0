import type { Block } from '../design/block.ts';
import { blocksWithin } from '../design/block-ids.ts';
import type { Environments } from '../design/environment.ts';
import { otherSidesOf } from '../design/other-sides.ts';
import type { ContentType, Design, Template } from '../design/spec.ts';
import { automaticPage } from './automatic.ts';
import { BLOCKS } from './blocks/index.ts';
import type { BlockKind } from './definition.ts';
import { type PanelProperty, panelOf } from './panel.ts';
import { itemSurroundings } from './blocks/repeat.ts';
import type { BlockSurroundings } from './context.ts';
import { NO_CARDS, TreeCompiler } from './tree-compiler.ts';

/** A kind of block as a template can have it. */
export interface BlockOffer {
  block: string;
  label: string;
  doc: string;
  panel: PanelProperty[];
  /** Fields that properties can be bound to, by the property: keys, in the order of the type. */
  fields: Record<string, string[]>;
  /** One of it to begin with; null where nothing here fits what it must have. */
  begun: Block | null;
}

/** What a template reads: a type, or none. */
interface Reading {
  design: Design;
  environments: Environments;
  template: Pick<Template, 'kind' | 'type'>;
}

/** Every kind of block, with what it can be bound to in a template. */
export function blockOffers(reading: Reading): BlockOffer[] {
  const type = typeOf(reading);
  const { kind: own } = reading.template;
  const offered = BLOCKS.filter((kind) => (kind.in === 'menu') === (own === 'menu'));
  return offered.map((kind) => {
    const panel = panelOf(kind);
    const bound = panel.filter(({ control }) => control === 'field');
    const fields = Object.fromEntries(
      bound.map(({ name }) => [name, type ? fitting(reading, type, kind, name) : []]),
    );
    const { block, label, doc } = kind;
    return { block, label, doc, panel, fields, begun: begunOf(reading, kind, panel, fields) };
  });
}

/** The block that shows a field of a type by itself, by the field's key. */
export function fieldBlocks(type: ContentType): Map<string, Block> {
  const found = new Map<string, Block>();
  for (const block of blocksWithin(automaticPage(type))) {
    if (block.block === 'fieldSheet')
      for (const key of block.fields as string[]) found.set(key, { ...block, fields: [key] });
    else if (typeof block.field === 'string') found.set(block.field, block);
  }
  const naming = type.fields.find((f) => f.key === type.naming);
  if (naming) found.set(naming.key, { block: 'heading', text: `{${naming.key}}`, level: 1 });
  const summary = type.fields.find((f) => f.key === type.summary);
  if (summary) found.set(summary.key, { block: 'text', text: `{${summary.key}}` });
  return found;
}

function typeOf({ design, template }: Reading): ContentType | null {
  return design.types.find(({ key }) => key === template.type) ?? null;
}

/** What blocks within a repetition can be bound to of its items. */
export interface ItemOffers {
  /** Key of the items' type; null where they are of none. */
  type: string | null;
  /** Names of fields, by the kind of block and its property. */
  fields: Record<string, Record<string, string[]>>;
}

/** What each repetition of a template offers to the blocks within it, by its id. */
export function itemOffers(
  reading: Reading & { template: Pick<Template, 'blocks' | 'slots'> },
): Record<string, ItemOffers> {
  const found: Record<string, ItemOffers> = {};
  const walk = (value: unknown, around: BlockSurroundings): void => {
    if (typeof value !== 'object' || value === null) return;
    const { block, over, id } = value as Block;
    const repeats = block === 'repeat' && typeof over === 'string';
    const inner = repeats ? itemSurroundings(over, compilerIn(reading, around)) : around;
    if (repeats) found[id!] = offersOf(reading, inner);
    for (const next of Object.values(value)) walk(next, inner);
  };
  const { blocks, slots } = reading.template;
  walk([blocks, slots], surroundingsOf(reading));
  return found;
}

function offersOf(reading: Reading, inner: BlockSurroundings): ItemOffers {
  const names = inner.item?.fields.map(({ key }) => `item.${key}`) ?? [];
  const fields = BLOCKS.map((kind) => {
    const bound = panelOf(kind).filter(({ control }) => control === 'field');
    const fits = bound.map(({ name }) => [name, fittingOf(reading, kind, name, names, inner)]);
    return [kind.block, Object.fromEntries(fits)];
  });
  return { type: inner.item?.type?.key ?? null, fields: Object.fromEntries(fields) };
}

/** The fields, other sides and fields over one reference that a property takes. */
function fitting(reading: Reading, type: ContentType, kind: BlockKind, property: string): string[] {
  const { design } = reading;
  const sides = otherSidesOf(type, design).map(({ name }) => name);
  const over = type.fields.flatMap(({ key, many, types = [] }) => {
    const [only, ...more] = many ? [] : types;
    const led = more.length > 0 ? undefined : design.types.find((t) => t.key === only);
    return (led?.fields ?? []).map((field) => `${key}.${field.key}`);
  });
  const names = [...type.fields.map(({ key }) => key), ...sides, ...over];
  return fittingOf(reading, kind, property, names, surroundingsOf(reading));
}

/** The names that a property takes: those that it compiles with. */
function fittingOf(
  reading: Reading,
  kind: BlockKind,
  property: string,
  names: readonly string[],
  around: BlockSurroundings,
): string[] {
  const rest = Object.fromEntries(
    panelOf(kind)
      .filter(({ required, many, control }) => required && !many && control !== 'blocks')
      .map(({ name }) => [name, 'x']),
  );
  return names.filter((name) => {
    const block = { ...rest, block: kind.block, [property]: name };
    return !wrong(reading, block, around).some((path) => path.endsWith(`/${property}`));
  });
}

/** Where a block by itself would have something wrong. */
function wrong(reading: Reading, block: Block, around = surroundingsOf(reading)): string[] {
  const compiler = compilerIn(reading, around);
  compiler.blocks([block], 'blocks');
  return compiler.issues.map(({ path = '' }) => path);
}

function surroundingsOf({ design, environments, template }: Reading): BlockSurroundings {
  const type = design.types.find(({ key }) => key === template.type) ?? null;
  return { env: environments.ofTemplate(template.kind, type), type };
}

function compilerIn({ design }: Reading, around: BlockSurroundings): TreeCompiler {
  return new TreeCompiler(design, around, NO_CARDS);
}

/** A block with all that its kind must have, by what the site has first; null where it has none. */
function begunOf(
  reading: Reading,
  kind: BlockKind,
  panel: PanelProperty[],
  fields: Record<string, string[]>,
): Block | null {
  if (kind.block === 'slot' && reading.template.kind !== 'frame') return null;
  const block: Block = { block: kind.block };
  for (const property of panel.filter(({ required }) => required)) {
    const { name } = property;
    const isRight = (value: unknown): boolean =>
      !wrong(reading, { ...block, [name]: value }).some((path) => path.includes(`/${name}`));
    const value = candidates(reading, property, fields).find(isRight);
    if (value === undefined) return null;
    block[name] = value;
  }
  return wrong(reading, block).length === 0 ? block : null;
}

/** What a property can begin as, the likeliest first. */
function candidates(
  reading: Reading,
  { control, many, name }: PanelProperty,
  fields: Record<string, string[]>,
): readonly unknown[] {
  const { design } = reading;
  const type = typeOf(reading);
  const naming = type?.naming;
  switch (control) {
    case 'field':
      return fields[name] ?? [];
    case 'expression':
      return many ? (naming === undefined ? [] : [[naming]]) : type ? severalOf(type, design) : [];
    case 'pattern':
      return [name === 'html' ? '<p></p>' : naming === undefined ? '{site.name}' : `{${naming}}`];
    case 'listing':
      return design.listings.map(({ key }) => key);
    case 'picks':
      return design.picks.map(({ key }) => key);
    case 'template':
      return design.templates.map(({ key }) => key);
    case 'entry':
      return [''];
    case 'blocks':
      return [many ? [[], []] : []];
    case 'words':
      return [name === 'to' ? '/' : 'main'];
    default:
      return [];
  }
}

/** What there can be several of: items of groups first, then entries, then other values. */
function severalOf(type: ContentType, design: Design): string[] {
  const many = type.fields.filter((field) => field.many);
  const groups = many.filter(({ kind }) => kind === 'group');
  const names = [...groups, ...many].map(({ key }) => key);
  return [...names, ...otherSidesOf(type, design).map(({ name }) => name)];
}
