import { join } from 'node:path';
import { z } from 'zod';
import { type Issue, type Result, ok } from '@/core/issue.ts';
import { type AboutMedia, type Media, UNTOLD } from '@/core/design/values.ts';
import { mediaWordsByTag } from '@/core/design/media-words.ts';
import { BEGINNING, type Instant } from '@/core/time/interval.ts';
import { type PreparedFile, prepareFile } from './media/prepare.ts';
import { prepareFont } from './media/prepare-font.ts';
import { scratchFolder } from './media/scratch.ts';
import { readAs } from './read-as.ts';
import { dataFile } from './read-folder.ts';

/** A file of the site over a stretch of time, with where it lies on disk. */
export interface ReadMedia extends Media {
  bytes: number;
  source: string;
  from: Instant;
  /** Null where it is so now. */
  to: Instant | null;
  author: string | null;
}

/** What the folder says of its media: the files of now, and those that history.yaml names. */
export interface MediaFiles {
  media: ReadMedia[];
  /** Every file by its path in the folder. */
  byPath: ReadonlyMap<string, PreparedFile>;
  issues: Issue[];
}

const ABOUT = 'media/alt';
const percent = z.number().min(0).max(100);

/** What is said of a medium, as files have it: the alternative text alone, or more. */
export const aboutMedia = z.union([
  z.string().max(2000),
  z.strictObject({
    alt: z.string().max(2000).optional(),
    decorative: z.boolean().optional(),
    caption: z.string().max(2000).optional(),
    credit: z.string().max(500).optional(),
    /** Where what matters lies, in per cent from the left and the top. */
    focus: z.tuple([percent, percent]).optional(),
    /** What further languages say, by their tags. */
    languages: mediaWordsByTag.optional(),
  }),
]);
/** The file that says it, by the names of the media. */
export const aboutFile = z.record(z.string(), aboutMedia).nullable();

/** What is said of a medium, whole. */
export function aboutOf(given: z.output<typeof aboutMedia> | undefined): AboutMedia {
  if (given === undefined) return UNTOLD;
  if (typeof given === 'string') return { ...UNTOLD, alt: given };
  const { focus, alt, decorative, caption, credit, languages } = given;
  const [focusX, focusY] = (focus ?? [UNTOLD.focusX, UNTOLD.focusY]).map(Math.round);
  return {
    alt: alt ?? '',
    decorative: decorative ?? false,
    caption: caption ?? '',
    credit: credit ?? '',
    focusX: focusX!,
    focusY: focusY!,
    languages: languages ?? {},
  };
}

/** Reads the files of `media/` and `history/`, told by their content, and those of `style/`. */
export async function readMediaFiles(folder: string, files: string[]): Promise<MediaFiles> {
  const { abouts, issues } = readAbouts(folder, files);
  const byPath = new Map<string, PreparedFile>();
  const media: ReadMedia[] = [];
  for (const path of files.filter((f) => isMedia(f) || f.startsWith('history/'))) {
    const read = await prepareFile(join(folder, path), scratchFolder(), path);
    if (!read.ok) issues.push(...read.issues);
    else byPath.set(path, read.value);
  }
  for (const [path, file] of byPath)
    if (isMedia(path)) media.push(current(nameOf(path), file, abouts[nameOf(path)]));
  for (const file of files.filter((f) => f.startsWith('style/'))) {
    const read = await styleFile(folder, file);
    if (!read.ok) issues.push(...read.issues);
    else media.push(read.value);
  }
  for (const name of Object.keys(abouts))
    if (!files.includes(`media/${name}`))
      issues.push({
        code: 'unknown-file',
        path: dataFile(files, ABOUT)!,
        line: 1,
        message: `There is no picture "${name}".`,
        fix: 'Add it below media/, or take the line out.',
      });
  return { media, byPath, issues };
}

const isMedia = (path: string): boolean =>
  path.startsWith('media/') && dataFile([path], ABOUT) === undefined;
const nameOf = (path: string): string => path.slice('media/'.length);

function current(
  id: string,
  { path, ...file }: PreparedFile,
  about: z.output<typeof aboutMedia> | undefined,
): ReadMedia {
  const now = { from: BEGINNING, to: null, author: null };
  return { id, ...file, ...aboutOf(about), source: path, ...now };
}

function readAbouts(
  folder: string,
  files: string[],
): { abouts: NonNullable<z.output<typeof aboutFile>>; issues: Issue[] } {
  const file = dataFile(files, ABOUT);
  if (file === undefined) return { abouts: {}, issues: [] };
  const { value, issues } = readAs(folder, file, aboutFile);
  return { abouts: value ?? {}, issues };
}

/** A font of the site's own, as it is now. */
async function styleFile(folder: string, file: string): Promise<Result<ReadMedia>> {
  const prepared = await prepareFont(join(folder, file), file);
  if (!prepared.ok) return prepared;
  const { font: _, ...kept } = prepared.value;
  return ok(current(file, kept, undefined));
}
