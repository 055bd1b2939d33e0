import { existsSync, mkdtempSync, renameSync, rmSync, statSync } from 'node:fs';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { writeFiles } from '../helpers/folder.ts';
import { type RunningServer, bontel, startServer } from '../helpers/run.ts';

const folders: string[] = [];
const folder = (): string => {
  const made = mkdtempSync(join(tmpdir(), 'bontel-process-'));
  folders.push(made);
  return made;
};
const SMALL = {
  'site.yaml': 'name: Small\nurl: https://small.example\nzone: UTC\nlanguage: en\n',
  'types/note.yaml':
    'key: note\naddress: /{title}\nfields: [{ key: title, kind: text, required: true }]\n',
  'entries/note/a.md':
    '---\nentry: { id: a, saved: 2026-01-01, live: 2026-01-01 }\ntitle: A\n---\n',
};
const smallSite = (): string => {
  const data = folder();
  expect(bontel('load', writeFiles(folder(), SMALL), '--data', data).code).toBe(0);
  return data;
};
afterAll(() => {
  for (const f of folders) rmSync(f, { recursive: true, force: true });
});

/** Signs in by a one-time link; the cookie that keeps it. */
async function signIn(url: string, link: string): Promise<string> {
  const send = (): Promise<Response> =>
    fetch(`${url}/api/session`, {
      method: 'POST',
      headers: { origin: url, 'content-type': 'application/json' },
      body: JSON.stringify({ token: new URL(link).hash.slice(1) }),
    });
  // A kept connection may be closed at the very moment in which it is used again.
  const answer = await send().catch(send);
  expect(answer.status).toBeLessThan(300);
  return answer.headers
    .getSetCookie()
    .map((c) => c.split(';')[0])
    .join('; ');
}

/** What a raw connection answers until it is closed, long before one that is kept would be. */
function raw(url: string, words: string): Promise<string> {
  const { hostname, port } = new URL(url);
  return new Promise((resolve, reject) => {
    const socket = connect({ host: hostname, port: Number(port) }, () => socket.write(words));
    let read = '';
    const late = setTimeout(() => reject(new Error(`Still open: ${read}`)), 45_000);
    socket.on('data', (chunk) => (read += chunk.toString()));
    socket.on('error', () => undefined);
    socket.on('close', () => {
      clearTimeout(late);
      resolve(read);
    });
  });
}

