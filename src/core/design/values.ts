import type { MediaWordsByTag } from './media-words.ts';
import type { Instant } from '../time/interval.ts';
import type { ContentType } from './spec.ts';

import { type Values, valuesOf } from './values-of.ts';

export { type Values, valuesOf };

/** A subject as patterns and templates see it. */
export interface Subject {
  set: string;
  key: string;
  name: string;
  slug: string;
  description: string;
  /** Id of a picture; null where it has none. */
  picture: string | null;
  /** Key of the category above; null at the top and in loose sets. */
  parent: string | null;
}

/** What is said of a picture or file besides its content. */
export interface AboutMedia {
  /** What it shows, for those who do not see it. */
  alt: string;
  /** Whether it says nothing that the page does not say: then it is passed over where it is read out. */
  decorative: boolean;
  caption: string;
  /** Who made it, or owns it. */
  credit: string;
  /** Where what matters in it lies, in per cent from the left and the top. */
  focusX: number;
  focusY: number;
  /** What further languages say of it, by their tags. */
  languages: MediaWordsByTag;
}

/** What is said of a medium of which nothing was said. */
export const UNTOLD: AboutMedia = {
  alt: '',
  decorative: false,
  caption: '',
  credit: '',
  focusX: 50,
  focusY: 50,
  languages: {},
};

/** A picture or file as patterns and templates see it; sizes in px, 0 where it is no picture. */
export interface Media extends AboutMedia {
  /** Its name: that of its file below the site folder's `media/`. */
  id: string;
  width: number;
  height: number;
  /** SHA-256 of the file, hex. */
  hash: string;
  mime: string;
}

/** An entry as of some instant, in one revision. */
export interface EntryView {
  id: string;
  type: ContentType;
  values: Values;
  created: Instant;
  /** Start of the first live interval; null where it never was live. */
  published: Instant | null;
  /** Start of the live interval of the revision shown; null where it is not live. */
  updated: Instant | null;
  author: string;
  /** Id of that person; left out where nothing was saved. */
  authorId?: string;
  state: string;
  /** Its current path; null while it has none. */
  path: string | null;
  /** The language it is in, where that is not the page's, BCP 47. */
  language?: string;
  /** Set on values that stand in a text, drawn as an entry is: they are none. */
  isPart?: true;
}

/** The text of an entry's naming field; its id where that is blank. */
export function nameOf(entry: Pick<EntryView, 'id' | 'type' | 'values'>): string {
  const naming = entry.type.fields.find((f) => f.key === entry.type.naming);
  return String(valuesOf(entry.values, naming?.id ?? '')[0] ?? '').trim() || entry.id;
}
