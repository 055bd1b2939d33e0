import type { Block } from '../design/block.ts';
import { blocksWithin } from '../design/block-ids.ts';
import { Environments } from '../design/environment.ts';
import {
  type ConditionSpec,
  type FilterSpec,
  conditionSpecs,
  elsewhereOf,
  filterSpec,
  groupOf as groupOfFilter,
} from '../design/listing-spec.ts';
import type { Field } from '../design/field.ts';
import type { ContentType, Design } from '../design/spec.ts';
import type { TextFormSpec } from '../design/text-form-spec.ts';
import { saidIn } from '../design/texts.ts';
import { PICKS } from '../listing/columns.ts';
import type { Environment } from '../pattern/types.ts';
import { BLOCKS } from '../template/blocks/index.ts';
import { itemSurroundings } from '../template/blocks/repeat.ts';
import type { BlockSurroundings } from '../template/context.ts';
import type { Holds } from '../template/definition.ts';
import { NO_CARDS, TreeCompiler } from '../template/tree-compiler.ts';
import type { PartPath } from './parts.ts';

/** A place in a design where another part is named. */
export interface Mention {
  part: PartPath;
  /** Path of the property: `seo.title`, `sort.1.field`. */
  property: string;
  holds:
    Exclude<Holds, 'inner' | 'filter' | 'entry'> | 'type' | 'set' | 'option' | 'form' | 'style';
  text: string;
  /** What patterns may name; several where one pattern is read by several types. */
  environments: readonly Environment[];
  /** The part whose fields, or options, are named: a type, a group, a choice. */
  within?: PartPath | undefined;
}

const HOLDS = new Map(BLOCKS.map((kind) => [kind.block, Object.entries(kind.holds)]));

/** Every place where a part of a design names another one, or may. */
export function mentionsIn(design: Design): Mention[] {
  const environments = new Environments(design);
  const own = [
    ...ofSite(design, environments),
    ...design.types.flatMap((type) => ofType(type, environments)),
    ...design.listings.flatMap((listing) => ofListing(design, listing, environments)),
    ...design.templates.flatMap((template) => mentionsOf(template, design, environments)),
    ...design.textForms.flatMap(ofTextForm),
  ];
  return [...own, ...ofLanguages(design, own)];
}

/** What the patterns name that languages have in place of those of the design. */
function ofLanguages({ languages }: Design, own: readonly Mention[]): Mention[] {
  if (languages.length === 0) return [];
  const patterns = own.filter(({ holds }) => holds === 'pattern');
  return languages.flatMap((language) =>
    patterns.flatMap((mention): Mention[] => {
      const text = saidIn(language, mention);
      const property = `texts.${mention.part}.${mention.property}`;
      return text === null
        ? []
        : [{ ...mention, part: `languages/${language.id}`, property, text }];
    }),
  );
}

/** What holds fields: a type or a group, and where it stands. */
interface Holder {
  path: PartPath;
  fields: readonly Field[];
}

const holderOf = (type: ContentType): Holder => ({
  path: `types/${type.id}`,
  fields: type.fields,
});

/** Makes mentions of one part, leaving out what it does not hold; of options by their field's key. */
function namer(
  part: PartPath,
  holder: Holder | null,
  environments: readonly Environment[],
): (holds: Mention['holds'], property: string, text: unknown, choice?: string) => Mention[] {
  return (holds, property, text, choice) => {
    if (typeof text !== 'string') return [];
    const field = holder?.fields.find(({ key }) => key === choice);
    const within =
      holds === 'option' ? field && `${holder!.path}/fields/${field.id}` : holder?.path;
    return [{ part, property, holds, text, within, environments }];
  };
}

function ofSite({ site, types }: Design, environments: Environments): Mention[] {
  const all = types.map((type) => environments.ofType(type));
  const name = namer('site', null, all);
  return [
    ...name('template', 'frame', site.frame),
    ...name(
      'listing',
      'front.listing',
      site.front && 'listing' in site.front && site.front.listing,
    ),
    ...name('pattern', 'seo.title', site.seo.title),
    ...name('pattern', 'seo.description', site.seo.description),
  ];
}

