import { createHash } from 'node:crypto';
import { existsSync, mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type { Result } from '@/core/issue.ts';
import { bontel, type RunningServer, startServer } from '../helpers/run.ts';
import { type Session, signIn } from '../helpers/session.ts';

const data = mkdtempSync(join(tmpdir(), 'bontel-media-'));
let server: RunningServer;
let session: Session;

beforeAll(async () => {
  expect(bontel('load', 'demo/site', '--data', data).code).toBe(0);
  server = await startServer(data, { builder: true });
  session = await signIn(server);
});
afterAll(async () => {
  await server?.stop();
  rmSync(data, { recursive: true, force: true });
});

type Answer<T> = Promise<Result<T>>;
const json = async <T>(answer: Promise<Response>): Answer<T> =>
  (await (await answer).json()) as Result<T>;
const begin = (name: string, size: number): Answer<string> =>
  json(session.request('/api/media', 'POST', JSON.stringify({ name, size })));
const piece = (id: string, offset: number, content: Uint8Array): Answer<{ received: number }> =>
  json(session.request(`/api/media/${id}?offset=${offset}`, 'POST', Buffer.from(content)));
const done = (id: string, query = ''): Answer<{ id: string; isNew: boolean }> =>
  json(session.request(`/api/media/${id}/done${query}`, 'POST'));
const valueOf = <T>(result: Result<T>): T => {
  if (!result.ok) throw new Error(JSON.stringify(result.issues));
  return result.value;
};
const codes = (result: Result<unknown>): string[] =>
  result.ok ? [] : result.issues.map(({ code }) => code);
const png = (width: number, height: number, background = '#3a7'): Promise<Buffer> =>
  sharp({ create: { width, height, channels: 3, background } })
    .png()
    .toBuffer();
async function upload(name: string, content: Uint8Array, query = '') {
  const id = valueOf(await begin(name, content.length));
  valueOf(await piece(id, 0, content));
  return done(id, query);
}
const get = (path: string, headers: Record<string, string> = {}): Promise<Response> =>
  fetch(server.url + path, { headers, redirect: 'manual' });
/** Where a name leads. */
const leadsTo = async (name: string): Promise<string> =>
  (await get(`/media/${name}`)).headers.get('location')!;

describe('a file that is sent', () => {
  test('comes in pieces, and is gone on with where it broke off', async () => {
    const content = await png(300, 200, '#123');
    const id = valueOf(await begin('First Pea.png', content.length));
    const half = Math.floor(content.length / 2);
    expect(valueOf(await piece(id, 0, content.subarray(0, half)))).toEqual({ received: half });
    expect(codes(await done(id))).toEqual(['incomplete']);
    const received = await json<{ received: number }>(session.request(`/api/media/${id}`));
    expect(valueOf(received)).toEqual({ received: half });
    // A piece that was sent twice changes nothing.
    expect(valueOf(await piece(id, 0, content.subarray(0, half)))).toEqual({ received: half });
    valueOf(await piece(id, half, content.subarray(half)));
    expect(valueOf(await done(id))).toEqual({ id: 'first-pea.png', isNew: true });
    expect(codes(await done(id))).toEqual(['upload-gone']);
    const whole = await get(await leadsTo('first-pea.png'));
    expect(Buffer.from(await whole.arrayBuffer()).equals(content)).toBe(true);
  });

  test('is refused at once where it is too large, and where more comes than was said', async () => {
    const refused = await begin('film.mov', 200 * 1024 ** 2);
    expect(refused).toMatchObject({
      issues: [{ message: 'The file has 200 MB; one may have 50 MB.' }],
    });
    const id = valueOf(await begin('small.png', 10));
    expect(codes(await piece(id, 0, new Uint8Array(11)))).toEqual(['refused-file']);
    expect(codes(await piece(id, 0, new Uint8Array(0)))).toEqual([]);
  });

  test('that lies about what it is leaves nothing behind', async () => {
    const kept = readdirSync(join(data, 'media')).length;
    const lie = new TextEncoder().encode('<html><script>alert(1)</script></html>');
    expect(codes(await upload('pea.png', lie))).toEqual(['unreadable-picture']);
    expect(readdirSync(join(data, 'media')).length).toBe(kept);
    expect(readdirSync(join(data, 'incoming'))).not.toContain('pea.png');
  });

  test('and cancelled is forgotten', async () => {
    const id = valueOf(await begin('gone.png', 10));
    await piece(id, 0, new Uint8Array(5));
    await session.request(`/api/media/${id}`, 'DELETE');
    expect(existsSync(join(data, 'incoming', id))).toBe(false);
    expect(codes(await piece(id, 5, new Uint8Array(5)))).toEqual(['upload-gone']);
  });

  test('comes from nobody who is not signed in, and no browser says what a file is', async () => {
    const body = JSON.stringify({ name: 'a.png', size: 3 });
    const headers = { origin: server.url, 'content-type': 'application/json' };
    const answer = await fetch(`${server.url}/api/media`, { method: 'POST', headers, body });
    expect(answer.status).toBe(401);
    const file = { hash: 'a'.repeat(64), mime: 'text/html', bytes: 1, width: 0, height: 0 };
    for (const command of ['addMedium', 'replaceMedium'])
      expect(await session.command(command, { name: 'a', id: 'a', file })).toMatchObject({
        message: 'There is no such command.',
      });
  });

  test.each(['', 'x', '{"name":"","size":3}', '{"name":"a.png","size":-1}', '{"size":3}'])(
    'announced as %j is refused in words',
    async (body) => {
      expect(codes(await json(session.request('/api/media', 'POST', body)))).toEqual([
        'wrong-form',
      ]);
    },
  );
});

describe('a picture', () => {
  test('is served in the best format that a client takes, and kept for ever', async () => {
    valueOf(await upload('wide.png', await png(1000, 500, '#a31')));
    const whole = await leadsTo('wide.png');
    const at320 = whole.replace(/[^/]+$/, '320');
    const typeFor = async (accept: string): Promise<string | null> =>
      (await get(at320, { accept })).headers.get('content-type');
    expect(await typeFor('image/avif,image/webp,*/*')).toBe('image/avif');
    expect(await typeFor('image/webp,*/*')).toBe('image/webp');
    expect(await typeFor('image/avif;q=0, image/webp')).toBe('image/webp');
    const answer = await get(at320, { accept: 'image/avif' });
    expect(answer.headers.get('vary')).toBe('accept');
    expect(answer.headers.get('cache-control')).toBe('public, max-age=31536000, immutable');
    const body = Buffer.from(await answer.arrayBuffer());
    expect(await sharp(body).metadata()).toMatchObject({ width: 320, height: 160 });
    const etag = answer.headers.get('etag')!;
    const again = { accept: 'image/avif', 'if-none-match': etag };
    expect((await get(at320, again)).status).toBe(304);
    expect((await get(at320, { ...again, accept: 'image/webp' })).status).toBe(200);
  });

  test('is cut around what matters; only as somebody has said', async () => {
    const left = { left: 0, top: 0, input: await png(500, 500, '#fff') };
    const content = await sharp(await png(1000, 500, '#000'))
      .composite([left])
      .png()
      .toBuffer();
    valueOf(await upload('halves.png', content));
    const base = (await leadsTo('halves.png')).replace(/[^/]+$/, '');
    expect((await get(`${base}160-1x1-0-50`)).status).toBe(404);
    const lightness = async (focusX: number): Promise<number> => {
      await session.command('changeMedium', { id: 'halves.png', focusX });
      const body = await (await get(`${base}160-1x1-${focusX}-50`)).arrayBuffer();
      const { channels } = await sharp(Buffer.from(body)).stats();
      return channels[0]!.mean;
    };
    expect(await lightness(0)).toBeGreaterThan(250);
    expect(await lightness(100)).toBeLessThan(5);
    for (const path of ['161', '160-5x7-0-50', '160-1x1-101-50', '0160', '../x', '160.webp'])
      expect((await get(base + path)).status, path).toBe(404);
  });

  test('that is replaced has another address; its name leads there, the old one stays', async () => {
    const before = await leadsTo('wide.png');
    valueOf(await upload('other.png', await png(40, 40, '#09f'), '?replaces=wide.png'));
    const after = await leadsTo('wide.png');
    expect(after).not.toBe(before);
    expect((await get(before)).status).toBe(200);
    const named = await get('/media/wide.png?width=160');
    expect(named.status).toBe(302);
    expect(named.headers.get('cache-control')).toBe('public, max-age=0, must-revalidate');
    expect(named.headers.get('location')).toBe(after.replace(/[^/]+$/, '160'));
    await session.command('deleteMedium', { id: 'wide.png' });
    expect((await get('/media/wide.png')).status).toBe(404);
    expect((await get(after)).status).toBe(200);
  });

  test('that moves goes on moving, whatever the client takes', async () => {
    const frames = await Promise.all(['#f00', '#00f'].map((colour) => png(200, 100, colour)));
    const gif = await sharp(frames, { join: { animated: true } })
      .gif()
      .toBuffer();
    valueOf(await upload('moving.gif', gif));
    const small = await get(await leadsTo('moving.gif?width=160'), { accept: 'image/avif' });
    expect(small.headers.get('content-type')).toBe('image/webp');
    const found = await sharp(Buffer.from(await small.arrayBuffer())).metadata();
    expect([found.pages, found.width, found.pageHeight ?? found.height]).toEqual([2, 160, 80]);
  });

  test('of lines runs nothing, even where it is opened by itself', async () => {
    const svg = '<svg viewBox="0 0 40 20" onload="alert(1)"><script>1</script><rect/></svg>';
    valueOf(await upload('lines.svg', new TextEncoder().encode(svg)));
    const answer = await get(await leadsTo('lines.svg'));
    expect(answer.headers.get('content-type')).toBe('image/svg+xml');
    expect(answer.headers.get('content-security-policy')).toMatch(/default-src 'none'.*sandbox/);
    expect(await answer.text()).not.toMatch(/script|onload/);
    const small = await get(await leadsTo('lines.svg?width=320'));
    expect(small.status).toBe(200);
  });
});

test('a document is served whole and in parts, as what it is', async () => {
  const pdf = new TextEncoder().encode(`%PDF-1.4\n${'x'.repeat(5000)}\n%%EOF\n`);
  valueOf(await upload('Leaflet.pdf', pdf));
  const path = await leadsTo('leaflet.pdf');
  const part = await get(path, { range: 'bytes=0-3' });
  expect([part.status, await part.text()]).toEqual([206, '%PDF']);
  expect(part.headers.get('content-type')).toBe('application/pdf');
  expect((await get(path, { range: 'bytes=9000-' })).status).toBe(416);
  expect((await get(path.replace(/[^/]+$/, 'other.pdf'))).status).toBe(404);
});

test('killed while files come in, every medium has its file, whole', async () => {
  for (let round = 0; round < 3; round++) {
    const files = await Promise.all(
      Array.from({ length: 6 }, (_, i) => png(700, 500, `#${round}${i}f`)),
    );
    const sent = Promise.allSettled(
      files.map((content, i) => upload(`k${round}-${i}.png`, content)),
    );
    await new Promise((resolve) => setTimeout(resolve, 60 + Math.random() * 300));
    server.process.kill('SIGKILL');
    await sent;
    server = await startServer(data, { builder: true });
    session = await signIn(server);
  }
  const database = new Database(join(data, 'site.db'), { readonly: true });
  const rows = database.prepare('SELECT id, hash FROM media').all() as Record<string, string>[];
  database.close();
  for (const { id, hash } of rows) {
    const content = readFileSync(join(data, 'media', hash!));
    expect(createHash('sha256').update(content).digest('hex'), id).toBe(hash);
  }
  expect(readdirSync(data)).not.toContain('incoming');
});

test('what was made is thrown away, and made again', async () => {
  const base = (await leadsTo('halves.png')).replace(/[^/]+$/, '');
  expect((await get(`${base}160`)).status).toBe(200);
  rmSync(join(data, 'sizes'), { recursive: true });
  expect((await get(`${base}160`)).status).toBe(200);
  expect(existsSync(join(data, 'sizes'))).toBe(true);
});
