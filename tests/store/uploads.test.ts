import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import JSZip from 'jszip';
import { describe, expect, test } from 'vitest';
import type { Issue, Result } from '@/core/issue.ts';
import { unzip } from '@/server/uploads/unzip.ts';
import { Uploads } from '@/server/uploads/uploads.ts';
import { temporaryFolder } from '../helpers/folder.ts';

const BOUNDS = { files: 10, bytes: 100_000 };
const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
const codes = (result: Result<unknown>): string[] =>
  result.ok ? [] : result.issues.map(({ code }: Issue) => code);

async function archive(files: Record<string, string>): Promise<string> {
  const zip = new JSZip();
  for (const [name, text] of Object.entries(files)) zip.file(name, text, { createFolders: false });
  const path = join(temporaryFolder(), 'site.zip');
  writeFileSync(path, await zip.generateAsync({ type: 'nodebuffer', compression: 'DEFLATE' }));
  return path;
}

/** An archive with a name that its maker would not write: one of the same length is overwritten. */
async function archiveNaming(name: string): Promise<string> {
  const stand = 'x'.repeat(name.length);
  const path = await archive({ [stand]: 'out' });
  const whole = readFileSync(path).toString('latin1').replaceAll(stand, name);
  writeFileSync(path, Buffer.from(whole, 'latin1'));
  return path;
}

describe('an archive', () => {
  test('is unpacked, but for names that start with a dot', async () => {
    const folder = join(temporaryFolder(), 'site');
    const path = await archive({
      'site.yaml': 'name: A',
      'types/a.yaml': 'b',
      'types/.git/c': 'd',
    });
    expect(await unzip(path, folder, BOUNDS)).toEqual({ ok: true, value: 2 });
    expect(readFileSync(join(folder, 'types/a.yaml'), 'utf8')).toBe('b');
    expect(existsSync(join(folder, 'types/.git'))).toBe(false);
  });

  test.each(['../outside.yaml', '/outside.yaml', 'a/../../b.yaml', 'c:/b.yaml', 'a\\..\\b.yaml'])(
    'with the name %s is refused, and writes nothing outside its folder',
    async (name) => {
      const folder = join(temporaryFolder(), 'site');
      const result = await unzip(await archiveNaming(name), folder, BOUNDS);
      expect(result.ok).toBe(false);
      expect(existsSync(join(folder, '..', 'outside.yaml'))).toBe(false);
      expect(existsSync(join(folder, '..', 'b.yaml'))).toBe(false);
    },
  );

  test('that unpacks to more than may be is refused when that is reached', async () => {
    const folder = join(temporaryFolder(), 'site');
    const bomb = await archive({ 'a.yaml': '0'.repeat(5_000_000) });
    expect(readFileSync(bomb).length).toBeLessThan(10_000);
    expect(codes(await unzip(bomb, folder, BOUNDS))).toEqual(['too-large']);
    expect(readFileSync(join(folder, 'a.yaml')).length).toBeLessThanOrEqual(BOUNDS.bytes);
    const many = Object.fromEntries(Array.from({ length: 11 }, (_, i) => [`${i}.yaml`, '']));
    expect(codes(await unzip(await archive(many), folder, BOUNDS))).toEqual(['too-large']);
  });

  test('is unpacked no further once that is cancelled, and nothing of it is kept', async () => {
    const data = temporaryFolder();
    const uploads = new Uploads(data);
    const id = uploads.begin();
    const files = Array.from({ length: 2100 }, (_, i) => [`entries/${i}.yaml`, 'a: b']);
    const content = readFileSync(await archive(Object.fromEntries(files) as never));
    await uploads.add(id, [{ name: null, offset: 0, content }]);
    const control = new AbortController();
    const steps: string[] = [];
    const tell = (step: string): void => {
      steps.push(step);
      control.abort();
    };
    expect(codes(await uploads.folder(id, { tell, signal: control.signal }))).toEqual([
      'cancelled',
    ]);
    expect(steps).toHaveLength(1);
    expect(existsSync(join(data, 'uploads', id))).toBe(false);
  });

  test('that is none, or ends early, is said to be unreadable', async () => {
    const folder = join(temporaryFolder(), 'site');
    const path = await archive({ 'site.yaml': 'name: A' });
    writeFileSync(path, readFileSync(path).subarray(0, 60));
    expect(codes(await unzip(path, folder, BOUNDS))).toEqual(['unreadable-file']);
    writeFileSync(path, 'nothing of the sort');
    expect(codes(await unzip(path, folder, BOUNDS))).toEqual(['unreadable-file']);
  });
});

describe('what a browser sends', () => {
  const tell = (): void => undefined;

  test('is put together from pieces, and the site found in the folder it was sent in', async () => {
    const uploads = new Uploads(temporaryFolder());
    const id = uploads.begin();
    const name = 'club/site.yaml';
    expect(await uploads.add(id, [{ name, offset: 0, content: bytes('name: ') }])).toMatchObject({
      ok: true,
    });
    await uploads.add(id, [
      { name, offset: 6, content: bytes('Club') },
      { name: 'club/types/boat.yaml', offset: 0, content: bytes('key: boat') },
    ]);
    const folder = await uploads.folder(id, { tell });
    expect(folder.ok && readFileSync(join(folder.value, 'site.yaml'), 'utf8')).toBe('name: Club');
    uploads.discard(id);
    expect(codes(await uploads.folder(id, { tell }))).toEqual(['upload-gone']);
    expect(folder.ok && existsSync(folder.value)).toBe(false);
  });

  test('is refused where it climbs, leaves a gap, comes twice or was never begun', async () => {
    const data = temporaryFolder();
    const uploads = new Uploads(data);
    const id = uploads.begin();
    const put = (name: string, offset: number): Promise<Result<null>> =>
      uploads.add(id, [{ name, offset, content: bytes('x') }]);
    expect(codes(await put('../../site.db', 0))).toEqual(['unsafe-name']);
    expect(codes(await put('a//b', 0))).toEqual(['unsafe-name']);
    expect((await put('a.yaml', 0)).ok).toBe(true);
    expect(codes(await put('a.yaml', 1e12))).toEqual(['out-of-order']);
    expect(codes(await put('a.yaml', 0))).toEqual(['not-kept']);
    expect(codes(await put('a.yaml/b.yaml', 0))).toEqual(['not-kept']);
    expect(codes(await uploads.add('another', []))).toEqual(['upload-gone']);
    expect(existsSync(join(data, 'site.db'))).toBe(false);
  });

  test('of an earlier run is thrown away when the server starts', async () => {
    const data = temporaryFolder();
    const uploads = new Uploads(data);
    const id = uploads.begin();
    await uploads.add(id, [{ name: 'a.yaml', offset: 0, content: bytes('x') }]);
    expect(existsSync(join(data, 'uploads'))).toBe(true);
    new Uploads(data);
    expect(existsSync(join(data, 'uploads'))).toBe(false);
  });
});
