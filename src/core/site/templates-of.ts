import { ownPresets } from '../design/presets.ts';
import type { EntryView } from '../design/values.ts';
import type { CompiledTemplate } from '../template/compile.ts';
import type { Validity } from '../time/interval.ts';
import type { CompiledSite } from './compile.ts';
import type { SiteReader } from './reader.ts';
import type { Resolution } from './resolve.ts';

/** What draws an entry's page, and who decided it. */
export interface TemplatesUsed {
  template: CompiledTemplate;
  frame: CompiledTemplate;
  /** Whether the entry itself chose the template. */
  isChosen: boolean;
}

/** The page template and the frame of an entry: its own choice, where its type still offers that. */
export function templatesOf({ templates }: CompiledSite, entry: EntryView): TemplatesUsed {
  const { key } = entry.type;
  const { template: wish } = ownPresets(entry.values);
  const chosen = wish === undefined ? undefined : templates.choices.get(key)?.get(wish);
  return {
    template: chosen ?? templates.pages.get(key)!,
    frame: templates.frames.types.get(key) ?? templates.frame,
    isChosen: chosen !== undefined,
  };
}

/** What stands around a listing's own pages. */
export function frameOfListing({ templates }: CompiledSite, listing: string): CompiledTemplate {
  return templates.frames.listings.get(listing) ?? templates.frame;
}

/** What draws the page that a path leads to, in a sentence; null where it is no entry's or listing's. */
export function drawnBy(
  site: CompiledSite,
  reader: SiteReader,
  resolution: Resolution,
  validity: Validity,
): string | null {
  if (resolution.kind === 'listing') {
    const template = site.templates.listings.get(resolution.listing)!;
    return sentenceOf(template, frameOfListing(site, resolution.listing), false);
  }
  if (resolution.kind !== 'entry') return null;
  const entry = reader.liveEntries([resolution.entry], validity).get(resolution.entry);
  if (!entry) return null;
  const { template, frame, isChosen } = templatesOf(site, entry);
  return sentenceOf(template, frame, isChosen);
}

function sentenceOf(
  template: CompiledTemplate,
  frame: CompiledTemplate,
  isChosen: boolean,
): string {
  const by = template.automatic ? 'its fields by themselves' : `the template “${template.label}”`;
  const why = isChosen ? ', which the entry has chosen' : '';
  const around = frame.automatic ? 'the automatic frame' : `the frame “${frame.label}”`;
  return `Drawn by ${by}${why}, in ${around}.`;
}
