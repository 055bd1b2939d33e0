import type { Block } from '../design/block.ts';
import type { Environments } from '../design/environment.ts';
import { otherSidesOf } from '../design/other-sides.ts';
import type { ContentType, Design, Template } from '../design/spec.ts';
import { automaticPage } from './automatic.ts';
import { BLOCKS } from './blocks/index.ts';
import type { BlockKind } from './definition.ts';
import { type PanelProperty, panelOf } from './panel.ts';
import { TreeCompiler } from './tree-compiler.ts';

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
  return BLOCKS.map((kind) => {
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
  for (const block of automaticPage(type)) {
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

/** The fields and other sides that a property takes: those that it compiles with. */
function fitting(reading: Reading, type: ContentType, kind: BlockKind, property: string): string[] {
  const sides = otherSidesOf(type, reading.design).map(({ name }) => name);
  const rest = Object.fromEntries(
    panelOf(kind)
      .filter(({ required, many, control }) => required && !many && control !== 'blocks')
      .map(({ name }) => [name, 'x']),
  );
  return [...type.fields.map(({ key }) => key), ...sides].filter((key) => {
    const block = { ...rest, block: kind.block, [property]: key };
    return !wrong(reading, block).some((path) => path.endsWith(`/${property}`));
  });
}

/** Where a block by itself would have something wrong. */
function wrong({ design, environments, template }: Reading, block: Block): string[] {
  const type = design.types.find(({ key }) => key === template.type) ?? null;
  const env = type
    ? environments.ofType(type)
    : template.kind === 'frame'
      ? environments.ofFrame()
      : environments.ofListing();
  const nothing = (): string => '';
  const cards = { find: () => ({ render: nothing, needs: [] }), part: nothing };
  const compiler = new TreeCompiler(design, { env, type }, cards);
  compiler.blocks([block], 'blocks');
  return compiler.issues.map(({ path = '' }) => path);
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
    const value = firstOf(reading, property, fields);
    if (value === undefined) return null;
    block[property.name] = value;
  }
  return wrong(reading, block).length === 0 ? block : null;
}

function firstOf(
  reading: Reading,
  { control, many, name }: PanelProperty,
  fields: Record<string, string[]>,
): unknown {
  const { design } = reading;
  const naming = typeOf(reading)?.naming;
  switch (control) {
    case 'field':
      return fields[name]?.[0];
    case 'expression':
      return naming === undefined ? undefined : many ? [naming] : naming;
    case 'pattern':
      return name === 'to' ? '/' : naming === undefined ? '{site.name}' : `{${naming}}`;
    case 'listing':
      return design.listings[0]?.key;
    case 'picks':
      return design.picks[0]?.key;
    case 'blocks':
      return many ? [[], []] : [];
    case 'words':
      return 'main';
    default:
      return undefined;
  }
}
