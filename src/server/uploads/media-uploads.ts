import { randomUUID } from 'node:crypto';
import { existsSync, mkdirSync, rmSync } from 'node:fs';
import { mkdir, open, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import pLimit, { type LimitFunction } from 'p-limit';
import { type Issue, type Result, ok, refused } from '@/core/issue.ts';
import { MOST_BYTES, type PreparedFile, prepareFile } from '../files/media/prepare.ts';
import { type PreparedFont, prepareFont } from '../files/media/prepare-font.ts';

/** A file that a browser sends, piece by piece. */
interface MediaUpload {
  person: string;
  name: string;
  size: number;
  file: string;
  used: number;
  /** One thing at a time is done with it. */
  turn: LimitFunction;
}

/** A file that is kept, and the name it was sent by. */
interface Finished<File> {
  name: string;
  file: File;
}

/** Looks at what has arrived, under the name it was sent by, and says what is to be kept. */
type Prepare<File extends PreparedFile> = (path: string, name: string) => Promise<Result<File>>;

/** Uploads that nobody goes on with are thrown away after so long, ms; each may have so many. */
const IDLE_MS = 24 * 3_600_000;
const MOST_OPEN = 500;

/**
 * Files on their way into the media. What has arrived stays, so that sending can go on where it
 * was broken off, as long as the process lives.
 */
export class MediaUploads {
  private readonly root: string;
  private readonly open = new Map<string, MediaUpload>();
  private readonly twoAtOnce = pLimit(2);

  /** Keeps them below the data folder; what a former process left there is thrown away. */
  constructor(private readonly data: string) {
    this.root = join(data, 'incoming');
    rmSync(this.root, { recursive: true, force: true });
  }

  /** Begins one for a person; `size` in bytes. Gives the id by which pieces are added. */
  begin(person: string, { name, size }: { name: string; size: number }): Result<string> {
    if (size > MOST_BYTES) return refused(tooLarge(name, size));
    if (size === 0) return refused(issue(name, 'The file is empty.', 'Choose another.'));
    this.dropIdle();
    const own = [...this.open.values()].filter((upload) => upload.person === person);
    if (own.length >= MOST_OPEN)
      return refused(issue(name, 'Too many files are being sent.', 'Wait until some are done.'));
    const id = randomUUID();
    mkdirSync(this.root, { recursive: true });
    const file = join(this.root, id);
    this.open.set(id, { person, name, size, file, used: Date.now(), turn: pLimit(1) });
    return ok(id);
  }

  /** How many bytes have arrived; refused where nothing is known of it. */
  async received(person: string, id: string): Promise<Result<{ received: number }>> {
    const upload = this.find(person, id);
    if (!upload) return refused(GONE);
    return upload.turn(async () => ok({ received: await sizeOf(upload.file) }));
  }

  /** Adds a piece at an offset (bytes), which is where the one before ended. */
  async add(
    person: string,
    id: string,
    { offset, content }: { offset: number; content: Uint8Array },
  ): Promise<Result<{ received: number }>> {
    const upload = this.find(person, id);
    if (!upload) return refused(GONE);
    upload.used = Date.now();
    return upload.turn(() => append(upload, offset, content));
  }

  /**
   * Looks at a file that has arrived whole and keeps it in the data folder, under its hash; refused
   * where it is none that can be kept. The upload is over then.
   */
  finish(person: string, id: string): Promise<Result<Finished<PreparedFile>>> {
    return this.end(person, id, (path, name) => prepareFile(path, this.root, name));
  }

  /** The same of a font. */
  finishFont(person: string, id: string): Promise<Result<Finished<PreparedFont>>> {
    return this.end(person, id, prepareFont);
  }

  private async end<File extends PreparedFile>(
    person: string,
    id: string,
    prepare: Prepare<File>,
  ): Promise<Result<Finished<File>>> {
    const upload = this.find(person, id);
    if (!upload) return refused(GONE);
    const { name, size, file } = upload;
    const done = await upload.turn(async (): Promise<Result<File>> => {
      if ((await sizeOf(file)) !== size) return refused(INCOMPLETE);
      return this.twoAtOnce(() => keptOf(upload, this.data, prepare));
    });
    if (!done.ok && done.issues[0]?.code === 'not-kept') return done; // to be tried again
    if (!done.ok && done.issues[0] === INCOMPLETE) return done;
    this.discard(person, id);
    return done.ok ? ok({ name, file: done.value }) : done;
  }

  /** Throws one away with what has arrived of it. */
  discard(person: string, id: string): void {
    const upload = this.find(person, id);
    if (!upload) return;
    this.open.delete(id);
    rmSync(upload.file, { force: true });
  }

  private find(person: string, id: string): MediaUpload | null {
    const found = this.open.get(id);
    return found?.person === person ? found : null;
  }

  private dropIdle(): void {
    const now = Date.now();
    for (const [id, { person, used }] of this.open)
      if (now - used > IDLE_MS) this.discard(person, id);
  }
}

async function append(
  { file: path, name, size }: MediaUpload,
  offset: number,
  content: Uint8Array,
): Promise<Result<{ received: number }>> {
  if (offset + content.length > size) return refused(tooMuch(name));
  try {
    const file = await open(path, 'a');
    try {
      const received = (await file.stat()).size;
      if (received !== offset) return ok({ received }); // sent twice, or one is missing
      try {
        await file.appendFile(content);
      } catch (error) {
        await file.truncate(offset).catch(() => undefined); // half a piece is not gone on with
        throw error;
      }
    } finally {
      await file.close();
    }
    return ok({ received: offset + content.length });
  } catch (error) {
    return refused(notKept(name, error));
  }
}

/** What is kept of an upload: moved, or made of it, under its hash. */
async function keptOf<File extends PreparedFile>(
  { file, name }: MediaUpload,
  data: string,
  prepare: Prepare<File>,
): Promise<Result<File>> {
  try {
    const prepared = await prepare(file, name);
    if (!prepared.ok) return prepared;
    const { path, hash } = prepared.value;
    const folder = join(data, 'media');
    await mkdir(folder, { recursive: true });
    const target = join(folder, hash);
    if (existsSync(target)) await rm(path, { force: true });
    else {
      await toDisk(path);
      await rename(path, target);
    }
    return ok({ ...prepared.value, path: target });
  } catch (error) {
    return refused(notKept(name, error));
  }
}

/** Waits until a file is on the disk: what a row says is there must be there after a power cut. */
async function toDisk(path: string): Promise<void> {
  const file = await open(path, 'r+');
  try {
    await file.sync();
  } finally {
    await file.close();
  }
}

async function sizeOf(path: string): Promise<number> {
  return (await stat(path).catch(() => null))?.size ?? 0;
}

const GONE: Issue = {
  code: 'upload-gone',
  message: 'What was sent is not here any more.',
  fix: 'Send it again.',
};

const INCOMPLETE: Issue = {
  code: 'incomplete',
  message: 'A part of the file is missing.',
  fix: 'Go on sending.',
};

function issue(name: string, message: string, fix: string): Issue {
  return { code: 'refused-file', path: name, message, fix };
}

function tooLarge(name: string, size: number): Issue {
  const shown = Math.ceil(size / 1024 ** 2).toLocaleString('en');
  const most = MOST_BYTES / 1024 ** 2;
  return issue(name, `The file has ${shown} MB; one may have ${most} MB.`, 'Make it smaller.');
}

function tooMuch(name: string): Issue {
  return issue(name, 'More was sent than the file was said to have.', 'Send it again.');
}

function notKept(name: string, error: unknown): Issue {
  const { code = 'unknown reason' } = error as NodeJS.ErrnoException;
  const isFull = code === 'ENOSPC' || code === 'EDQUOT';
  return {
    code: 'not-kept',
    path: name,
    message: isFull
      ? 'The server’s disk is full; nothing was changed.'
      : `The file cannot be kept on the server (${code}); nothing was changed.`,
    fix: 'Sending goes on from where it stopped, once there is room.',
  };
}
