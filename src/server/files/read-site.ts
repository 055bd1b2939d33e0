import { existsSync, statSync } from 'node:fs';
import type { Issue } from '@/core/issue.ts';
import { unknownName } from '@/core/did-you-mean.ts';
import { isPicture } from '@/core/design/media-formats.ts';
import type { Design } from '@/core/design/spec.ts';
import { compileSite } from '@/core/site/compile.ts';
import type { Instant } from '@/core/time/interval.ts';
import { EntryReader } from './interpret-entry.ts';
import type { EntryToLoad, StarterToLoad } from './to-load.ts';
import { type SavedHistory, readHistory } from './read-history.ts';
import { type SubjectToLoad, readDesign } from './read-design.ts';
import { wrongSubjects } from './subjects-before.ts';
import { readEntries } from './read-entries.ts';
import { type GivenPicks, type PickToLoad, readPicks } from './read-picks.ts';
import { readStarters } from './read-starters.ts';
import { dataFile, listFiles } from './read-folder.ts';
import { mediaOverTime } from './media-before.ts';
import { type MediaFiles, type ReadMedia, readMediaFiles } from './read-media.ts';

/** A site folder, read and checked whole. */
export interface SiteToLoad {
  design: Design;
  subjects: SubjectToLoad[];
  picks: PickToLoad[];
  entries: EntryToLoad[];
  /** What new entries can begin with. */
  starters: StarterToLoad[];
  media: ReadMedia[];
  /** Where the site was saved: its past, its people, its bench. */
  history: SavedHistory | null;
  /** What loads all the same, and is hardly meant. */
  findings: Issue[];
}

/**
 * Reads a site folder. `site` is null where anything is wrong; then every problem is named by
 * file and line.
 */
export async function readSite(
  folder: string,
  now: Instant,
): Promise<{ site: SiteToLoad | null; issues: Issue[] }> {
  if (!existsSync(folder) || !statSync(folder).isDirectory())
    return { site: null, issues: [noFolder(folder)] };
  const { files, issues: stray } = listFiles(folder);
  const { design, subjects, picks: ownPicks, issues, locate } = readDesign(folder, files);
  const given = await readMediaFiles(folder, files);
  const all = [...stray, ...issues, ...doubledSubjects(subjects), ...given.issues];
  if (!design) {
    all.push(...readContent(folder, files, null).unread, ...strayFiles(files));
    return { site: null, issues: all };
  }
  const { history, issues: wrongHistory } = readHistory(folder, files, design);
  const { media, pictures, known, issues: wrongMedia } = mediaEver(given, history);
  const reader = new EntryReader(design, subjects, known, now, history);
  const { entries, starters, unread } = readContent(folder, files, reader);
  all.push(...unread, ...strayFiles(files), ...compileSite(design).issues.map(locate));
  all.push(...wrongHistory, ...wrongMedia, ...(history ? aheadOf(history, now) : []));
  if (history) all.push(...wrongSubjects(design, subjects, history));
  reader.checkTogether();
  all.push(...reader.issues, ...frontEntryIssues(design, entries, history).map(locate));
  all.push(...sharePictureIssues(design, pictures).map(locate));
  all.push(...pinIssues(design, entries, history).map(locate));
  all.push(...fontIssues(design, files).map(locate));
  all.push(...subjectPictureIssues(subjects, pictures));
  const { picks, issues: wrongPicks } = readPicks([...ownPicks, ...picksBefore(history)], {
    entries: new Set(entries.map((e) => e.id)),
    ...{ now, zone: design.site.zone },
  });
  all.push(...wrongPicks.map(locate));
  if (all.length > 0) return { site: null, issues: all };
  const { findings } = reader;
  const content = { subjects, picks, entries, starters, media };
  return { site: { design, ...content, history, findings }, issues: [] };
}

/** What a folder has of entries and starters; what is wrong with their files is `unread`. */
function readContent(folder: string, files: string[], reader: EntryReader | null) {
  const entries: EntryToLoad[] = [];
  const starters: StarterToLoad[] = [];
  const unread = [
    ...readEntries(folder, files, (raw) => {
      const entry = reader?.read(raw);
      if (entry) entries.push(entry);
    }),
    ...readStarters(folder, files, (raw) => {
      const starter = reader?.readStarter(raw);
      if (starter) starters.push(starter);
    }),
  ];
  return { entries, starters, unread };
}

/**
 * All media over time, the names of the pictures of now, and what is known of each by its name:
 * what was written of one that is gone stands in earlier versions.
 */
function mediaEver(given: MediaFiles, history: SavedHistory | null) {
  const { media, issues } = history
    ? mediaOverTime(given, history)
    : { media: given.media, issues: [] };
  const pictures = new Set(given.media.filter(isPicture).map(({ id }) => id));
  const known = new Map([...media, ...given.media].map((m) => [m.id, m]));
  return { media, pictures, known, issues };
}

