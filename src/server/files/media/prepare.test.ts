import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, describe, expect, test } from 'vitest';
import { prepareFile } from './prepare.ts';

const folder = mkdtempSync(join(tmpdir(), 'bontel-prepare-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const green = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: '#3a7' } });
const given = (name: string, content: Buffer | string): string => {
  const path = join(folder, name);
  writeFileSync(path, content);
  return path;
};
const prepared = async (name: string, content: Buffer | string) => {
  const path = given(name, content);
  const result = await prepareFile(path, folder, name);
  return { path, result, file: result.ok ? result.value : null };
};
const words = async (name: string, content: Buffer | string): Promise<string> => {
  const { result } = await prepared(name, content);
  return result.ok ? '' : result.issues[0]!.message;
};

describe('a file is told by its content, whatever it is called', () => {
  test.each<[string, () => Promise<Buffer> | string]>([
    ['image/png', () => green(30, 20).png().toBuffer()],
    ['image/jpeg', () => green(30, 20).jpeg().toBuffer()],
    ['image/webp', () => green(30, 20).webp().toBuffer()],
    ['image/avif', () => green(30, 20).avif().toBuffer()],
    ['image/gif', () => green(30, 20).gif().toBuffer()],
    [
      'image/svg+xml',
      () => '\ufeff<?xml version="1.0"?>\n<!-- x --><svg width="30" height="20"></svg>',
    ],
    ['application/pdf', () => '%PDF-1.7\n1 0 obj\nendobj\n%%EOF\n'],
  ])('%s', async (mime, make) => {
    const { file } = await prepared('lies.exe', await make());
    const size = mime === 'application/pdf' ? { width: 0, height: 0 } : { width: 30, height: 20 };
    expect(file).toMatchObject({ mime, ...size, hash: expect.stringMatching(/^[0-9a-f]{64}$/) });
  });

  test('and what is none of these is refused, with its name', async () => {
    const page = '<!doctype html><title>x</title><svg onload="alert(1)"></svg>';
    expect(await words('page.png', page)).toMatch(/no drawing in SVG/);
    expect(await words('words.jpg', 'just words')).toMatch(/not a picture that can be read/);
    expect(await words('empty.gif', '')).toMatch(/empty/);
    expect(await words('scan.png', await green(9, 9).tiff().toBuffer())).toMatch(/this is tiff/);
    const { result } = await prepared('words.jpg', 'just words');
    expect(result).toMatchObject({ issues: [{ path: 'words.jpg' }] });
  });
});

test('a picture or document that ends early is refused', async () => {
  const whole = await green(200, 200).jpeg().toBuffer();
  const noise = await sharp({
    create: {
      ...{ width: 200, height: 200, channels: 3, background: '#000' },
      noise: { type: 'gaussian', mean: 128, sigma: 60 },
    },
  })
    .png()
    .toBuffer();
  expect(await words('a.jpg', whole.subarray(0, whole.length / 2))).not.toBe('');
  expect(await words('a.png', noise.subarray(0, noise.length / 2))).not.toBe('');
  expect(await words('a.pdf', '%PDF-1.7\n1 0 obj')).toMatch(/ends early/);
});

test('a picture with too many px is refused before it is unpacked', async () => {
  const bomb = await green(16_000, 16_000).png({ compressionLevel: 9 }).toBuffer();
  expect(bomb.length).toBeLessThan(3_000_000);
  expect(await words('bomb.png', bomb)).toMatch(/more than 100 million px/);
});

test('a picture is upright, and says nothing of when and where it was taken', async () => {
  const photo = await green(60, 40)
    .jpeg()
    .withExif({
      IFD0: { Copyright: 'Somebody' },
      IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '51/1 30/1 0/1' },
    })
    .withMetadata({ orientation: 6 })
    .toBuffer();
  const { path, file } = await prepared('photo.jpg', photo);
  expect(file).toMatchObject({ width: 40, height: 60, mime: 'image/jpeg' });
  expect(file!.path).not.toBe(path);
  const { exif, xmp, iptc, orientation, width } = await sharp(file!.path).metadata();
  expect({ exif, xmp, iptc, width }).toEqual({ width: 40 });
  expect(orientation ?? 1).toBe(1);
});

test('a picture that says nothing besides stays as it is, to the byte', async () => {
  const plain = await green(30, 20).jpeg().toBuffer();
  const { path, file } = await prepared('plain.jpg', plain);
  expect(file!.path).toBe(path);
});

test('a moving picture keeps its frames', async () => {
  const frames = await Promise.all(
    ['#f00', '#0f0', '#00f'].map((background) =>
      sharp({ create: { width: 20, height: 10, channels: 3, background } })
        .png()
        .toBuffer(),
    ),
  );
  const gif = await sharp(frames, { join: { animated: true } })
    .gif()
    .toBuffer();
  const { file } = await prepared('moving.gif', gif);
  expect(file).toMatchObject({ mime: 'image/gif', width: 20, height: 10 });
  expect((await sharp(file!.path).metadata()).pages).toBe(3);
});

test('a drawing is kept without what runs', async () => {
  const { file } = await prepared(
    'a.svg',
    '<svg viewBox="0 0 40 20" onload="alert(1)"><script>alert(2)</script><rect width="9"/></svg>',
  );
  const kept = readFileSync(file!.path, 'utf8');
  expect(kept).toContain('<rect');
  expect(kept).not.toMatch(/script|onload|alert/);
  expect(file).toMatchObject({ width: 40, height: 20 });
});
