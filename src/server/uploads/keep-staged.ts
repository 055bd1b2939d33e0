import { copyFile, mkdir, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { Stage } from '../db/stage.ts';

/** Keeps the pictures of what was sent in a data folder, under their hashes. @throws where it cannot */
export async function keepStaged(stageFile: string, dataFolder: string): Promise<void> {
  const stage = new Stage(stageFile);
  const files = stage.files();
  stage.close();
  const folder = join(dataFolder, 'media');
  await mkdir(folder, { recursive: true });
  for (const { file, hash } of files) {
    const target = join(folder, hash);
    if (await stat(target).catch(() => null)) continue;
    try {
      await copyFile(file, `${target}.new`);
      await rename(`${target}.new`, target);
    } catch (error) {
      await rm(`${target}.new`, { force: true });
      throw error;
    }
  }
}