function ofType(type: ContentType, environments: Environments): Mention[] {
  const { seo, retired } = type;
  const own = [environments.ofType(type)];
  const name = namer(`types/${type.id}`, holderOf(type), own);
  return [
    ...name('pattern', 'address', type.address),
    ...name('pattern', 'seo.title', seo.title),
    ...name('pattern', 'seo.description', seo.description),
    ...name('pattern', 'seo.canonical', seo.canonical),
    ...name('field', 'seo.picture', seo.picture),
    ...name('field', 'naming', type.naming),
    ...name('field', 'summary', type.summary),
    ...name('template', 'template', type.template),
    ...name('template', 'card', type.card),
    ...name('template', 'frame', type.frame),
    ...(type.templates ?? []).flatMap((key, i) => name('template', `templates.${i}`, key)),
    ...(type.presets.picks ?? []).flatMap((key, i) => name('picks', `presets.picks.${i}`, key)),
    ...name(
      'listing',
      'retired.listing',
      typeof retired === 'object' && 'listing' in retired && retired.listing,
    ),
    ...ofTiming(type),
    ...ofFields(holderOf(type), own),
  ];
}

/** The fields and options that timing rules name. */
function ofTiming(type: ContentType): Mention[] {
  return (type.timing ?? []).flatMap((rule) => {
    const name = namer(`types/${type.id}/timing/${rule.id}`, holderOf(type), []);
    return [...name('field', 'from', rule.from), ...ofFilter(rule.where, 'where', name)];
  });
}

/** What the conditions of a filter name, by where they stand below a property. */
function ofFilter(
  filter: FilterSpec | undefined,
  at: string,
  name: ReturnType<typeof namer>,
): Mention[] {
  if (filter === undefined) return [];
  const group = groupOfFilter(filter);
  if (group)
    return group.filters.flatMap((inner, i) => ofFilter(inner, `${at}.${group.kind}.${i}`, name));
  const { field, value } = filter as ConditionSpec;
  const options = Array.isArray(value)
    ? value.flatMap((key, i) => name('option', `${at}.value.${i}`, key, field))
    : name('option', `${at}.value`, value, field);
  return [...name('field', `${at}.field`, field), ...options];
}

/** What the fields of a type or a group name, those of groups within it included. */
function ofFields(holder: Holder, environments: readonly Environment[]): Mention[] {
  return holder.fields.flatMap((field) => {
    const path = `${holder.path}/fields/${field.id}`;
    const name = namer(path, holder, environments);
    return [
      ...(field.types ?? []).flatMap((key, i) => name('type', `types.${i}`, key)),
      ...ofFields({ path, fields: field.fields ?? [] }, environments),
      ...name('pattern', 'pattern', field.pattern),
      ...name('set', 'set', field.set),
      ...name('form', 'form', field.form),
      ...name('field', 'shownIf.field', field.shownIf?.field),
      ...name('option', 'shownIf.is', field.shownIf?.is, field.shownIf?.field),
      ...(field.kind === 'choice' ? name('option', 'default', field.default, field.key) : []),
    ];
  });
}

/** The types and styles that a form of texts lets in, and the forms that narrow it. */
function ofTextForm({ id, parts = [], styles = [], roles = {} }: TextFormSpec): Mention[] {
  const name = namer(`textForms/${id}`, null, []);
  return [
    ...parts.flatMap((key, i) => name('type', `parts.${i}`, key)),
    ...styles.flatMap((key, i) => name('style', `styles.${i}`, key)),
    ...Object.entries(roles).flatMap(([role, key]) => name('form', `roles.${role}`, key)),
  ];
}

