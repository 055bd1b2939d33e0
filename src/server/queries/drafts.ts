import type { SiteReader } from '@/core/site/reader.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { Actor } from '../permit.ts';
import { withEntries } from '../store/overlay-reader.ts';
import { personName } from '../store/persons.ts';
import { statement } from '../store/statement.ts';
import { readValues } from '../store/stored-values.ts';
import { settledInstant } from '../store/write.ts';
import type { Seeing } from './clock.ts';
import { type Draft, type Seen, overlayOf } from './preview.ts';
import type { SiteView } from './site-view.ts';

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
  WHERE r.saved <= @at AND r.author = @author AND NOT EXISTS (
    SELECT 1 FROM live_interval AS l
    WHERE l.entry = e.id AND l.revision = e.newest AND l.starts <= @at)
  ORDER BY r.saved DESC, r.entry LIMIT @most`;

/**
 * A person's drafts saved by an instant, the latest first; none where one sees what is published.
 */
export function draftsSeen(view: SiteView, { actor, at, seeing }: Sight): Draft[] {
  const found = seeing === 'published' ? null : view.at(at);
  if (!found) return [];
  const ahead = Math.max(at, settledInstant(view.connection));
  const rows = statement<{ id: string; type: string; json: string; author: string }>(
    view.connection,
    DRAFTS,
  ).all({
    at,
    ahead,
    author: actor.id,
    most: MOST_DRAFTS,
  });
  return rows.flatMap(({ id, type: key, json, author }) => {
    const type = found.site.types.get(key);
    return type
      ? [
          {
            id,
            type,
            values: readValues(json, found.site.design.site.language),
            author: personName(view.connection, author),
          },
        ]
      : [];
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
  const drafts = draftsSeen(view, sight).filter(({ id }) => id !== except);
  return withEntries(site.reader, overlayOf(view, site, drafts, sight.at));
}
