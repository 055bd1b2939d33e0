import { randomUUID } from 'node:crypto';
import { existsSync, readdirSync, rmSync, statSync } from 'node:fs';
import { mkdir, open } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { type Issue, type Result, ok, refused } from '@/core/issue.ts';
import { placeIn } from './place.ts';
import { type Unpacking, unzip } from './unzip.ts';

/** What one upload, or one archive, may come to. */
export const BOUNDS = { files: 200_000, bytes: 1024 ** 3 };
/** An upload nobody goes on with is thrown away after so long, ms. */
const IDLE_MS = 3_600_000;
const ARCHIVE = '.archive.zip';

interface Upload {
  folder: string;
  files: number;
  bytes: number;
  used: number;
}

/** A part of a file, as a browser sends it. */
export interface Piece {
  /** Path of the file in its folder, with "/"; null for a ZIP archive of it. */
  name: string | null;
  /** Where in the file it goes, in bytes; pieces come in order. */
  offset: number;
  content: Uint8Array;
}

/** Site folders that are being sent from browsers; they lie beside the site until loaded. */
export class Uploads {
  private readonly root: string;
  private readonly open = new Map<string, Upload>();

  /** Keeps them below the data folder; what a former process left there is thrown away. */
  constructor(dataFolder: string) {
    this.root = join(dataFolder, 'uploads');
    rmSync(this.root, { recursive: true, force: true });
  }

  /** Begins one; gives the id by which pieces are added. */
  begin(): string {
    const now = Date.now();
    for (const [id, { used }] of this.open) if (now - used > IDLE_MS) this.discard(id);
    const id = randomUUID();
    this.open.set(id, { folder: join(this.root, id), files: 0, bytes: 0, used: now });
    return id;
  }

  /** Puts pieces where they belong; refused, by name, where one may not be there. */
  async add(id: string, pieces: readonly Piece[]): Promise<Result<null>> {
    const upload = this.open.get(id);
    if (!upload) return refused(GONE);
    upload.used = Date.now();
    for (const piece of pieces) {
      upload.files += piece.offset === 0 ? 1 : 0;
      upload.bytes += piece.content.length;
      if (upload.files > BOUNDS.files || upload.bytes > BOUNDS.bytes) return refused(TOO_LARGE);
      const put = await putPiece(upload.folder, piece);
      if (!put.ok) return put;
    }
    return ok(null);
  }

  /** The folder of the site in what was sent, an archive unpacked. */
  async folder(id: string, how: Unpacking): Promise<Result<string>> {
    const upload = this.open.get(id);
    if (!upload) return refused(GONE);
    upload.used = Date.now();
    const archive = join(upload.folder, ARCHIVE);
    if (existsSync(archive)) {
      const unpacked = await unzip(archive, upload.folder, BOUNDS, how);
      // What was unpacked so far would stand in the way of doing it again.
      if (!unpacked.ok) {
        this.discard(id);
        return unpacked;
      }
      rmSync(archive);
    }
    return existsSync(upload.folder) ? ok(siteIn(upload.folder)) : refused(EMPTY);
  }

  /** Throws one away with its files. */
  discard(id: string): void {
    const upload = this.open.get(id);
    this.open.delete(id);
    if (upload) rmSync(upload.folder, { recursive: true, force: true });
  }
}

const GONE: Issue = {
  code: 'upload-gone',
  message: 'What was sent is not here any more.',
  fix: 'Choose the folder again.',
};

const EMPTY: Issue = {
  code: 'empty-folder',
  message: 'There is no file in what was sent.',
  fix: 'Choose the folder that holds the site.',
};

const OUT_OF_ORDER: Issue = {
  code: 'out-of-order',
  message: 'A part of a file is missing.',
  fix: 'Choose the folder again.',
};

const TOO_LARGE: Issue = {
  code: 'too-large',
  message: `A site that is loaded here holds at most ${BOUNDS.files} files and 1024 MB.`,
  fix: 'Load it with `bontel load FOLDER`.',
};

async function putPiece(folder: string, { name, offset, content }: Piece): Promise<Result<null>> {
  const place = name === null ? ok(join(folder, ARCHIVE)) : placeIn(folder, name);
  if (!place.ok) return place;
  if (place.value === null) return ok(null);
  try {
    await mkdir(dirname(place.value), { recursive: true });
    const file = await open(place.value, offset === 0 ? 'wx' : 'a');
    try {
      if ((await file.stat()).size !== offset) return refused(OUT_OF_ORDER);
      await file.appendFile(content);
    } finally {
      await file.close();
    }
    return ok(null);
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    const message = `"${name ?? 'The archive'}" cannot be kept: ${code ?? 'unknown reason'}.`;
    const fix = 'See that no two files have the same name, and that there is room on the disk.';
    return refused({ code: 'not-kept', message, fix, ...(name === null ? {} : { path: name }) });
  }
}

/** Where the site begins: in the one folder that holds it, where it was sent with that. */
function siteIn(folder: string): string {
  const names = readdirSync(folder).filter((name) => !name.startsWith('.'));
  const only = names.length === 1 ? join(folder, names[0]!) : null;
  return only !== null && statSync(only).isDirectory() ? siteIn(only) : folder;
}