function ofListing(
  design: Design,
  listing: Design['listings'][number],
  environments: Environments,
): Mention[] {
  const { types } = design;
  const keys = [listing.type, ...(listing.also ?? [])];
  const holders = keys.flatMap((key) => types.find((t) => t.key === key) ?? []).map(holderOf);
  // Of several types that have a field of one key, it is the first one's that is meant.
  const holderOfField = (key: string | undefined): Holder | null =>
    holders.find(({ fields }) => fields.some((f) => f.key === key)) ?? holders[0] ?? null;
  const path = `listings/${listing.id}`;
  const name = namer(path, null, [environments.ofListing()]);
  const named = (property: string, key: string | undefined): Mention[] =>
    namer(path, holderOfField(key), [])('field', property, key);
  return [
    ...name('type', 'type', listing.type),
    ...(listing.also ?? []).flatMap((key, i) => name('type', `also.${i}`, key)),
    ...name('template', 'card', listing.card),
    ...name('template', 'template', listing.template),
    ...name('template', 'frame', listing.frame),
    ...name('pattern', 'intro', listing.intro),
    ...name('pattern', 'seo.title', listing.seo.title),
    ...name('pattern', 'seo.description', listing.seo.description),
    ...named('each.by', listing.each?.by),
    ...name('pattern', 'each.title', listing.each?.title),
    ...name('pattern', 'each.description', listing.each?.description),
    ...name('pattern', 'each.intro', listing.each?.intro),
    ...ofVisitor(listing, named),
    ...listing.sort.flatMap(({ field }, i) => named(`sort.${i}.field`, field)),
    ...conditionSpecs(listing.where).flatMap((condition) =>
      ofCondition(condition, `${path}/conditions/${condition.id}`, {
        holderOfField,
        design,
        environments,
        pages: placedOnPagesOf(listing.key, design),
      }),
    ),
  ];
}

/** What a condition of a listing names, through a reference included. */
function ofCondition(
  { field, value }: ConditionSpec,
  part: PartPath,
  within: {
    holderOfField: (key: string) => Holder | null;
    design: Design;
    environments: Environments;
    /** Types on whose pages the listing stands. */
    pages: readonly ContentType[];
  },
): Mention[] {
  const { holderOfField, design, environments, pages } = within;
  const [, head = field, rest] = /^(?!entry\.)([^.]+)\.(.+)$/.exec(field) ?? [];
  const holder = holderOfField(head);
  const type = design.types.find(({ id }) => holder?.path === `types/${id}`);
  const led = rest === undefined ? holder : ledBy(holder, head, rest, design);
  const what = field === PICKS.name ? 'picks' : 'option';
  const own = namer(part, holder, type ? [environments.ofType(type)] : []);
  const asked = namer(part, led, []);
  const elsewhere = elsewhereOf({ value });
  return [
    ...own(rest === undefined ? 'field' : 'expression', 'field', field),
    ...(elsewhere && 'page' in elsewhere
      ? pages.flatMap((page) =>
          namer(part, holderOf(page), [])('field', 'value.page', elsewhere.page),
        )
      : Array.isArray(value)
        ? value.flatMap((key, i) => asked(what, `value.${i}`, key, rest ?? field))
        : asked(what, 'value', value, rest ?? field)),
  ];
}

/** The first type that a reference leads to and that has a field. */
function ledBy(
  holder: Holder | null,
  head: string,
  rest: string,
  { types }: Design,
): Holder | null {
  const keys = holder?.fields.find(({ key }) => key === head)?.types;
  const led = types.filter(({ key }) => keys?.includes(key) ?? true).map(holderOf);
  return led.find(({ fields }) => fields.some(({ key }) => key === rest)) ?? null;
}

/** The types of the templates in which a listing is placed. */
function placedOnPagesOf(listing: string, { types, templates }: Design): ContentType[] {
  const placed = templates.filter(({ blocks, slots }) =>
    [...blocksWithin([blocks, slots])].some((block) => block['listing'] === listing),
  );
  return types.filter(({ key }) => placed.some(({ type }) => type === key));
}

