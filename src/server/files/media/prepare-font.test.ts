import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import { prepareFont } from './prepare-font.ts';

const folder = mkdtempSync(join(tmpdir(), 'bontel-font-'));
const fontFile = (path: string): string =>
  createRequire(import.meta.url).resolve(`@fontsource-variable/${path}`);
const UPRIGHT = fontFile('newsreader/files/newsreader-latin-wght-normal.woff2');

function written(bytes: Buffer): string {
  const file = join(folder, 'given');
  writeFileSync(file, bytes);
  return file;
}

test('a font says its family, its weights and whether it leans', async () => {
  const upright = await prepareFont(UPRIGHT, 'upright.woff2');
  expect(upright).toMatchObject({
    ok: true,
    value: { mime: 'font/woff2', font: { weight: [200, 800], slant: 'upright' } },
  });
  expect(upright.ok && upright.value.font.name).toContain('Newsreader');
  const italic = fontFile('newsreader/files/newsreader-latin-wght-italic.woff2');
  expect(await prepareFont(italic, 'x')).toMatchObject({ value: { font: { slant: 'italic' } } });
});

test.each([
  ['words', Buffer.from('words')],
  ['its first letters alone', Buffer.from('wOF2 and nothing else that a font has')],
  ['half of a font', readFileSync(UPRIGHT).subarray(0, 9000)],
  ['more than 4 MB', Buffer.concat([readFileSync(UPRIGHT), Buffer.alloc(4 * 1024 * 1024)])],
])('%s are refused by name', async (_, bytes) => {
  const done = await prepareFont(written(bytes), 'style/mine.woff2');
  expect(done).toMatchObject({ ok: false, issues: [{ path: 'style/mine.woff2' }] });
});

test('a font with any byte changed is read or refused, and nothing else', async () => {
  const font = readFileSync(fontFile('newsreader/files/newsreader-latin-wght-normal.woff2'));
  for (let i = 0; i < 60; i++) {
    const changed = Buffer.from(font);
    changed[(i * i * 37) % Math.min(changed.length, i < 40 ? 300 : changed.length)]! ^=
      1 << (i % 8);
    const done = await prepareFont(written(changed), 'x');
    if (!done.ok) expect(done.issues[0]!.code).toBe('unreadable-font');
  }
});
