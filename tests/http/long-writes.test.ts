import { cpSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, onTestFinished, test } from 'vitest';
import { openDatabase } from '@/server/db/connection.ts';
import { SiteView } from '@/server/queries/site-view.ts';
import { writeFiles } from '../helpers/folder.ts';
import { bontel, type RunningServer, startServer } from '../helpers/run.ts';
import { type Session, signIn } from '../helpers/session.ts';
import { derivedRows, rebuild } from '../helpers/snapshot.ts';

const COUNT = 4000;
const folder = mkdtempSync(join(tmpdir(), 'bontel-long-'));
const lines = Array.from({ length: COUNT }, (_, i) => `n${i},Note ${i},2026-01-01/`);
beforeAll(() => {
  const site = writeFiles(join(folder, 'site'), {
    'site.yaml': 'name: Long\nurl: https://long.example\nzone: UTC\nlanguage: en\n',
    'types/note.yaml': 'key: note\naddress: /{title}\nfields: [{ key: title, kind: text }]\n',
    'entries/note.csv': `entry.id,title,entry.live\n${lines.join('\n')}\n`,
  });
  expect(bontel('load', site, '--data', join(folder, 'data')).code).toBe(0);
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const MOVE = {
  edit: {
    steps: [
      { do: 'set', part: 'types/note', property: 'address', was: '/{title}', now: '/n/{title}' },
    ],
  },
};
const status = async (server: RunningServer, path: string): Promise<number> =>
  (await fetch(server.url + path, { redirect: 'manual' })).status;

let number = 0;
/** A server over a data folder of its own, with somebody signed in. */
async function serve(): Promise<{ data: string; server: RunningServer; session: Session }> {
  const data = join(folder, `data-${(number += 1)}`);
  cpSync(join(folder, 'data'), data, { recursive: true });
  const server = await startServer(data, { builder: true });
  onTestFinished(async () => void (await server.stop()));
  return { data, server, session: await signIn(server) };
}

/** Waits until a long write is being worked out; how far it is. */
async function underWay(
  session: Session,
  job: string,
  answer: Promise<unknown>,
): Promise<{ count: number }> {
  let ended = false;
  void answer.then(() => (ended = true));
  for (;;) {
    if (ended) throw new Error('It ended before it was seen to be under way.');
    const told = await session.request(`/api/job/${job}`);
    if (told.status === 200) {
      const found = (await told.json()) as { count: number };
      if (found.count > 0) return found;
    }
  }
}

/** That a stopped server left a site whose derived rows are those of its facts, and no plan. */
function expectWhole(data: string): void {
  expect(readdirSync(data).filter((name) => name.includes('.plan-'))).toEqual([]);
  const connection = openDatabase(join(data, 'site.db'));
  const rows = derivedRows(connection);
  rebuild(connection, new SiteView(connection));
  expect(derivedRows(connection)).toEqual(rows);
  expect(connection.driver.pragma('integrity_check', { simple: true })).toBe('ok');
  connection.close();
}

test('a release of thousands is watched, others write meanwhile, and it holds as a whole', async () => {
  const { data, server, session } = await serve();
  const dry = await session.command('release', { ...MOVE, dry: true }, 'dry');
  expect(dry).toMatchObject({ ok: true, value: { moved: COUNT } });
  expect(await status(server, '/note-7')).toBe(200);
  const released = session.command('release', MOVE, 'j');
  expect((await underWay(session, 'j', released)).count).toBeGreaterThan(0);
  const draft = { id: null, type: 'note', values: { title: 'Meanwhile' }, seen: null };
  expect(await session.command('saveEntry', draft)).toMatchObject({ ok: true });
  expect((await session.request('/api/job/j')).status).toBe(200);
  expect(await released).toMatchObject({ ok: true, value: { moved: COUNT } });
  expect((await session.request('/api/job/j')).status).toBe(404);
  expect([await status(server, '/note-7'), await status(server, '/n/note-7')]).toEqual([308, 200]);
  await server.stop();
  expectWhole(data);
});

test('a release is worked out anew where somebody publishes meanwhile', async () => {
  const { data, server, session } = await serve();
  const released = session.command('release', MOVE, 'j');
  await underWay(session, 'j', released);
  const draft = { id: 'n1', type: 'note', values: { title: 'Other' }, seen: null };
  expect(await session.command('saveEntry', draft)).toMatchObject({ ok: true });
  const now = { entry: 'n1', action: 'publish', at: null, revision: null };
  expect(await session.command('planChange', now)).toMatchObject({ ok: true });
  expect(await released).toMatchObject({ ok: true, value: { moved: COUNT } });
  expect(await status(server, '/n/other')).toBe(200);
  await server.stop();
  expectWhole(data);
});

test('a release that is cancelled changes nothing', async () => {
  const { data, server, session } = await serve();
  const released = session.command('release', MOVE, 'j');
  await underWay(session, 'j', released);
  expect((await session.request('/api/job/j', 'DELETE')).status).toBe(200);
  expect(await released).toMatchObject({ ok: false, issues: [{ code: 'cancelled' }] });
  expect((await session.request('/api/job/j', 'DELETE')).status).toBe(404);
  expect([await status(server, '/note-7'), await status(server, '/n/note-7')]).toEqual([200, 404]);
  await server.stop();
  expectWhole(data);
});

/** Takes all of them off the site at once. */
const RETIRE = {
  what: { do: 'retire', at: null },
  which: { filters: { type: 'note' }, at: Date.parse('2026-06-01'), count: COUNT },
};

test.each([
  ['release', MOVE, [308, 200], 0],
  ['release', MOVE, [308, 200], 600],
  ['changeEntries', RETIRE, [410, 404], 100],
  ['changeEntries', RETIRE, [410, 404], 700],
] as const)(
  'killed in a long write (%s), the site is as before it or after it, and goes on',
  async (name, input, after, pause) => {
    const { data, server, session } = await serve();
    const written = session.command(name, input, 'j').catch(() => null);
    const draft = { id: null, type: 'note', values: { title: 'Meanwhile' }, seen: null };
    await underWay(session, 'j', written);
    const saved = session.command('saveEntry', draft).catch(() => null);
    await new Promise((resolve) => setTimeout(resolve, pause));
    server.process.kill('SIGKILL');
    await Promise.all([written, saved]);
    const again = await startServer(data, { builder: true });
    onTestFinished(async () => void (await again.stop()));
    const statuses = [await status(again, '/note-7'), await status(again, '/n/note-7')];
    expect([[200, 404], [...after]]).toContainEqual(statuses);
    // Either all of them are so, or none.
    for (const i of [0, 1, 2000, COUNT - 1])
      expect(await status(again, `/note-${i}`)).toBe(statuses[0]);
    await again.stop();
    expectWhole(data);
  },
);
