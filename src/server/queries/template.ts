import type { Block } from '@/core/design/block.ts';
import { blocksWithin } from '@/core/design/block-ids.ts';
import { type FilterSpec, conditionSpecs } from '@/core/design/listing-spec.ts';
import { otherSidesOf } from '@/core/design/other-sides.ts';
import type { ContentType, Design, Template } from '@/core/design/spec.ts';
import { choosing } from '@/core/design-edit/choosing.ts';
import { removalOf } from '@/core/design-edit/removal.ts';
import type { Step } from '@/core/design-edit/steps.ts';
import { type CardShape, automaticPage, cardOf } from '@/core/template/automatic.ts';
import { type BlockOffer, blockOffers, fieldBlocks } from '@/core/template/offers.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { Instant } from '@/core/time/interval.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { sentencesAbout } from './bench.ts';
import type { Looking } from './clock.ts';
import { entryName } from './display.ts';
import { type ListingColumn, listingColumns } from './listing-columns.ts';
import type { SiteView } from './site-view.ts';
import { type Specimen, specimensOf } from './specimens.ts';

/** What uses a template, and its screen. */
export interface TemplateUse {
  words: string;
  href: string;
}

/** A template as a line of their list. */
export interface TemplateLine {
  id: string;
  key: string;
  label: string;
  kind: Template['kind'];
  /** Label of the type that it reads; null for none. */
  type: string | null;
  uses: TemplateUse[];
}

/** All templates of the working design; in the past as they were released. */
export interface TemplatesDetail {
  templates: TemplateLine[];
  /** Each with the blocks that its pages and cards are made of by themselves. */
  types: { key: string; label: string; page: Block[]; cards: Record<CardShape, Block[]> }[];
  /** Types whose pages are made from their fields, for want of a template. */
  automatic: { key: string; label: string }[];
  language: string;
}

/** The templates, and the types that new ones can read. Null while no site is loaded. */
export function templatesDetail(
  view: SiteView,
  actor: Actor,
  { at, past }: Looking,
): TemplatesDetail | null {
  permit(actor, 'read-unpublished', SITE);
  const design = view.editable(at, past)?.site.design;
  if (!design) return null;
  const labels = new Map(design.types.map(({ key, label }) => [key, label]));
  return {
    templates: design.templates.map((template) => ({
      id: template.id,
      key: template.key,
      label: template.label,
      kind: template.kind,
      type: labels.get(template.type ?? '') ?? null,
      uses: usesOf(design, template),
    })),
    types: design.types.map((type) => ({
      key: type.key,
      label: type.label,
      page: automaticPage(type),
      cards: {
        packet: cardOf(type, 'packet'),
        line: cardOf(type, 'line'),
        row: cardOf(type, 'row'),
      },
    })),
    automatic: design.types.flatMap(({ key, plural, address, template }) =>
      address === undefined || template !== undefined ? [] : [{ key, label: plural }],
    ),
    language: design.site.language,
  };
}

/** What the Template screen shows of a template. */
export interface TemplateDetail {
  /** The template in the working design; in the past as it was released. */
  spec: Template;
  /** The type that it reads; null for none. */
  type: Pick<ContentType, 'id' | 'key' | 'label'> | null;
  /** Fields of the type, each with the block that shows it. */
  fields: { key: string; label: string; block: Block }[];
  offers: BlockOffer[];
  listings: { key: string; label: string }[];
  picks: { key: string; label: string }[];
  cards: { key: string; label: string }[];
  menus: { key: string; label: string }[];
  /** The named styles that blocks can have. */
  styles: { key: string; label: string }[];
  /** Names of the slots that frames have besides "main"; for pages. */
  slots: string[];
  /** What conditions may ask of entries, by the key of their type: the one read, and those beside it. */
  columns: Record<string, ListingColumn[]>;
  /** Names of the entries that blocks and conditions name, by id. */
  names: Record<string, string>;
  /** The instant that it is shown at. */
  at: Instant;
  specimens: Specimen[];
  uses: TemplateUse[];
  /** Steps that have it chosen for all of its type, or for the site; none where it is. */
  choosing: Step[];
  /** Takes it away; null where something has chosen it. */
  removal: Step | null;
  /** What the bench holds of it, a sentence each. */
  onBench: string[];
}

