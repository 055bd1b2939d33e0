import type { Auth } from './auth.ts';
import type { Keys } from '../db/keys.ts';
import type { People } from '../db/people.ts';
import type { Traffic } from '../db/traffic.ts';
import type { WorkingCopies } from '../db/working-copies.ts';
import type { SiteView } from '../queries/site-view.ts';
import type { Presence } from './presence.ts';
import type { ReaderThread } from './reader-thread.ts';
import type { FolderLoads } from './folder-loads.ts';
import type { LongWrites } from './long-writes.ts';
import type { MediaUploads } from '../uploads/media-uploads.ts';
import type { Uploads } from '../uploads/uploads.ts';
import type { BringIns } from './bring-ins.ts';
import type { Saver } from './save-thread.ts';
import type { WriterThread } from './writer-thread.ts';

/** What the one process shares: readers, the writer, sign-in. */
export interface Container {
  view: SiteView;
  writer: WriterThread;
  /** Answers the screens' queries, so that public pages never wait for them. */
  reader: ReaderThread;
  /** Compares whole sites, which may take long, so that screens never wait for it. */
  comparer: ReaderThread;
  /** Carries out commands that may concern many entries. */
  long: LongWrites;
  /** Saves the site for downloads. */
  saver: Saver;
  /** Loads site folders, the demo among them. */
  loads: FolderLoads;
  /** Site folders that browsers send. */
  uploads: Uploads;
  /** Content from elsewhere that is about to be brought in. */
  bringIns: BringIns;
  /** Files on their way into the media. */
  incoming: MediaUploads;
  /** What people have written and not saved. */
  copies: WorkingCopies;
  /** What visitors ask for in vain, and which redirects lead them on. */
  traffic: Traffic;
  /** Who may sign in. */
  people: People;
  /** Keys that programs sign in with. */
  keys: Keys;
  /** Who has which entry open. */
  presence: Presence;
  /** Ready once the sign-in library has been loaded. */
  auth: Promise<Auth>;
  /** Scheme, host and port the builder is used at. */
  baseUrl: string;
}

const KEY = Symbol.for('bontel');
type Holder = { [KEY]?: Container };

/** Puts the container where every bundled copy of this module finds it. */
export function setContainer(container: Container): void {
  (globalThis as Holder)[KEY] = container;
}

/** The process's container. @throws where main.ts has not started it */
export function container(): Container {
  const found = (globalThis as Holder)[KEY];
  if (!found)
    throw new Error(
      'The builder runs inside the server process only; start it with npm run demo or npm run dev.',
    );
  return found;
}