/** Picks that the design of now does not have, with who stood in them. */
function picksBefore(history: SavedHistory | null): GivenPicks[] {
  const place = (): string => 'history.yaml';
  return (history?.picks ?? []).map(({ picks: id, members }) => ({ id, members, place }));
}

/** How far a clock may be behind that of the machine a site was saved on, ms. */
const MAX_CLOCK_LAG_MS = 60_000;

function aheadOf({ until }: SavedHistory, now: Instant): Issue[] {
  if (until <= now + MAX_CLOCK_LAG_MS) return [];
  return [
    {
      code: 'ahead-of-clock',
      path: 'history.yaml',
      line: 1,
      message: `The site was changed at ${new Date(until).toISOString()}, and this machine's clock says ${new Date(now).toISOString()}.`,
      fix: 'Set the clock right.',
    },
  ];
}

function noFolder(path: string): Issue {
  return {
    code: 'no-folder',
    path,
    message: 'There is no such folder.',
    fix: 'Name a folder with a site.yaml in it.',
  };
}

/** What was chosen for the front may have been purged since. */
function frontEntryIssues(
  { site: { front } }: Design,
  entries: EntryToLoad[],
  history: SavedHistory | null,
): Issue[] {
  if (!front || !('entry' in front)) return [];
  if ([...entries, ...(history?.purged ?? [])].some((e) => e.id === front.entry)) return [];
  const ids = entries.map((e) => e.id);
  return [unknownName('site/front', `There is no entry "${front.entry}".`, front.entry, ids)];
}

/** Entries that stand first in listings and are not there; what was purged since may be named. */
function pinIssues(
  { listings }: Design,
  entries: EntryToLoad[],
  history: SavedHistory | null,
): Issue[] {
  const ids = new Set([...entries, ...(history?.purged ?? [])].map((e) => e.id));
  return listings.flatMap(({ key, pins = [] }) =>
    pins.flatMap(({ entry }, i) =>
      ids.has(entry)
        ? []
        : [
            unknownName(
              `listings/${key}/pins/${i + 1}/entry`,
              `There is no entry "${entry}".`,
              entry,
              [...ids],
            ),
          ],
    ),
  );
}

function sharePictureIssues(
  { site: { sharePicture: id } }: Design,
  pictures: Set<string>,
): Issue[] {
  if (id === undefined || pictures.has(id)) return [];
  return [unknownName('site/sharePicture', `There is no picture "${id}".`, id, [...pictures])];
}

/** Fonts that the look names and the folder does not have. */
function fontIssues({ look }: Design, files: readonly string[]): Issue[] {
  const there = files.flatMap((file) => (file.startsWith('style/') ? [file.slice(6)] : []));
  return (look?.fonts ?? []).flatMap(({ file }) =>
    there.includes(file)
      ? []
      : [unknownName('style/look', `There is no font "style/${file}".`, file, there)],
  );
}

function subjectPictureIssues(subjects: SubjectToLoad[], pictures: Set<string>): Issue[] {
  return subjects.flatMap(({ set, name, picture }) =>
    picture === null || pictures.has(picture)
      ? []
      : [
          {
            ...unknownName('', `${name} has a picture "${picture}", which is not there.`, picture, [
              ...pictures,
            ]),
            path: `subjects/${set}.yaml`,
            line: 1,
          },
        ],
  );
}

function doubledSubjects(subjects: SubjectToLoad[]): Issue[] {
  const seen = new Set<string>();
  return subjects.flatMap((s) => {
    const again = seen.has(`${s.set}/${s.key}`);
    seen.add(`${s.set}/${s.key}`);
    return again
      ? [
          {
            code: 'doubled-key',
            path: `subjects/${s.set}.yaml`,
            line: 1,
            message: `The subject "${s.key}" stands twice in "${s.set}".`,
            fix: 'Give each a key of its own.',
          },
        ]
      : [];
  });
}

/** Files of which there is one each, whichever ending of YAML they have. */
const LONE = ['site', 'redirects', 'order', 'look', 'style', 'styles', 'media/alt'];
const KNOWN =
  /^((history|bench)\.yaml|style\.css|README\.md|(types|listings|templates|text-forms|languages|subjects|picks|entries|starters|media|style|releases|history|sources)\/.+)$/;

function strayFiles(files: string[]): Issue[] {
  const stray = (path: string, message: string, fix: string): Issue => ({
    ...{ code: 'unknown-file', path, line: 1, message, fix },
  });
  return files.flatMap((path) => {
    const name = LONE.find((lone) => dataFile([path], lone));
    const read = name && dataFile(files, name)!;
    if (read && read !== path)
      return stray(path, `What it says stands in ${read}.`, 'Keep one of them.');
    if (read || KNOWN.test(path)) return [];
    const fix = 'Move it into entries/, media/ or style/, or out of the folder.';
    return stray(path, 'A site folder has no place for this file.', fix);
  });
}
