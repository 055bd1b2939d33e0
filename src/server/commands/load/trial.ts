import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { isDeepStrictEqual } from 'node:util';
import type { Design } from '@/core/design/spec.ts';
import { type Issue, type Result, ok } from '@/core/issue.ts';
import type { Instant } from '@/core/time/interval.ts';
import { type Connection, openDatabase } from '../../db/connection.ts';
import type { SiteToLoad } from '../../files/read-site.ts';
import type { Actor } from '../../permit.ts';
import { designsOf } from '../../store/design-store.ts';
import { loadSite } from '../load-site.ts';

/** How many of one sort would be new, would be other than they are, and would be gone. */
interface Changes {
  created: number;
  changed: number;
  gone: number;
}

/** What loading a folder would do to the site that is there, or to none. */
export interface Trial {
  types: Changes;
  listings: Changes;
  entries: Changes;
  pictures: Changes;
  /** The first files of entries, with what would become of the entry. */
  files: { file: string; what: 'created' | 'changed' }[];
  /** What loads all the same, and is hardly meant. */
  findings: Issue[];
}

const MOST_FILES = 200;

/**
 * Loads a site into a database of its own, thrown away afterwards, and compares it with what is
 * there: nothing of that is touched. Refused as loading it would be.
 */
export function tryLoad(
  database: string,
  actor: Actor,
  site: SiteToLoad,
  now: Instant,
  tell: (step: string) => void,
): Result<Trial> {
  const folder = mkdtempSync(join(tmpdir(), 'bontel-trial-'));
  const connection = openDatabase(join(folder, 'site.db'));
  try {
    const loaded = loadSite(connection, folder, actor, site, now, tell);
    if (!loaded.ok) return loaded;
    tell('Comparing with what is there');
    const was = existsSync(database) ? designAt(database, now) : null;
    return ok({
      types: compared(was?.types ?? [], site.design.types),
      listings: compared(was?.listings ?? [], site.design.listings),
      ...(was ? comparedRows(connection, database, site) : allNew(site)),
      findings: loaded.value.findings,
    });
  } finally {
    connection.close();
    rmSync(folder, { recursive: true, force: true });
  }
}

function designAt(database: string, now: Instant): Design | null {
  const connection = openDatabase(database, { readonly: true });
  try {
    return designsOf(connection).at(now)?.site.design ?? null;
  } finally {
    connection.close();
  }
}

function compared(was: readonly { id: string }[], now: readonly { id: string }[]): Changes {
  const before = new Map(was.map((part) => [part.id, part]));
  const kept = now.filter(({ id }) => before.has(id));
  return {
    created: now.length - kept.length,
    changed: kept.filter((part) => !isDeepStrictEqual(part, before.get(part.id))).length,
    gone: was.length - kept.length,
  };
}

function allNew({ entries, media }: SiteToLoad): Pick<Trial, 'entries' | 'pictures' | 'files'> {
  const files = entries.slice(0, MOST_FILES).map(({ raw }) => raw.file);
  return {
    entries: { created: entries.length, changed: 0, gone: 0 },
    pictures: { created: media.filter(({ to }) => to === null).length, changed: 0, gone: 0 },
    files: files.map((file) => ({ file, what: 'created' })),
  };
}

/** Entries by their ids, types and newest values; pictures by their content. */
function comparedRows(
  { driver }: Connection,
  database: string,
  { entries }: SiteToLoad,
): Pick<Trial, 'entries' | 'pictures' | 'files'> {
  driver.prepare('ATTACH ? AS was').run(database);
  const count = (sql: string): number => driver.prepare(sql).pluck().get() as number;
  const created = new Set(driver.prepare(NEW_ENTRIES).pluck().all() as string[]);
  const changed = changedEntries(driver);
  const files = entries.flatMap(({ id, raw: { file } }): Trial['files'] =>
    created.has(id)
      ? [{ file, what: 'created' }]
      : changed.has(id)
        ? [{ file, what: 'changed' }]
        : [],
  );
  return {
    entries: { created: created.size, changed: changed.size, gone: count(GONE_ENTRIES) },
    pictures: {
      created: count(`SELECT count(*) FROM ${MEDIA('main')} WHERE id NOT IN (${IDS('was')})`),
      changed: count(
        `SELECT count(*) FROM ${MEDIA('main')} n JOIN ${MEDIA('was')} o USING (id)
           WHERE n.hash <> o.hash`,
      ),
      gone: count(`SELECT count(*) FROM ${MEDIA('was')} WHERE id NOT IN (${IDS('main')})`),
    },
    files: files.slice(0, MOST_FILES),
  };
}

/** The media of now of a database, and their names. */
const MEDIA = (of: string): string => `(SELECT id, hash FROM ${of}.media WHERE ends IS NULL)`;
const IDS = (of: string): string => `SELECT id FROM ${of}.media WHERE ends IS NULL`;

const NEW_ENTRIES = `SELECT id FROM main.entry WHERE deleted IS NULL
  AND id NOT IN (SELECT id FROM was.entry WHERE deleted IS NULL)`;

const GONE_ENTRIES = `SELECT count(*) FROM was.entry WHERE deleted IS NULL
  AND id NOT IN (SELECT id FROM main.entry WHERE deleted IS NULL)`;

function changedEntries(driver: Connection['driver']): Set<string> {
  const newest = (of: string): string =>
    `SELECT e.id, e.type, r."values" FROM ${of}.entry e
       JOIN ${of}.revision r ON r.entry = e.id AND r.number = e.newest WHERE e.deleted IS NULL`;
  const differing = driver.prepare<[], { id: string; type: number; a: string; b: string }>(
    `SELECT n.id, n.type <> o.type AS type, n."values" AS a, o."values" AS b
       FROM (${newest('main')}) n JOIN (${newest('was')}) o ON o.id = n.id
      WHERE n.type <> o.type OR n."values" <> o."values"`,
  );
  const changed = new Set<string>();
  for (const { id, type, a, b } of differing.iterate())
    if (type || !isDeepStrictEqual(JSON.parse(a), JSON.parse(b))) changed.add(id);
  return changed;
}
