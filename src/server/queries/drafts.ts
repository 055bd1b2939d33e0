import type { CompiledSite } from '@/core/site/compile.ts';
import type { SiteReader } from '@/core/site/reader.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { Actor } from '../permit.ts';
import { siteIn } from '../store/designs-ahead.ts';
import { withEntries } from '../store/overlay-reader.ts';
import { personName } from '../store/persons.ts';
import { statement } from '../store/statement.ts';
import { settledInstant } from '../store/write.ts';
import type { Looking, Seeing } from './clock.ts';
import { movingOn } from './moving.ts';
import { type Draft, type Seen, overlayOf, shownOf } from './preview.ts';
import type { SiteAt, SiteView } from './site-view.ts';

/** Whose eyes a site is seen with, and as of when. */
export interface Sight {
  actor: Actor;
  at: Instant;
  seeing: Seeing;
}

const MOST_DRAFTS = 200;

/**
 * Entries whose newest revision is live nowhere, or only after the instant. Read from the few that
 * can be drafts on (CROSS JOIN keeps that order), so that it costs the same however large the site.
 */
const DRAFTS = `SELECT e.id, e.type, r."values" AS json, r.author FROM (
    SELECT DISTINCT id FROM (
      SELECT id FROM entry WHERE unpublished = 1
      UNION ALL SELECT entry FROM live_interval WHERE starts > @ahead)
  ) AS d CROSS JOIN entry AS e ON e.id = d.id AND e.deleted IS NULL
  CROSS JOIN revision AS r ON r.entry = e.id AND r.number = e.newest
  WHERE r.saved <= @at AND (@author IS NULL OR r.author = @author) AND NOT EXISTS (
    SELECT 1 FROM live_interval AS l
    WHERE l.entry = e.id AND e.newest IN (l.revision, l.shared_revision) AND l.starts <= @at)
  ORDER BY r.saved DESC, r.entry LIMIT @most`;

/**
 * The drafts that a person sees, saved by an instant, the latest first: their own, or all where
 * they see the whole bench; none where they see what is published.
 */
export function draftsSeen(
  view: SiteView,
  { actor, at, seeing }: Sight,
  { types, design }: CompiledSite,
): Draft[] {
  if (seeing === 'published') return [];
  const ahead = Math.max(at, settledInstant(view.connection));
  const rows = statement<DraftRow>(view.connection, DRAFTS).all({
    at,
    ahead,
    author: seeing === 'bench' ? null : actor.id,
    most: MOST_DRAFTS,
  });
  return rows.flatMap((row) => draftOf(view, { types, design }, row) ?? []);
}

type DraftRow = { id: string; type: string; json: string; author: string };

function draftOf(
  view: SiteView,
  { types, design }: Pick<CompiledSite, 'types' | 'design'>,
  { id, type: typeId, json, author }: DraftRow,
): Draft | null {
  const type = types.get(typeId);
  if (!type) return null;
  return { id, type, ...shownOf(type, json, design), author: personName(view.connection, author) };
}

/** The newest revisions of some entries, as drafts. */
export function draftsOf(view: SiteView, site: CompiledSite, ids: readonly string[]): Draft[] {
  const row = statement<DraftRow>(
    view.connection,
    `SELECT e.id, e.type, r."values" AS json, r.author FROM entry AS e
       JOIN revision AS r ON r.entry = e.id AND r.number = e.newest
     WHERE e.id = ? AND e.deleted IS NULL`,
  );
  return ids.flatMap((id) => {
    const found = row.get(id);
    return found ? (draftOf(view, site, found) ?? []) : [];
  });
}

/**
 * A reader that sees what is published, or that with a person's drafts in its place. What an
 * entry looks like may be decided elsewhere: then its own draft is passed over.
 */
export function readerSeeing(
  view: SiteView,
  sight: Sight,
  site: Seen,
  except: string | null = null,
): SiteReader {
  const drafts = draftsSeen(view, sight, site.site).filter(({ id }) => id !== except);
  const moving = sight.seeing === 'bench' ? (movingOn(view, site.site, sight.at) ?? []) : [];
  return withEntries(site.reader, overlayOf(view, site, { drafts, moving }, sight.at));
}

/** What one looks at: what is released as of an instant, or the working design on top of it. */
export function designSeen(view: SiteView, { at, seeing }: Omit<Sight, 'actor'>): SiteAt | null {
  return seeing === 'bench' ? view.working(at) : view.at(at);
}

/** A site in the language that is looked at; in its own where it is not in that one. */
export function inLanguageSeen(site: CompiledSite, { language }: Looking): CompiledSite {
  return site.languages.find(({ design }) => design.edition?.id === language) ?? site;
}

/** What is looked at, in a further language where one is named. */
export function seenIn({ site, reader }: Seen, language: string | null): Seen {
  if (language === null) return { site, reader };
  const read = siteIn(site, language);
  return { site: read, reader: reader.in(read) };
}
