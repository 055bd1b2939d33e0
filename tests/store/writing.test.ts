import { join } from 'node:path';
import { expect, onTestFinished, test } from 'vitest';
import { WorkingCopies } from '@/server/db/working-copies.ts';
import { noteWriting } from '@/server/process/note-writing.ts';
import { Presence } from '@/server/process/presence.ts';
import { temporaryFolder } from '../helpers/folder.ts';
import { ANN, done, running, site } from '../helpers/seeds.ts';

const BOB = { ...ANN, id: 'bob', name: 'Bob' };

/** What screens say to a server, and what they hear. */
async function desk() {
  const loaded = await site();
  const { view, connection } = loaded;
  const copies = new WorkingCopies(join(temporaryFolder(), 'ops.db'));
  onTestFinished(() => copies.close());
  const shared = { view, copies, presence: new Presence() };
  const say = (actor: typeof ANN, more: object = {}) =>
    noteWriting(shared, actor, {
      entry: 'pea',
      type: 'seed',
      window: actor.id,
      writing: false,
      ...more,
    });
  return { say, connection, copies, run: running(loaded) };
}

test('each person’s unsaved words are kept apart, until they are thrown away', async () => {
  const { say } = await desk();
  const edits = { title: 'Mine', story: { type: 'doc' } };
  say(ANN, { keep: { revision: 1, edits } });
  expect(say(ANN, { asks: true }).body).toMatchObject({ copy: { revision: 1, edits } });
  expect(say(BOB, { asks: true }).body).toMatchObject({ copy: null });
  expect(say(ANN, { entry: 'kale', asks: true }).body).toMatchObject({ copy: null });
  say(ANN, { keep: null });
  expect(say(ANN, { asks: true }).body).toMatchObject({ copy: null });
});

test('of an entry that was purged nothing is kept, though a window goes on sending', async () => {
  const { say, run, copies } = await desk();
  const keep = { revision: 1, edits: { title: 'Mine' } };
  done(run('purgeEntry', { entry: 'pea' }));
  copies.forget('entry pea');
  expect(say(ANN, { keep }).status).toBe(200);
  expect(say(ANN, { asks: true }).body).toMatchObject({ copy: null });
  say(ANN, { entry: 'kale', keep });
  expect(say(ANN, { entry: 'kale', asks: true }).body).toMatchObject({ copy: keep });
});

test('nothing of it is in the site, whatever is kept', async () => {
  const { say, connection } = await desk();
  const all = (): unknown => connection.driver.serialize().toString('latin1');
  const before = all();
  say(ANN, { keep: { revision: 1, edits: { title: 'Never public' } } });
  expect(all()).toBe(before);
});

test('who else has an entry open is told, by window, until they leave or fall silent', async () => {
  const presence = new Presence();
  const note = (window: string, person: string, now: number, writing = false) =>
    presence.note('entry pea', window, { person, name: person, writing }, now);
  expect(note('a', 'ann', 0)).toEqual([]);
  expect(note('b', 'bob', 1000, true)).toEqual([
    { name: 'ann', since: 0, writing: false, self: false },
  ]);
  expect(note('a', 'ann', 2000)).toEqual([
    { name: 'bob', since: 1000, writing: true, self: false },
  ]);
  expect(note('c', 'ann', 3000).map(({ self }) => self)).toEqual([true, false]);
  presence.leave('entry pea', 'b');
  expect(note('a', 'ann', 4000)).toHaveLength(1);
  expect(note('a', 'ann', 30_000)).toEqual([]);
});

test('what is not of the right form is refused, and visitors hear nothing', async () => {
  const { say } = await desk();
  expect(say(ANN, { keep: { revision: 'x', edits: {} } }).status).toBe(400);
  expect(say(ANN, { window: '' }).status).toBe(400);
  expect(say({ ...ANN, role: 'visitor' as never }, { asks: true }).status).toBe(403);
});

test('copies beyond two hundred make room, the oldest first', async () => {
  const { copies } = await desk();
  for (let i = 0; i < 205; i++)
    copies.keep('ann', `entry e${i}`, { at: i, revision: null, edits: {} });
  expect([copies.of('ann', 'entry e4'), copies.of('ann', 'entry e5')]).toEqual([
    null,
    { at: 5, revision: null, edits: {} },
  ]);
});
