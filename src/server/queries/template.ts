import type { Block } from '@/core/design/block.ts';
import type { ContentType, Design, Template } from '@/core/design/spec.ts';
import { choosing } from '@/core/design-edit/choosing.ts';
import { removalOf } from '@/core/design-edit/removal.ts';
import type { Step } from '@/core/design-edit/steps.ts';
import { automaticCard, automaticPage } from '@/core/template/automatic.ts';
import { type BlockOffer, blockOffers, fieldBlocks } from '@/core/template/offers.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { sentencesAbout } from './bench.ts';
import type { Looking } from './clock.ts';
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
  types: { key: string; label: string; page: Block[]; card: Block[] }[];
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
      card: automaticCard(type),
    })),
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
    specimens: type ? specimensOf(view, type, at) : [],
    uses,
    choosing: choosing(design, spec),
    removal: uses.length === 0 ? removalOf(design, `templates/${spec.id}`) : null,
    onBench: past ? [] : sentencesAbout(view, `templates/${spec.id}`, at),
  };
}

function fieldsOf(type: ContentType): TemplateDetail['fields'] {
  const blocks = fieldBlocks(type);
  return type.fields.flatMap(({ key, label }) => {
    const block = blocks.get(key);
    return block ? [{ key, label, block }] : [];
  });
}

/** Where a template is chosen. */
function usesOf({ site, types, listings }: Design, { key, kind }: Template): TemplateUse[] {
  const named = (property: string | undefined): boolean => property === key;
  return [
    ...types
      .filter((t) => named(kind === 'page' ? t.template : t.card))
      .map((t) => ({ words: t.label, href: `/build/types/${t.key}` })),
    ...listings
      .filter((l) => named(kind === 'page' ? l.template : l.card))
      .map((l) => ({ words: l.label, href: `/build/listings/${l.key}` })),
    ...(kind === 'frame' && named(site.frame)
      ? [{ words: 'the whole site', href: '/build/settings' }]
      : []),
  ];
}
