import { join } from 'node:path';
import { MEDIA_FORMATS, formatOf } from '@/core/design/media-formats.ts';
import { type AboutMedia, UNTOLD } from '@/core/design/values.ts';
import { BEGINNING } from '@/core/time/interval.ts';
import type { MediaRow } from '../store/media.ts';
import { iso } from './history-files.ts';
import type { SavedFile } from './saved-file.ts';
import { yamlText } from './yaml-text.ts';

/** Media and fonts of now under their names, what is said of them, and the files that were. */
export function* mediaFiles(all: readonly MediaRow[], dataFolder: string): Generator<SavedFile> {
  const copyOf = (hash: string): SavedFile['content'] => ({
    copyOf: join(dataFolder, 'media', hash),
  });
  const now = all.filter(({ ends }) => ends === null);
  for (const { id, hash } of now)
    yield { path: id.startsWith('style/') ? id : `media/${id}`, content: copyOf(hash) };
  const abouts = now.flatMap((row) => {
    const about = aboutOf(row);
    const { alt } = about;
    if (Object.keys(about).length === 0) return [];
    return [[row.id, alt !== undefined && Object.keys(about).length === 1 ? alt : about] as const];
  });
  if (abouts.length > 0)
    yield { path: 'media/alt.yaml', content: yamlText(Object.fromEntries(abouts)) };
  const files = placesOf(all);
  for (const [hash, path] of new Map(before(all).map(({ hash }) => [hash, files.get(hash)!])))
    if (path.startsWith('history/')) yield { path, content: copyOf(hash) };
}

/** What history.yaml says of media: how they were before, and since when they are as they are. */
export function mediaHistory(all: readonly MediaRow[]): object {
  const files = placesOf(all);
  const media = before(all).map((row) => ({
    id: row.id,
    file: files.get(row.hash)!,
    ...(row.starts === BEGINNING ? {} : { from: iso(row.starts) }),
    to: iso(row.ends!),
    ...aboutOf(row),
    ...by(row),
  }));
  const since = all
    .filter(({ ends, starts }) => ends === null && starts !== BEGINNING)
    .map((row) => ({ id: row.id, from: iso(row.starts), ...by(row) }));
  return {
    ...(media.length > 0 ? { media } : {}),
    ...(since.length > 0 ? { mediaSince: since } : {}),
  };
}

const before = (all: readonly MediaRow[]): MediaRow[] => all.filter(({ ends }) => ends !== null);

/** Where each file stands in the folder, by its hash: among those of now, else in the history. */
function placesOf(all: readonly MediaRow[]): Map<string, string> {
  const places = new Map<string, string>();
  for (const { hash, mime } of before(all)) {
    const format = formatOf(mime);
    places.set(hash, `history/${hash}.${format ? MEDIA_FORMATS[format].ending : 'bin'}`);
  }
  for (const { id, hash, ends } of all)
    if (ends === null && !id.startsWith('style/')) places.set(hash, `media/${id}`);
  return places;
}

function by({ author }: MediaRow): object {
  return author === null ? {} : { author };
}

/** What is said of a medium, without what is not said. */
function aboutOf(row: MediaRow): Partial<Omit<AboutMedia, 'focusX' | 'focusY'>> & {
  focus?: [number, number];
} {
  const { alt, decorative, caption, credit, focusX, focusY, languages } = row;
  const isCentred = focusX === UNTOLD.focusX && focusY === UNTOLD.focusY;
  return {
    ...(alt === '' ? {} : { alt }),
    ...(decorative ? { decorative } : {}),
    ...(caption === '' ? {} : { caption }),
    ...(credit === '' ? {} : { credit }),
    ...(isCentred ? {} : { focus: [focusX, focusY] }),
    ...(Object.keys(languages).length > 0 ? { languages } : {}),
  };
}
