import type { Scope } from '../pattern/types.ts';
import type { EntryView, Media, Subject } from './values.ts';

/**
 * What reading an entry's values may ask for: other entries, subjects and media, as of the
 * scope's instant.
 */
export interface SiteScope extends Scope {
  entry(id: string): EntryView | null;
  subject(set: string, key: string): Subject | null;
  media(id: string): Media | null;
  pathOf(entry: EntryView): string | null;
  /** The live entries whose reference, by `otherSideId`, leads to an entry. */
  referring(reference: string, entry: string): EntryView[];
  /** The live entry of a single type, by the type's key; null where there is none. */
  single(type: string): EntryView | null;
}
