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

/** A picture or file as patterns and templates see it; sizes in px. */
export interface Media {
  id: string;
  alt: string;
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
  state: string;
  /** Its current path; null while it has none. */
  path: string | null;
}

/** The text of an entry's naming field; its id where that is blank. */
export function nameOf(entry: Pick<EntryView, 'id' | 'type' | 'values'>): string {
  const naming = entry.type.fields.find((f) => f.key === entry.type.naming);
  return String(valuesOf(entry.values, naming?.id ?? '')[0] ?? '').trim() || entry.id;
}
