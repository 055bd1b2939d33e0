import { mentionsOf } from '@/core/design-edit/mentions.ts';
import type { Step } from '@/core/design-edit/steps.ts';
import { partsNamed } from '@/core/design-edit/touches.ts';
import { rootOf } from '@/core/design/language-spec.ts';
import type { Template } from '@/core/design/spec.ts';
import { isAroundPages } from '@/core/design/template-kind.ts';
import type { Issue } from '@/core/issue.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { SiteReader } from '@/core/site/reader.ts';
import type { Instant } from '@/core/time/interval.ts';
import { render, renderEntry } from '@/core/site/render.ts';
import { compileTemplates } from '@/core/template/compile.ts';
import { choosing, choosingList, listingFor } from '@/core/design-edit/choosing.ts';
import { type Stumble, stumblesIn } from '@/core/template/hygiene.ts';
import { drawnByBlocks } from '@/core/template/marks.ts';
import { type ItemOffers, itemOffers } from '@/core/template/offers.ts';
import { type Actor, permit } from '../permit.ts';
import { whyBlank } from './blank-blocks.ts';
import type { Looking } from './clock.ts';
import { entryName } from './display.ts';
import { inLanguageSeen, readerSeeing } from './drafts.ts';
import type { SiteView } from './site-view.ts';
import { type TriedOn, cardHtml, triedOn, whyNoPath } from './tried-on.ts';
import { withSteps } from './unsaved.ts';

/** A template with unsaved properties, and the entry to try it on; null for a stand-in. */
export interface TemplateInput {
  id: string;
  /** What is unsaved. */
  steps: Step[];
  specimen: string | null;
}

/** What a template, saved or not, makes of one entry, or of a page. */
export interface TemplateOutcome {
  issues: Issue[];
  /** What it is shown for: an entry by name, a path. */
  shownFor: string;
  /** The page, or the card in a page of its own, each block between marks; null where there is none. */
  html: string | null;
  /** Of a card the list that it is really drawn in; null of others, and where there is none. */
  placed: string | null;
  /** Why there is none. */
  none: string | null;
  /** What blocks give, as HTML, by their ids: those that give something. */
  drawn: Record<string, string>;
  /** Why others give nothing, by their ids, where that is known. */
  why: Record<string, string>;
  /** What each repetition offers to the blocks within it, by its id. */
  items: Record<string, ItemOffers>;
  /** What readers of the page would stumble over; of pages, not of cards. */
  stumbles: Stumble[];
  /** Keys of the type's fields that it does not read. */
  unused: string[];
}

/**
 * The outcome of an edited template as of an instant, as if it were chosen for what it is drawn for.
 * Null where there is no such template.
 */
export function templateOutcome(
  view: SiteView,
  actor: Actor,
  { id, steps, specimen }: TemplateInput,
  looking: Looking,
): TemplateOutcome | null {
  permit(actor, 'read-unpublished', { of: 'part', path: `templates/${id}` });
  const current = view.editable(looking.at, looking.past)?.site;
  if (!current?.design.templates.some((t) => t.id === id)) return null;
  const { site: edited, issues } = withSteps(current, steps);
  const template = edited.design.templates.find((t) => t.id === id)!;
  const own = [...choosing(edited.design, template), ...choosingList(edited.design, template)];
  const chosen = inLanguageSeen(withSteps(edited, own).site, looking);
  const { design, environments } = chosen;
  const { templates } = compileTemplates(design, environments, { blocksOf: template.key });
  const site = { ...chosen, templates };
  const said = design.templates.find((t) => t.id === id)!;
  const shown = template.type
    ? ofEntry(view, actor, { site, template: said, specimen }, looking)
    : ofPage(view, actor, { site, template: said }, looking);
  const { tried, placed = null, ...page } = shown;
  const drawn = Object.fromEntries(drawnByBlocks(page.html ?? ''));
  return {
    issues,
    ...page,
    placed,
    drawn,
    why: tried ? whyBlank(chosen, said, { ...tried, at: looking.at }, drawn) : {},
    stumbles: page.html === null || template.kind === 'card' ? [] : stumblesIn(page.html),
    items: itemOffers({ design, environments, template }),
    unused: unusedBy(edited, template),
  };
}

type Shown = Pick<TemplateOutcome, 'shownFor' | 'html' | 'none'> & {
  placed?: string | null;
  tried?: TriedOn;
};

/** The page or the card of an entry. */
function ofEntry(
  view: SiteView,
  actor: Actor,
  { site, template, specimen }: { site: CompiledSite; template: Template; specimen: string | null },
  { at, seeing }: Looking,
): Shown {
  const type = site.typesByKey.get(template.type!)!;
  const tried = triedOn(view, actor, { site, type, specimen }, { at, seeing });
  const shownFor = tried.standIn ? 'Stand-in, never published' : entryName(view, tried.id);
  const { reader, entry, prospect } = tried;
  if (template.kind === 'card') {
    const html = cardHtml(site, reader, entry, at);
    return { shownFor, html, placed: listHtml(site, reader, template, at), none: null, tried };
  }
  const isNowhere = prospect.path === null;
  const html = isNowhere ? null : renderEntry(site, reader, entry, at).body;
  return { shownFor, html, none: isNowhere ? whyNoPath(type, prospect) : null, tried };
}

/** The page of a listing that has the card; null where none of its type has an address. */
function listHtml(
  site: CompiledSite,
  reader: SiteReader,
  template: Template,
  at: Instant,
): string | null {
  const listing = listingFor(site.design, template);
  return listing ? render(site, reader, { path: listing.address!, at }).body : null;
}

/** The page of a listing that has the template, or the front page in the frame. */
function ofPage(
  view: SiteView,
  actor: Actor,
  { site, template }: { site: CompiledSite; template: Template },
  { at, seeing }: Looking,
): Shown {
  const { design } = site;
  const path = isAroundPages(template.kind)
    ? rootOf(design)
    : listingFor(design, template)?.address;
  if (path === undefined)
    return {
      shownFor: template.label,
      html: null,
      none: 'No listing has an address of its own: this is drawn where one has.',
    };
  const reader = readerSeeing(view, { actor, at, seeing }, { site, reader: view.readerOf(site) });
  return { shownFor: path, html: render(site, reader, { path, at }).body, none: null };
}

/** Fields of the type that no block of the template reads, by key. */
function unusedBy(
  { design, environments, typesByKey }: CompiledSite,
  template: Template,
): string[] {
  const type = template.type === undefined ? undefined : typesByKey.get(template.type);
  if (!type) return [];
  const mentions = mentionsOf(template, design, environments);
  const read = new Set(mentions.flatMap((mention) => partsNamed(design, mention)));
  return type.fields.flatMap((f) => (read.has(`types/${type.id}/fields/${f.id}`) ? [] : [f.key]));
}
