import type { CompiledTemplate } from '../template/compile.ts';
import type { Validity } from '../time/interval.ts';
import type { CompiledSite } from './compile.ts';
import type { SiteReader } from './reader.ts';
import type { Resolution } from './resolve.ts';
import { frameOfListing, templatesOf } from './templates-of.ts';

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
