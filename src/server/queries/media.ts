import { same } from '@/core/design-edit/properties.ts';
import type { MediaFilters } from '@/core/content/media-filters.ts';
import { type FormatName, MEDIA_FORMATS, formatOf } from '@/core/design/media-formats.ts';
import type { Media } from '@/core/design/values.ts';
import { imagePath, stablePath } from '@/core/site/pictures.ts';
import { searchKey } from '@/core/text.ts';
import type { Instant } from '@/core/time/interval.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { asOf } from '../store/as-of.ts';
import { mediumTarget } from '../store/media-edges.ts';
import { type MediaRow, type StoredMedium, mediaRow, versionsOf } from '../store/media.ts';
import { personName } from '../store/persons.ts';
import { statement } from '../store/statement.ts';
import { settledInstant } from '../store/write.ts';
import type { SiteView } from './site-view.ts';

/** A medium as lists show it. */
export interface MediaLine extends Media {
  bytes: number;
  format: FormatName;
  /** Since when it is as it is. */
  starts: Instant;
  /** Address of a small picture of it; null of what is no picture. */
  thumbnail: string | null;
}

/** Some of the media that fit, and how many do. */
export interface MediaFound {
  total: number;
  lines: MediaLine[];
}

/** So many are given at once. */
const AT_ONCE = 100;
const ORDER = { newest: 'm.starts DESC, m.id', name: 'm.id', largest: 'm.bytes DESC, m.id' };

/** The media as of an instant, the newest where it is null, that fit; from the one at a place on. */
export function mediaFound(
  view: SiteView,
  actor: Actor,
  { at: asked, from, filters }: { at: Instant | null; from: number; filters: MediaFilters },
): MediaFound {
  permit(actor, 'read-unpublished', SITE);
  const at = asked ?? newest(view);
  const { words, formats, maxKilobytes, lacking, sort } = filters;
  const share = view.at(at)?.site.design.site.sharePicture ?? null;
  const where = `FROM media AS m WHERE ${asOf('m', '@at')} AND m.id NOT LIKE 'style/%'
    AND NOT EXISTS (SELECT 1 FROM json_each(@words) AS w WHERE instr(m.search, w.value) = 0)
    AND (@mimes IS NULL OR m.mime IN (SELECT value FROM json_each(@mimes)))
    AND m.bytes <= @most
    ${lacking === 'alt' ? `AND m.alt = '' AND NOT m.decorative AND m.width > 0` : ''}
    ${lacking === 'use' ? UNUSED : ''}`;
  const given = {
    at,
    share,
    words: JSON.stringify(searchKey(words).split(' ').filter(Boolean)),
    mimes: formats && JSON.stringify(formats.map((f) => MEDIA_FORMATS[f].mime)),
    most: (maxKilobytes ?? 1e9) * 1000,
  };
  const rows = statement<StoredMedium>(
    view.connection,
    `SELECT m.*, m.focus_x AS focusX, m.focus_y AS focusY ${where}
       ORDER BY ${ORDER[sort]} LIMIT ${AT_ONCE} OFFSET @from`,
  ).all({ ...given, from });
  const total = statement<number>(view.connection, `SELECT count(*) ${where}`).pluck().get(given)!;
  return { total, lines: rows.map((row) => lineOf(mediaRow(row))) };
}

/** An instant from which on nothing that was written is still to come: now, or the last write. */
function newest({ connection }: SiteView): Instant {
  return Math.max(Date.now(), settledInstant(connection));
}

/** Shown by no entry as it is or was saved last, by no subject, in no starter, and not when the site is shared. */
const UNUSED = `AND NOT EXISTS (
    SELECT 1 FROM reference_edge AS g JOIN entry AS e ON e.id = g.entry AND e.deleted IS NULL
     WHERE g.target = '${mediumTarget('')}' || m.id AND (g.revision = e.newest OR EXISTS (
       SELECT 1 FROM live_interval AS l WHERE l.entry = g.entry AND l.revision = g.revision
         AND (l.ends IS NULL OR l.ends > @at))))
  AND m.id NOT IN (SELECT picture FROM subject WHERE ends IS NULL AND picture IS NOT NULL)
  AND NOT EXISTS (SELECT 1 FROM starter AS s WHERE instr(s.filled, json_quote(m.id)) > 0)
  AND m.id IS NOT @share`;

function lineOf(row: MediaRow): MediaLine {
  const { id, hash, mime, width, height, alt, caption, credit, focusX, focusY, languages } = row;
  const medium = { id, hash, mime, width, height, alt, caption, credit, focusX, focusY };
  const line = { ...medium, languages, decorative: row.decorative };
  return {
    ...line,
    bytes: row.bytes,
    starts: row.starts,
    format: formatOf(mime) ?? 'pdf',
    thumbnail: width > 0 ? imagePath(line, 320) : null,
  };
}

