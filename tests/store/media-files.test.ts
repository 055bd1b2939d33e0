import { existsSync, readdirSync, rmSync, symlinkSync, writeFileSync, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { expect, test } from 'vitest';
import { PictureSizes } from '@/server/delivery/picture-sizes.ts';
import { MediaUploads } from '@/server/uploads/media-uploads.ts';
import { temporaryFolder } from '../helpers/folder.ts';

const HASH = 'a'.repeat(64);
const noise = (width: number): Promise<Buffer> =>
  sharp({
    create: {
      ...{ width, height: width, channels: 3, background: '#000' },
      noise: { type: 'gaussian', mean: 128, sigma: 60 },
    },
  })
    .png()
    .toBuffer();

test('where the disk is full a piece is refused in words, and gone on with once there is room', async () => {
  const data = temporaryFolder();
  const uploads = new MediaUploads(data);
  const content = await noise(40);
  const begun = uploads.begin('me', { name: 'pea.png', size: content.length });
  const id = begun.ok ? begun.value : '';
  const file = join(data, 'incoming', id);
  symlinkSync('/dev/full', file); // a device that has no room left
  const refused = await uploads.add('me', id, { offset: 0, content });
  expect(refused).toMatchObject({
    issues: [{ code: 'not-kept', message: 'The server’s disk is full; nothing was changed.' }],
  });
  rmSync(file);
  const added = await uploads.add('me', id, { offset: 0, content });
  expect(added).toEqual({ ok: true, value: { received: content.length } });
  expect(await uploads.finish('me', id)).toMatchObject({ ok: true });
});

test('a file on its way is nobody else’s', async () => {
  const uploads = new MediaUploads(temporaryFolder());
  const begun = uploads.begin('me', { name: 'pea.png', size: 3 });
  const id = begun.ok ? begun.value : '';
  const content = new Uint8Array(3);
  expect((await uploads.add('you', id, { offset: 0, content })).ok).toBe(false);
  expect((await uploads.received('you', id)).ok).toBe(false);
  uploads.discard('you', id);
  expect((await uploads.received('me', id)).ok).toBe(true);
});

test('pieces that come at once are put one after the other, none twice', async () => {
  const data = temporaryFolder();
  const uploads = new MediaUploads(data);
  const content = await noise(60);
  const begun = uploads.begin('me', { name: 'pea.png', size: content.length });
  const id = begun.ok ? begun.value : '';
  await Promise.all([1, 2, 3].map(() => uploads.add('me', id, { offset: 0, content })));
  expect(await uploads.received('me', id)).toEqual({
    ok: true,
    value: { received: content.length },
  });
  expect((await uploads.finish('me', id)).ok).toBe(true);
});

/** A data folder with a picture, and the sizes that are kept of it. */
async function withSizes(bytes: number) {
  const data = temporaryFolder();
  mkdirSync(join(data, 'media'));
  writeFileSync(join(data, 'media', HASH), await noise(400));
  const sizes = new PictureSizes(data, bytes);
  const get = (width: number) => sizes.get({ hash: HASH, width, cut: null, format: 'webp' });
  const kept = (): string[] =>
    existsSync(join(data, 'sizes', HASH)) ? readdirSync(join(data, 'sizes', HASH)).sort() : [];
  return { data, get, kept };
}

test('sizes are made once, however many ask', async () => {
  const { get } = await withSizes(10_000_000);
  const [first, ...others] = await Promise.all([1, 2, 3, 4].map(() => get(160)));
  expect(others.every((other) => other === first)).toBe(true);
});

test('sizes are made two at a time, others wait, and nobody waits for them', async () => {
  const { get } = await withSizes(10_000_000);
  let [most, turns, isMade] = [0, 0, false];
  const all = Promise.all([320, 310, 300, 290, 280, 270].map(get));
  void all.catch(() => null).then(() => (isMade = true));
  while (!isMade) {
    // What waits for a thread is not asked: what is just begun would be counted twice now and then.
    most = Math.max(most, sharp.counters().process);
    turns += 1;
    await new Promise((resolve) => setImmediate(resolve));
  }
  await all;
  expect(most).toBe(2);
  expect(turns).toBeGreaterThan(20); // this thread went on meanwhile
});

test('no more is kept than may be; what was asked for longest ago goes', async () => {
  const { data, get, kept } = await withSizes(10_000_000);
  const one = (await get(320)).length;
  const small = new PictureSizes(data, Math.round(one * 1.1));
  const size = (width: number) => ({ hash: HASH, width, cut: null, format: 'webp' as const });
  await small.get(size(160));
  await expect.poll(kept, { timeout: 60_000 }).toEqual(['160.webp']);
  await small.get(size(480)); // larger than all that may be kept
  expect(kept()).toEqual(['160.webp']);
});
