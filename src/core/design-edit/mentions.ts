import type { Block } from '../design/block.ts';
import { blocksWithin } from '../design/block-ids.ts';
import { Environments } from '../design/environment.ts';
import { conditionSpecs } from '../design/listing-spec.ts';
import type { Field } from '../design/field.ts';
import type { ContentType, Design } from '../design/spec.ts';
import type { Environment } from '../pattern/types.ts';
import { BLOCKS } from '../template/blocks/index.ts';
import type { Holds } from '../template/definition.ts';
import type { PartPath } from './parts.ts';

/** A place in a design where another part is named. */
export interface Mention {
  part: PartPath;
  /** Path of the property: `seo.title`, `sort.1.field`. */
  property: string;
  holds: Holds | 'type' | 'set' | 'option';
  text: string;
  /** The type whose fields or options are named; null where none is read. */
  type: ContentType | null;
  /** What patterns may name; several where one pattern is read by several types. */
  environments: readonly Environment[];
  /** Key of the field whose options are named. */
  field?: string;
}

const HOLDS = new Map(BLOCKS.map((kind) => [kind.block, Object.entries(kind.holds)]));

/** Every place where a part of a design names another one, or may. */
export function mentionsIn(design: Design): Mention[] {
  const environments = new Environments(design);
  return [
    ...ofSite(design, environments),
    ...design.types.flatMap((type) => ofType(type, environments)),
    ...design.listings.flatMap((listing) => ofListing(design, listing, environments)),
    ...design.templates.flatMap((template) => ofTemplate(design, template, environments)),
  ];
}

/** Makes mentions of one part, leaving out what it does not hold. */
function namer(
  part: PartPath,
  type: ContentType | null,
  environments: readonly Environment[],
): (holds: Mention['holds'], property: string, text: unknown, field?: string) => Mention[] {
  return (holds, property, text, field) =>
    typeof text === 'string'
      ? [{ part, property, holds, text, type, environments, ...(field ? { field } : {}) }]
      : [];
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
  const name = namer(`types/${type.id}`, type, [environments.ofType(type)]);
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
    ...name(
      'listing',
      'retired.listing',
      typeof retired === 'object' && 'listing' in retired && retired.listing,
    ),
    ...type.fields.flatMap((field) => {
      const path = `types/${type.id}/fields/${field.id}`;
      const own = namer(path, type, []);
      const pattern = namer(path, type, [environments.ofType(type)]);
      return [
        ...(field.types ?? []).flatMap((key, i) => own('type', `types.${i}`, key)),
        ...inGroups(field.fields, 'fields', own),
        ...pattern('pattern', 'pattern', field.pattern),
        ...own('set', 'set', field.set),
        ...own('field', 'shownIf.field', field.shownIf?.field),
        ...own('option', 'shownIf.is', field.shownIf?.is, field.shownIf?.field),
        ...(field.kind === 'choice' ? own('option', 'default', field.default, field.key) : []),
      ];
    }),
  ];
}

/** The types and sets that fields of a group name, however deep. */
function inGroups(
  fields: readonly Field[] | undefined,
  at: string,
  name: ReturnType<typeof namer>,
): Mention[] {
  return (fields ?? []).flatMap((field, i) => [
    ...(field.types ?? []).flatMap((key, n) => name('type', `${at}.${i}.types.${n}`, key)),
    ...name('set', `${at}.${i}.set`, field.set),
    ...inGroups(field.fields, `${at}.${i}.fields`, name),
  ]);
}

function ofListing(
  { types }: Design,
  listing: Design['listings'][number],
  environments: Environments,
): Mention[] {
  const type = types.find((t) => t.key === listing.type) ?? null;
  const path = `listings/${listing.id}`;
  const name = namer(path, type, [environments.ofListing()]);
  return [
    ...name('type', 'type', listing.type),
    ...name('template', 'card', listing.card),
    ...name('template', 'template', listing.template),
    ...name('pattern', 'intro', listing.intro),
    ...name('pattern', 'seo.title', listing.seo.title),
    ...name('pattern', 'seo.description', listing.seo.description),
    ...listing.sort.flatMap(({ field }, i) => name('field', `sort.${i}.field`, field)),
    ...conditionSpecs(listing.where).flatMap(({ id, field, value }) => {
      const own = namer(`${path}/conditions/${id}`, type, []);
      const options = Array.isArray(value)
        ? value.flatMap((key, i) => own('option', `value.${i}`, key, field))
        : own('option', 'value', value, field);
      return [...own('field', 'field', field), ...options];
    }),
  ];
}

function ofTemplate(
  { types }: Design,
  template: Design['templates'][number],
  environments: Environments,
): Mention[] {
  const type = types.find((t) => t.key === template.type) ?? null;
  const outer = template.kind === 'frame' ? environments.ofFrame() : environments.ofListing();
  const env = type ? environments.ofType(type) : outer;
  const path = `templates/${template.id}`;
  return [
    ...namer(path, type, [])('type', 'type', template.type),
    ...[...blocksWithin([template.blocks, template.slots])].flatMap((block) =>
      ofBlock(block, namer(`${path}/blocks/${block.id}`, type, [env])),
    ),
  ];
}

function ofBlock(block: Block, name: ReturnType<typeof namer>): Mention[] {
  return (HOLDS.get(block.block) ?? []).flatMap(([property, holds]) => {
    const value = block[property];
    if (!Array.isArray(value)) return name(holds, property, value);
    return value.flatMap((text, i) => name(holds, `${property}.${i}`, text));
  });
}
