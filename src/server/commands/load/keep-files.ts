import { copyFileSync, existsSync, mkdirSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import type { ReadMedia } from '../../files/read-media.ts';

/** Copies files under their hash; a file that is there already is the same file. */
export function keepFiles(dataFolder: string, media: ReadMedia[]): void {
  const folder = join(dataFolder, 'media');
  mkdirSync(folder, { recursive: true });
  for (const { hash, source } of media) {
    const target = join(folder, hash);
    if (existsSync(target)) continue;
    try {
      copyFileSync(source, `${target}.new`);
      renameSync(`${target}.new`, target);
    } catch (error) {
      rmSync(`${target}.new`, { force: true });
      throw error;
    }
  }
}