/** Who shows a medium. */
export interface MediaUse {
  /** Entries that show it as they were saved last, or as they are live. */
  total: number;
  entries: { id: string; name: string; live: boolean }[];
  subjects: { set: string; setLabel: string; key: string; name: string }[];
  /** Starters that fill it in. */
  starters: { id: string; name: string }[];
  /** Whether it stands for the site where that is shared. */
  isShared: boolean;
}

/** All that is known of a medium as of an instant. */
export interface MediumDetail {
  line: MediaLine;
  /** Where the whole file stands for ever, and where whatever its name stands for does. */
  path: string;
  stable: string;
  use: MediaUse;
  /** How it was, the newest first. */
  versions: {
    starts: Instant;
    ends: Instant | null;
    person: string | null;
    thumbnail: string | null;
    path: string;
    words: string;
  }[];
}

/** A medium as `mediaFound` has it, who shows it and how it was; null where there is none. */
export function mediumDetail(
  view: SiteView,
  actor: Actor,
  id: string,
  asked: Instant | null,
): MediumDetail | null {
  permit(actor, 'read-unpublished', SITE);
  const at = asked ?? newest(view);
  const versions = id.startsWith('style/') ? [] : versionsOf(view.connection, id);
  const now = versions.find(({ starts, ends }) => starts <= at && (ends === null || ends > at));
  if (!now) return null;
  const line = lineOf(now);
  return {
    line,
    path: imagePath({ ...line, width: 0, mime: '' }, 0),
    stable: stablePath(id),
    use: placesOf(view, id, at),
    versions: versions.toReversed().map((version, i, all) => ({
      starts: version.starts,
      ends: version.ends,
      person: version.author === null ? null : personName(view.connection, version.author),
      thumbnail: lineOf(version).thumbnail,
      path: imagePath({ ...version, mime: '' }, 0),
      words: wordsOf(version, all[i + 1]),
    })),
  };
}

/** What a version did. */
function wordsOf(version: MediaRow, before: MediaRow | undefined): string {
  if (!before) return 'Added';
  if (before.ends !== version.starts) return 'Brought back';
  if (before.hash !== version.hash) return 'Another file';
  const said = (['alt', 'decorative', 'caption', 'credit', 'languages'] as const).filter(
    (name) => !same(before[name], version[name]),
  );
  if (said.length === 0) return 'What matters in it';
  const labels = {
    ...{ alt: 'alternative text', decorative: 'alternative text' },
    languages: 'other languages',
  } as const;
  const names = [...new Set(said.map((name) => ({ ...labels })[name as 'alt'] ?? name))];
  return `Changed: ${names.join(', ')}`;
}

const SHOWN = 50;

/** Who shows a medium, as saved last or as live as of an instant. */
function placesOf(view: SiteView, id: string, at: Instant): MediaUse {
  const live = `EXISTS (SELECT 1 FROM live_interval AS l
    WHERE l.entry = g.entry AND l.revision = g.revision AND ${asOf('l', '@at')})`;
  const from = `FROM reference_edge AS g JOIN entry AS e ON e.id = g.entry AND e.deleted IS NULL
    JOIN revision AS r ON r.entry = e.id AND r.number = e.newest
    WHERE g.target = @target AND (g.revision = e.newest OR ${live})`;
  const target = mediumTarget(id);
  const rows = statement<{ id: string; name: string; live: number }>(
    view.connection,
    `SELECT e.id, r.name, max(${live}) AS live ${from}
       GROUP BY e.id ORDER BY r.search, e.id LIMIT ${SHOWN}`,
  ).all({ target, at });
  const total = statement<number>(view.connection, `SELECT count(DISTINCT e.id) ${from}`)
    .pluck()
    .get({ target, at })!;
  const design = view.at(at)?.site.design;
  const subjects = statement<{ set: string; key: string; name: string }>(
    view.connection,
    `SELECT "set", key, name FROM subject WHERE picture = @id AND ${asOf('', '@at')}
       ORDER BY "set", name LIMIT ${SHOWN}`,
  ).all({ id, at });
  return {
    total,
    entries: rows.map((row) => ({ ...row, live: row.live === 1 })),
    subjects: subjects.flatMap(({ set: of, ...subject }) => {
      const set = design?.subjectSets.find((s) => s.id === of);
      return set ? [{ set: set.key, setLabel: set.label, ...subject }] : [];
    }),
    starters: statement<{ id: string; name: string }>(
      view.connection,
      `SELECT id, name FROM starter WHERE instr(filled, json_quote(?)) > 0
         ORDER BY name LIMIT ${SHOWN}`,
    ).all(id),
    isShared: design?.site.sharePicture === id,
  };
}