/** Everything about a template, and entries to try it on. Null where there is no such template. */
export function templateDetail(
  view: SiteView,
  actor: Actor,
  key: string,
  { at, past }: Looking,
): TemplateDetail | null {
  permit(actor, 'read-unpublished', SITE);
  const site = view.editable(at, past)?.site;
  const spec = site?.design.templates.find((t) => t.key === key);
  if (!site || !spec) return null;
  const { design, environments } = site;
  const uses = usesOf(design, spec);
  const type = site.typesByKey.get(spec.type ?? '') ?? null;
  const named = <T extends { key: string; label: string }>(list: readonly T[]) =>
    list.map(({ key: own, label }) => ({ key: own, label }));
  return {
    spec,
    type: type && { id: type.id, key: type.key, label: type.label },
    fields: type ? fieldsOf(type) : [],
    offers: blockOffers({ design, environments, template: spec }),
    listings: named(design.listings),
    picks: named(design.picks),
    cards: named(design.templates.filter(({ kind }) => kind === 'card')),
    menus: named(design.templates.filter(({ kind }) => kind === 'menu')),
    styles: named(design.styles.filter(({ on }) => on === 'block')),
    slots: spec.kind === 'page' ? slotsOf(design) : [],
    columns: type ? columnsBeside(view, site, type, at) : {},
    names: namesWithin(view, spec),
    at,
    specimens: type ? specimensOf(view, type, at) : [],
    uses,
    choosing: choosing(design, spec),
    removal: uses.length === 0 ? removalOf(design, `templates/${spec.id}`) : null,
    onBench: past ? [] : sentencesAbout(view, `templates/${spec.id}`, at),
  };
}

/** Names of the slots of all frames, less the one that every frame has. */
function slotsOf({ templates }: Design): string[] {
  const frames = templates.filter(({ kind }) => kind === 'frame');
  const names = [...blocksWithin(frames.map(({ blocks }) => blocks))].flatMap(({ block, slot }) =>
    block === 'slot' && typeof slot === 'string' && slot !== 'main' ? [slot] : [],
  );
  return [...new Set(names)];
}

/** What conditions may ask of a type's entries, and of those that lead there or are led to. */
function columnsBeside(
  view: SiteView,
  { design, typesByKey }: CompiledSite,
  type: ContentType,
  at: Instant,
): TemplateDetail['columns'] {
  const { language } = design.site;
  const ledTo = type.fields.flatMap(({ types = [] }) => (types.length === 1 ? types : []));
  const leading = otherSidesOf(type, design).map((side) => side.type.key);
  const keys = new Set([type.key, ...ledTo, ...leading]);
  return Object.fromEntries(
    [...keys].flatMap((key) => {
      const one = typesByKey.get(key);
      return one ? [[key, listingColumns(view, one, { at, language })] as const] : [];
    }),
  );
}

/** Names of the entries that blocks lead to, and that their conditions compare with. */
function namesWithin(view: SiteView, { blocks, slots }: Template): Record<string, string> {
  const ids = [...blocksWithin([blocks, slots])].flatMap(({ entry, where }) => [
    ...(typeof entry === 'string' ? [entry] : []),
    ...conditionSpecs(where as FilterSpec | undefined).flatMap(({ value = [] }) => [value].flat()),
  ]);
  return Object.fromEntries(ids.map((id) => [String(id), entryName(view, String(id))]));
}

function fieldsOf(type: ContentType): TemplateDetail['fields'] {
  const blocks = fieldBlocks(type);
  return type.fields.flatMap(({ key, label }) => {
    const block = blocks.get(key);
    return block ? [{ key, label, block }] : [];
  });
}

/** Where a template is chosen, or drawn: by types and listings, the site, other templates' blocks. */
function usesOf(design: Design, { key, kind }: Template): TemplateUse[] {
  const { site, types, listings, templates } = design;
  const named = (property: string | undefined): boolean => property === key;
  const chosenBy = ({ template, templates: further = [], card, frame }: Chooser): boolean =>
    kind === 'page'
      ? named(template) || further.includes(key)
      : named(kind === 'card' ? card : frame);
  const isDrawn = ({ blocks, slots }: Template): boolean =>
    [...blocksWithin([blocks, slots])].some((block) => block[kind] === key);
  return [
    ...types.filter(chosenBy).map((t) => ({ words: t.label, href: `/build/types/${t.key}` })),
    ...listings.filter(chosenBy).map((l) => ({ words: l.label, href: `/build/listings/${l.key}` })),
    ...(kind === 'frame' && named(site.frame)
      ? [{ words: 'the whole site', href: '/build/settings' }]
      : []),
    ...(kind === 'card' || kind === 'menu' ? templates.filter(isDrawn) : []).map((t) => ({
      words: t.label,
      href: `/build/templates/${t.key}`,
    })),
  ];
}

/** What chooses templates: a type or a listing. */
interface Chooser {
  template?: string | undefined;
  templates?: string[] | undefined;
  card?: string | undefined;
  frame?: string | undefined;
}
