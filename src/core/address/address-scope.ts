import type { SiteScope } from '../design/site-scope.ts';
import type { EntryView, Media, Subject } from '../design/values.ts';
import { MAX_STEPS } from '../pattern/compile.ts';
import type { Instant } from '../time/interval.ts';
import { newestSaved, nextPublication } from '../publication/plans.ts';
import { type Standing, type TimelineEntry, valuesOfRevision } from './model.ts';

/** What an address scope reads from. */
export interface AddressReads {
  language: string;
  zone: string;
  siteRoot: { name: string; url: string; strapline: string };
  view(id: string): EntryView | null;
  subject(set: string, key: string): Subject | null;
  media(id: string): Media | null;
  /** The path an address may build upon; null or '' where it contributes nothing. */
  pathOf(id: string): string | null;
}

/** The scope in which an entry's address pattern is evaluated. */
export function addressScope(reads: AddressReads, entry: EntryView): SiteScope {
  const pathOf = (e: EntryView): string | null => reads.pathOf(e.id);
  return {
    single: () => null, // an address reads none
    referring: () => [], // nor these
    language: reads.language,
    zone: reads.zone,
    address: true,
    own: entry,
    roots: { site: reads.siteRoot },
    steps: MAX_STEPS,
    issues: [],
    entry: (id) => reads.view(id),
    subject: (set, key) => reads.subject(set, key),
    media: (id) => reads.media(id),
    pathOf,
    urlOf: (e) => {
      const path = pathOf(e as EntryView);
      return path === null ? null : reads.siteRoot.url + path;
    },
    imageUrl: () => null,
  };
}

/**
 * An entry as addresses read it, live or not: the revision live then, else the last live, else
 * the next to go live, else the newest saved. Null while nothing of it is written.
 */
export function addressView(
  entry: TimelineEntry,
  standing: Standing,
  at: Instant,
): EntryView | null {
  const next = nextPublication(entry.plans, entry.revisions, at);
  const number =
    standing.live?.revision ??
    standing.lastRevision ??
    next?.revision ??
    newestSaved(entry.revisions, at)?.number;
  if (number === undefined) return null;
  return {
    id: entry.id,
    type: entry.type,
    values: valuesOfRevision(entry, number),
    created: entry.created,
    published: standing.published ?? next?.at ?? at,
    updated: null,
    author: entry.author,
    state: '',
    path: null,
  };
}