/** The fields by which visitors narrow, search and order a listing. */
function ofVisitor(
  { visitor }: Design['listings'][number],
  named: (property: string, key: string) => Mention[],
): Mention[] {
  const { filters = [], search = [], orders = [] } = visitor ?? {};
  return [
    ...filters.flatMap((key, i) => named(`visitor.filters.${i}`, key)),
    ...search.flatMap((key, i) => named(`visitor.search.${i}`, key)),
    ...orders.flatMap(({ sort }, i) =>
      sort.flatMap(({ field }, n) => named(`visitor.orders.${i}.sort.${n}.field`, field)),
    ),
  ];
}

/** Every place where a template names a part of its design. */
export function mentionsOf(
  template: Design['templates'][number],
  design: Design,
  environments: Environments,
): Mention[] {
  const type = design.types.find((t) => t.key === template.type) ?? null;
  const env = environments.ofTemplate(template.kind, type);
  const path = `templates/${template.id}`;
  const named = namer(path, null, [])('type', 'type', template.type);
  return [...named, ...ofBlocks([template.blocks, template.slots], path, { design, env, type })];
}

/** Where blocks stand: what they read, and the design that it is of. */
interface Standing extends BlockSurroundings {
  design: Design;
}

/** What blocks name, each by what it reads where it stands: in a repetition its items, too. */
function ofBlocks(value: unknown, path: PartPath, standing: Standing): Mention[] {
  if (typeof value !== 'object' || value === null) return [];
  if (!isBlock(value)) return Object.values(value).flatMap((v) => ofBlocks(v, path, standing));
  const { design, ...surroundings } = standing;
  const compiler = new TreeCompiler(design, surroundings, NO_CARDS);
  const inner =
    value.block === 'repeat' && typeof value.over === 'string'
      ? itemSurroundings(value.over, compiler)
      : surroundings;
  return [
    ...ofBlock(value, `${path}/blocks/${value.id}`, standing),
    ...Object.values(value).flatMap((v) => ofBlocks(v, path, { design, ...inner })),
  ];
}

const isBlock = (value: object): value is Block => typeof (value as Block).block === 'string';
function ofBlock(block: Block, path: PartPath, { type, item, env }: Standing): Mention[] {
  const holder = type && holderOf(type);
  const asked = block.of === 'item' ? (item?.type ? holderOf(item.type) : null) : holder;
  const styled = namer(path, null, [])('style', 'style', block.style);
  const named = (HOLDS.get(block.block) ?? []).flatMap(([property, holds]) => {
    const named = holds === 'inner' ? groupOf(holder, block.field) : holder;
    const name = namer(path, named, [env]);
    const value = block[property];
    if (holds === 'entry') return []; // entries are content: none of the design
    if (holds === 'filter') return ofFilter(filterOf(value), property, namer(path, asked, []));
    const one = (at: string, text: unknown): Mention[] => name(sortOf(holds, text), at, text);
    if (!Array.isArray(value)) return one(property, value);
    return value.flatMap((text, i) => one(`${property}.${i}`, text));
  });
  return [...styled, ...named];
}

/** The name of a field that is come at over others is read as an expression. */
function sortOf(holds: Exclude<Holds, 'filter' | 'entry'>, text: unknown): Mention['holds'] {
  if (holds === 'inner') return 'field';
  return holds === 'field' && String(text).includes('.') ? 'expression' : holds;
}

function filterOf(value: unknown): FilterSpec | undefined {
  const read = filterSpec.safeParse(value);
  return read.success ? read.data : undefined;
}

/** The group that a type has by a key; null where it has none. */
function groupOf(holder: Holder | null, key: unknown): Holder | null {
  const group = holder?.fields.find((f) => f.key === key);
  return group?.fields
    ? { path: `${holder!.path}/fields/${group.id}`, fields: group.fields }
    : null;
}
