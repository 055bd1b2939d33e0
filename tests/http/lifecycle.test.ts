import Database from 'better-sqlite3';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, describe, expect, test } from 'vitest';
import { runCommand } from '@/server/commands/run.ts';
import { openDatabase } from '@/server/db/connection.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { writeFiles } from '../helpers/folder.ts';
import { bontel, freePort, serverWith, startBontel, startServer } from '../helpers/run.ts';

const root = fileURLToPath(new URL('../../', import.meta.url));
const folders: string[] = [];
const folder = (): string => {
  const made = mkdtempSync(join(tmpdir(), 'bontel-lifecycle-'));
  folders.push(made);
  return made;
};
afterAll(() => {
  for (const f of folders) rmSync(f, { recursive: true, force: true });
});
const SITE = {
  'site.yaml': 'name: Small\nurl: https://small.example\nzone: UTC\nlanguage: en\n',
  'types/note.yaml': 'key: note\naddress: /{title}\nfields: [{ key: title, kind: text }]\n',
  'entries/note/a.md':
    '---\nentry: { id: a, saved: 2026-01-01, live: 2026-01-01 }\ntitle: A\n---\n',
};
const siteFolder = (): string => writeFiles(folder(), SITE);
const loaded = (): string => {
  const data = folder();
  expect(bontel('load', siteFolder(), '--data', data).code).toBe(0);
  return data;
};

describe('a data folder', () => {
  test('on which several start at once for the first time is made once, and all come up', async () => {
    const data = folder();
    const site = siteFolder();
    const ended = [1, 2, 3].map(() => {
      const child = startBontel('load', site, '--data', data);
      let err = '';
      child.stderr!.on('data', (chunk: Buffer) => (err += chunk.toString()));
      return new Promise<string>((done) => child.once('exit', (code) => done(`${code} ${err}`)));
    });
    const servers = await Promise.all([startServer(data), startServer(data)]);
    for (const words of await Promise.all(ended)) {
      expect(words).toMatch(/^[01] /);
      expect(words).not.toMatch(/\bat .*\.js:\d+|SQLITE_/);
    }
    for (const { url } of servers) expect((await fetch(`${url}/a`)).status).toBe(200);
    for (const { stop } of servers) expect(await stop()).toBe(0);
  });

  test('of the first version is brought up to date with all that is in it', async () => {
    const data = loaded();
    const file = join(data, 'site.db');
    const now = new Database(file);
    const rows = now.prepare('SELECT * FROM entry').all() as Record<string, unknown>[];
    const kept = ['entry', 'revision', 'live_interval', 'address', 'design_version', 'meta'].map(
      (table) => [table, now.prepare(`SELECT * FROM "${table}"`).all()] as const,
    );
    now.close();
    rmSync(file);
    const old = new Database(file);
    const first = readFileSync(`${root}src/server/db/migrations/0000_first.sql`, 'utf8');
    old.exec(first);
    old.pragma('user_version = 1');
    for (const [table, all] of kept) {
      const columns = old.prepare(`SELECT name FROM pragma_table_info(?)`).pluck().all(table);
      const names = columns as string[];
      const insert = old.prepare(
        `INSERT INTO "${table}" (${names.map((n) => `"${n}"`).join()}) VALUES (${names.map(() => '?').join()})`,
      );
      for (const row of all as Record<string, unknown>[])
        insert.run(names.map((name) => row[name]));
    }
    old.close();
    const server = await startServer(data);
    expect((await fetch(`${server.url}/a`)).status).toBe(200);
    expect(await server.stop()).toBe(0);
    const after = new Database(file, { readonly: true });
    expect(after.prepare('SELECT search FROM revision').pluck().all()).toEqual(['a']);
    expect(after.prepare('SELECT id FROM entry').pluck().all()).toEqual(rows.map((r) => r.id));
    after.close();
  });

  test('is not deleted for a fresh start while a server works with it', async () => {
    const data = loaded();
    const server = await startServer(data);
    const { status, stderr } = spawnSync(process.execPath, ['scripts/demo.mjs', '--fresh'], {
      cwd: root,
      encoding: 'utf8',
      env: { ...process.env, BONTEL_DATA: data },
    });
    expect([status, stderr]).toEqual([1, expect.stringContaining(`process ${server.process.pid}`)]);
    expect((await fetch(`${server.url}/a`)).status).toBe(200);
    expect(await server.stop()).toBe(0);
  });
});

