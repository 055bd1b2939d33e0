import { isPicture } from '@/core/design/media-formats.ts';
import type { Design } from '@/core/design/spec.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { DatabaseProblem } from '../db/problem.ts';
import { idOfPath } from '../files/entry-form.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { allMedia } from '../store/media.ts';
import { statement } from '../store/statement.ts';
import { SUBJECT_COLUMNS, type SubjectRow, subjectOf } from '../store/subject-rows.ts';
import { settledInstant } from '../store/write.ts';
import { type SubjectOfSet, designFiles } from './design-files.ts';
import { subjectHistory } from './subject-history.ts';
import { pickMembers, picksBefore } from './pick-members.ts';
import { deskFile } from './desk.ts';
import { type EntryPrinting, entryFile } from './entry-file.ts';
import { entryRows } from './entry-rows.ts';
import { designOf, historyFiles, releaseRows } from './history-files.ts';
import { FileNames, type SavedFile } from './saved-file.ts';
import { purgedEntries } from './purged.ts';
import { starterFiles } from './starter-files.ts';
import { sourceFiles } from './source-files.ts';
import { mediaFiles, mediaHistory } from './media-files.ts';
import { yamlText } from './yaml-text.ts';

/**
 * The whole site as the files of a folder, as docs/site-folder.md has them: those of the design,
 * pictures, entries, and the history last. Equal sites give equal files; what is read again gives
 * the same rows. The caller holds one snapshot meanwhile.
 * @throws NotPermitted, DatabaseProblem
 */
export function* savedFiles(
  connection: Connection,
  dataFolder: string,
  actor: Actor,
): Generator<SavedFile> {
  permit(actor, 'read-unpublished', SITE);
  const until = settledInstant(connection);
  const releases = releaseRows(connection);
  const now = releases.findLast(({ starts }) => starts <= until);
  if (!now) throw noSite(connection);
  const design = designOf(now);
  const names = new FileNames();
  const picks = pickMembers(connection);
  yield* designFiles(design, { subjects: allSubjects(connection), picks }, names);
  const media = allMedia(connection);
  yield* mediaFiles(media, dataFolder);
  const pictures = new Set(media.filter(isPicture).map(({ id }) => id));
  const how = printingOf(design, pictures);
  yield* entryFiles(connection, until, { how, names });
  yield* starterFiles(connection, how, names);
  yield* sourceFiles(connection);
  const sets = design.subjectSets.map(({ id }) => id);
  for (const { id } of design.picks) picks.delete(id);
  const content = {
    ...subjectHistory(connection, sets),
    ...picksBefore(picks),
    ...mediaHistory(media),
    ...purgedEntries(connection, design.site.language),
    ...deskFile(connection),
  };
  yield* historyFiles(connection, { releases, until, content });
}

function noSite({ driver }: Connection): DatabaseProblem {
  return new DatabaseProblem(
    `There is no site in ${driver.name} yet.`,
    'Load one first: npx bontel load FOLDER',
  );
}

function allSubjects(connection: Connection): SubjectOfSet[] {
  return statement<SubjectRow & { set: string }>(
    connection,
    `SELECT "set", ${SUBJECT_COLUMNS} FROM subject WHERE ends IS NULL ORDER BY position, key`,
  )
    .all()
    .map(subjectOf);
}

/** How values are printed in the files of a design. */
function printingOf(
  { types: all, languages, site: { language, zone } }: Design,
  pictures: ReadonlySet<string>,
): EntryPrinting {
  const types = new Map(all.map((type) => [type.id, type]));
  return {
    language,
    further: languages.map((further) => further.language),
    zone,
    pictures: { hasPicture: (id: string) => pictures.has(id) },
    typeOf: (id: string) => types.get(id),
  };
}

function* entryFiles(
  connection: Connection,
  until: Instant,
  { how, names }: { how: EntryPrinting; names: FileNames },
): Generator<SavedFile> {
  for (const rows of entryRows(connection, until)) {
    const folder = how.typeOf(rows.type)?.key ?? rows.type;
    const { id } = rows;
    const name = id.startsWith(`${folder}/`) ? id.slice(folder.length + 1) : id;
    const path = names.take(`entries/${folder}`, name, '.yaml');
    const defaultId = idOfPath(path.slice('entries/'.length, -'.yaml'.length));
    yield { path, content: yamlText(entryFile(rows, how, defaultId)) };
  }
}
