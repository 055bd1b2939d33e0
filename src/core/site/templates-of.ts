import { ownPresets } from '../design/presets.ts';
import type { EntryView } from '../design/values.ts';
import type { CompiledTemplate } from '../template/compile.ts';
import type { CompiledSite } from './compile.ts';

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