describe('a server', () => {
  test('outlives upgrades that are reset while it starts', async () => {
    const port = await freePort();
    const starting = startServer(loaded(), { builder: true, port });
    let up = false;
    void starting.then(() => (up = true));
    let resets = 0;
    while (!up && resets < 200) {
      const socket = connect({ host: '127.0.0.1', port });
      const connected = await new Promise<boolean>((done) => {
        socket.once('connect', () => done(true));
        socket.once('error', () => done(false));
      });
      if (connected) {
        socket.write(
          'GET /_next/webpack-hmr HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: Upgrade\r\nUpgrade: websocket\r\nSec-WebSocket-Version: 13\r\nSec-WebSocket-Key: AAAAAAAAAAAAAAAAAAAAAA==\r\n\r\n',
        );
        socket.resetAndDestroy();
        resets++;
      }
      await new Promise((done) => setTimeout(done, 5));
    }
    const server = await starting;
    expect(resets).toBeGreaterThan(0);
    expect((await fetch(`${server.url}/a`)).status).toBe(200);
    expect(await server.stop()).toBe(0);
  });

  test('ends by itself when it is told to, though its writer waits for somebody else', async () => {
    const data = loaded();
    const server = await startServer(data, { builder: true });
    const answer = await fetch(`${server.url}/api/session`, {
      method: 'POST',
      headers: { origin: server.url, 'content-type': 'application/json' },
      body: JSON.stringify({ token: new URL(server.link!).hash.slice(1) }),
    });
    const cookie = answer.headers.getSetCookie()[0]!.split(';')[0]!;
    const other = new Database(join(data, 'site.db'));
    other.exec('BEGIN IMMEDIATE');
    const writes = Array.from({ length: 5 }, () =>
      fetch(`${server.url}/api/command/deleteEntry`, {
        method: 'POST',
        headers: { origin: server.url, cookie, 'content-type': 'application/json' },
        body: JSON.stringify({ entry: 'a' }),
      }).then(
        (a) => a.status,
        () => 0,
      ),
    );
    await new Promise((done) => setTimeout(done, 500));
    const asked = Date.now();
    expect(await server.stop()).not.toBeNull();
    expect(Date.now() - asked).toBeLessThan(60_000);
    await Promise.all(writes);
    other.exec('ROLLBACK');
    other.close();
    const again = await startServer(data);
    expect((await fetch(`${again.url}/a`)).status).toBe(200);
    await again.stop();
  });

  test.each([
    [{ PORT: 'abc' }, /PORT is "abc"/],
    [{ PORT: '0' }, /PORT is "0"/],
    [{ PORT: '70000' }, /PORT is "70000"/],
    [{ PORT: '4300.5' }, /PORT is/],
    [{ PORT: '' }, /PORT is/],
    [{ BONTEL_URL: 'builder' }, /BONTEL_URL is "builder"/],
    [{ BONTEL_URL: 'ftp://x.example' }, /BONTEL_URL/],
    [{ BONTEL_URL: 'https://x.example/path' }, /BONTEL_URL/],
    [{ BONTEL_URL: 'http://' }, /BONTEL_URL/],
    [{ HOST: 'no such host' }, /HOST|no such host/],
  ])('told %j ends with words and code 1', (env, words) => {
    const ran = serverWith({ BONTEL_DATA: folder(), ...(env as Record<string, string>) });
    expect(ran.code).toBe(1);
    expect(ran.err).toMatch(words);
    expect(ran.err).not.toMatch(/TypeError|\bat .*\.(ts|js|mjs):\d+/);
  });
});

describe('the command line', () => {
  test('--version names the version', () => {
    expect(bontel('--version')).toMatchObject({ code: 0, out: expect.stringMatching(/^\d+\.\d+/) });
  });

  test('says that nothing stands ahead of the clock where nothing does', () => {
    const ran = bontel('clock', '--data', loaded());
    expect(ran).toMatchObject({
      code: 0,
      out: expect.stringContaining('Nothing stands in the way'),
    });
  });

  test('shows what was written ahead of the clock, refuses to write until then, and dates it to now', () => {
    const data = loaded();
    const ahead = Date.now() + 3 * 86_400_000;
    const write = (title: string, wallClock: number) => {
      const connection = openDatabase(join(data, 'site.db'));
      try {
        const input = { id: 'a', type: 'note', values: { title }, seen: null };
        return runCommand(connection, 'saveEntry', COMMAND_LINE, input, { wallClock });
      } finally {
        connection.close();
      }
    };
    expect(write('Ahead', ahead).ok).toBe(true);
    expect(() => write('Later', Date.now())).toThrow(/npx bontel clock|clock says/);
    const shown = bontel('clock', '--data', data);
    expect(shown.code).toBe(0);
    expect(shown.out).toContain('Ahead (a)');
    expect(shown.out).toContain('--move-to-now');
    expect(bontel('clock', '--data', data, '--move-to-now').code).toBe(0);
    expect(write('Later', Date.now() + 1000).ok).toBe(true);
  });
});
