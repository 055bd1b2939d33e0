import { mkdirSync, rmSync, statSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import { FORMAT_NAMES, MEDIA_FORMATS } from '@/core/design/media-formats.ts';
import { Look, type Seen } from '@/core/intake/look.ts';
import type { Issue } from '@/core/issue.ts';
import { Stage } from '../db/stage.ts';
import { prepareFile } from '../files/media/prepare.ts';
import { listFiles } from '../files/read-folder.ts';
import { holdsRecords, readRecords } from '../files/records.ts';

/** What a folder from elsewhere holds. */
export interface Staged {
  seen: Seen;
  /** Pictures and other files that records may show. */
  files: number;
  /** What could not be read, the first of it. */
  issues: Issue[];
}

/** Who hears how far reading is, and what ends it early. */
interface Staging {
  tell?: (step: string) => void;
  signal?: AbortSignal;
}

const BATCH = 1000;
const MOST_ISSUES = 1000;
const ENDINGS = new Set<string>([
  ...FORMAT_NAMES.map((name) => MEDIA_FORMATS[name].ending),
  'jpeg',
]);

/**
 * Reads what other tools made, once, into a file beside the site (`place`, made anew): its records
 * one by one, its pictures made fit to be kept. However many there are, one is held at once.
 * `from` is a folder or a file of records. @throws AbortError where it is ended
 */
export async function stageFolder(from: string, place: string, how: Staging = {}): Promise<Staged> {
  rmSync(place, { recursive: true, force: true });
  mkdirSync(join(place, 'files'), { recursive: true });
  const isFile = statSync(from).isFile();
  const folder = isFile ? dirname(from) : from;
  const { files, issues } = isFile ? { files: [basename(from)], issues: [] } : listFiles(from);
  const stage = new Stage(stageFile(place));
  try {
    const seen = await stageRecords(stage, { folder, files, issues }, how);
    const media = files.filter((file) => ENDINGS.has(endingOf(file)));
    await stageMedia(stage, { folder, files: media, issues, place }, how);
    return { seen, files: media.length, issues: issues.slice(0, MOST_ISSUES) };
  } finally {
    stage.close();
  }
}

/** The file that what was sent is read into, below its place. */
export function stageFile(place: string): string {
  return join(place, 'stage.db');
}

interface Sent {
  folder: string;
  files: readonly string[];
  issues: Issue[];
}

async function stageRecords(
  stage: Stage,
  { folder, files, issues }: Sent,
  { tell, signal }: Staging,
): Promise<Seen> {
  const look = new Look();
  let count = 0;
  stage.begin();
  for await (const read of readRecords(folder, files.filter(holdsRecords))) {
    if ('issue' in read) {
      issues.push(read.issue);
      continue;
    }
    look.add(read.record);
    stage.add(read.record);
    if ((count += 1) % BATCH !== 0) continue;
    stage.commit();
    signal?.throwIfAborted();
    tell?.(`Reading: ${count.toLocaleString('en')} records`);
    stage.begin();
  }
  stage.commit();
  signal?.throwIfAborted();
  return look.seen();
}

async function stageMedia(
  stage: Stage,
  { folder, files, issues, place }: Sent & { place: string },
  { tell, signal }: Staging,
): Promise<void> {
  for (const [i, path] of files.entries()) {
    signal?.throwIfAborted();
    if (i % 20 === 0) tell?.(`Looking at files: ${i} of ${files.length}`);
    const prepared = await prepareFile(join(folder, path), join(place, 'files'), path);
    if (!prepared.ok) issues.push(...prepared.issues);
    else {
      const { path: file, ...about } = prepared.value;
      stage.addFile({ path, file, ...about });
    }
  }
}

function endingOf(file: string): string {
  return /\.([a-z]+)$/i.exec(file)?.[1]?.toLowerCase() ?? '';
}
