/** What the demo says: the files of content/, read. All of it is invented. */
import { readdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { parse } from 'yaml';
import type { Variety } from './variety.ts';

const folder = fileURLToPath(new URL('content/', import.meta.url));
const read = (file: string): unknown => parse(readFileSync(folder + file, 'utf8'));

/** `live` in a file: for so many days, or intervals as a site folder has them. */
type Live = number | string | string[];

/** An id out of a title. */
const idOf = (title: string): string =>
  title
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');

function livedFrom(live: Live): string[] {
  return typeof live === 'number' ? [`today - P${live}D at 08:00/`] : [live].flat();
}

/** A list of things that have been public since then, with ids where the file gives none. */
function entriesOf<T>(file: string): T[] {
  return (read(file) as { id?: string; title?: string; name?: string; live?: Live }[]).map(
    (entry) => ({
      ...entry,
      id: entry.id ?? idOf(entry.title ?? entry.name ?? ''),
      live: livedFrom(entry.live ?? 335),
    }),
  ) as T[];
}

interface Named {
  id: string;
  name: string;
  live: string[];
}
interface Titled {
  id: string;
  title: string;
  live: string[];
}
/** A tag, or a category with those below it. */
export interface Subject {
  key: string;
  name: string;
  below?: Subject[];
}

export const FAMILIES = read('families.yaml') as Subject[];
export const TRAITS = read('traits.yaml') as Subject[];
export const TOPICS = read('topics.yaml') as Subject[];
export const VILLAGES = entriesOf<Named>('villages.yaml');
export const GROWERS = entriesOf<Named & { village: string; since: string; bio: string }>(
  'growers.yaml',
);
export const VARIETIES = readdirSync(`${folder}varieties`).flatMap((file) =>
  entriesOf<Variety>(`varieties/${file}`),
);
export const GUIDES = entriesOf<
  Titled & { summary?: string; topic: string; varieties: string[]; body: string }
>('guides.yaml');
export const SWAP_DAYS = entriesOf<
  Titled & { starts: string; ends: string; place: string; text: string; places: number }
>('swap-days.yaml');
export const NOTICES = entriesOf<Titled & { text: string; urgency: number }>('notices.yaml');
export const PAGES = entriesOf<Titled & { body: string; within: string | null }>('pages.yaml');
/** What is chosen by hand, in its order. */
export const PICKS = read('picks.yaml') as { key: string }[];