describe('a server with its builder', () => {
  let server: RunningServer;
  let data: string;
  beforeAll(async () => {
    data = smallSite();
    server = await startServer(data, { builder: true });
  });
  afterAll(async () => {
    expect(await server.stop()).toBe(0);
  });

  test.each([
    '/',
    '/a',
    '/nothing',
    '/robots.txt',
    '/sitemap.xml',
    '/style/x.css',
    '/media/x/1.webp',
    '/build',
    '/api/session',
    '/%ff',
    '/api/nothing',
  ])('%s says nosniff and a content security policy', async (path) => {
    const { headers, status } = await fetch(server.url + path, { redirect: 'manual' });
    expect(status).toBeLessThan(500);
    expect(headers.get('x-content-type-options')).toBe('nosniff');
    expect(headers.get('keep-alive')).toBe('timeout=65');
    expect(headers.get('content-security-policy')).toMatch(/default-src/);
  });

  test('the builder loads nothing of other hosts, and is in no frame', async () => {
    const policy = (await fetch(`${server.url}/build`)).headers.get('content-security-policy')!;
    expect(policy).toMatch(/frame-ancestors 'none'/);
    expect(policy).toMatch(/img-src 'self'/);
    expect(policy).not.toMatch(/https?:|\*|'unsafe-eval'/);
  });

  test('a stranger’s large body is refused before it is read, and visitors wait for nothing', async () => {
    const body = `[${'[],'.repeat(700_000)}[]]`;
    const headers = { origin: server.url, 'content-type': 'application/json' };
    const many = Array.from({ length: 5 }, () =>
      fetch(`${server.url}/api/session`, { method: 'POST', headers, body }).then(
        (a) => a.status,
        () => 413, // closed while it was still being sent
      ),
    );
    const page = await fetch(`${server.url}/a`);
    expect(page.status).toBe(200);
    expect(new Set(await Promise.all(many))).toEqual(new Set([413]));
    const chunked = `POST /api/session HTTP/1.1\r\nHost: ${new URL(server.url).host}\r\nOrigin: ${server.url}\r\nTransfer-Encoding: chunked\r\nConnection: close\r\n\r\n`;
    expect(await raw(server.url, chunked)).toMatch(/^HTTP\/1.1 411/);
  });

  test('upgrades are refused and closed, and one that is reset ends nothing', async () => {
    const { host } = new URL(server.url);
    const upgrade = `GET /nowhere HTTP/1.1\r\nHost: ${host}\r\nConnection: Upgrade\r\nUpgrade: websocket\r\nSec-WebSocket-Version: 13\r\nSec-WebSocket-Key: AAAAAAAAAAAAAAAAAAAAAA==\r\n\r\n`;
    await raw(server.url, upgrade);
    for (let i = 0; i < 8; i++) {
      const socket = connect({ host: '127.0.0.1', port: Number(new URL(server.url).port) });
      await new Promise((done) => socket.once('connect', done));
      socket.write(upgrade.replace('/nowhere', '/_next/webpack-hmr'));
      socket.resetAndDestroy();
    }
    expect((await fetch(`${server.url}/a`)).status).toBe(200);
  });

  test('guesses of the link do not lock its owner out', async () => {
    const guess = () =>
      fetch(`${server.url}/api/session`, {
        method: 'POST',
        headers: { origin: server.url, 'content-type': 'application/json' },
        body: JSON.stringify({ token: 'x'.repeat(43) }),
      });
    for (let i = 0; i < 30; i++) expect((await guess()).status).toBe(401);
    expect(await signIn(server.url, server.link!)).toContain('session');
  });

  test('signed out, one signs in again by a link of the command line, while it runs', async () => {
    const printed = bontel('sign-in', '--data', data);
    expect(printed.code).toBe(0);
    const link = /https?:\/\/\S+#\S+/.exec(printed.out)![0];
    const cookie = await signIn(server.url, link);
    const page = await fetch(`${server.url}/build/content`, { headers: { cookie } });
    expect(await page.text()).toContain('Content');
    const again = await fetch(`${server.url}/api/session`, {
      method: 'POST',
      headers: { origin: server.url, 'content-type': 'application/json' },
      body: JSON.stringify({ token: new URL(link).hash.slice(1) }),
    });
    expect(again.status).toBe(401);
  });

  test('what is kept of sessions can be read by its owner alone', () => {
    expect(statSync(join(data, 'ops.db')).mode & 0o077).toBe(0);
  });

  test('forty visitors who ask for sitemaps that are not there hold nobody up', async () => {
    const asked = Array.from({ length: 40 }, (_, i) =>
      fetch(`${server.url}/sitemap-${i + 2}.xml`).then((a) => a.status),
    );
    expect((await fetch(`${server.url}/a`)).status).toBe(200);
    expect(new Set(await Promise.all(asked))).toEqual(new Set([404]));
  });
});

describe('the database under a running server', () => {
  test('deleted or replaced, nothing more is written, and the person is told', async () => {
    const data = smallSite();
    const server = await startServer(data, { builder: true });
    try {
      const cookie = await signIn(server.url, server.link!);
      renameSync(join(data, 'site.db'), join(data, 'elsewhere.db'));
      const answer = await fetch(`${server.url}/api/command/deleteEntry`, {
        method: 'POST',
        headers: { origin: server.url, cookie, 'content-type': 'application/json' },
        body: JSON.stringify({ entry: 'a' }),
      });
      const told = (await answer.json()) as { ok: boolean; issues: { message: string }[] };
      expect(told.ok).toBe(false);
      expect(told.issues[0]!.message).toMatch(/site\.db/);
      expect(existsSync(join(data, 'site.db'))).toBe(false);
    } finally {
      await server.stop();
    }
  });
});
