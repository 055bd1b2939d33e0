import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type { Result } from '@/core/issue.ts';
import type { PeopleAnswer, PeopleRequest } from '@/server/process/accounts.ts';
import { bontel, type RunningServer, startServer } from '../helpers/run.ts';
import { type Session, signIn } from '../helpers/session.ts';

const data = mkdtempSync(join(tmpdir(), 'bontel-people-'));
let server: RunningServer;
let builder: Session;

beforeAll(async () => {
  expect(bontel('load', 'demo/site', '--data', data).code).toBe(0);
  server = await startServer(data, { builder: true });
  builder = await signIn(server);
});
afterAll(async () => {
  await server?.stop();
  rmSync(data, { recursive: true, force: true });
});

async function send(session: Session, request: PeopleRequest): Promise<PeopleAnswer> {
  const answer = await session.request('/api/people', 'POST', JSON.stringify(request));
  const result = (await answer.json()) as Result<PeopleAnswer>;
  if (!result.ok) throw new Error(JSON.stringify(result));
  return result.value;
}
const signedIn = (link: string | null): Promise<Session> => signIn({ ...server, link });
const statusOf = async (session: Session, path: string, method = 'GET', body?: object) =>
  (await session.request(path, method, body && JSON.stringify(body))).status;
const renaming = { steps: [{ do: 'set', part: 'site', property: 'name', was: 'x', now: 'Mine' }] };

describe('whoever a builder lets in', () => {
  test('signs in by the link, as an editor: content can be changed, the design cannot', async () => {
    const mara = await send(builder, { do: 'add', name: 'Mara Quist', role: 'editor' });
    expect(mara).toMatchObject({ id: 'mara-quist', name: 'Mara Quist' });
    const editor = await signedIn(mara.link);
    const screen = await (await editor.request('/build/settings')).text();
    expect(screen).toContain('Mara Quist');
    expect(screen).toContain('Builders of the site change it');
    const added = { set: 'traits', names: ['Fog proof'] };
    expect(await editor.command('addSubjects', added)).toMatchObject({ ok: true });
    expect(await editor.command('editDesign', renaming)).toMatchObject({
      ok: false,
      issues: [{ message: 'You may not change the design of the site.' }],
    });
    expect(await editor.command('purgeEntry', { id: 'about' })).toMatchObject({ ok: false });
    const adding = { do: 'add', name: 'Me too', role: 'builder' };
    expect(await statusOf(editor, '/api/people', 'POST', adding)).toBe(403);
    expect(await statusOf(editor, '/api/upload', 'POST', {})).toBe(403);
    expect(await statusOf(editor, '/api/media/any/done?as=font', 'POST', {})).toBe(403);
    expect(await statusOf(editor, '/api/media/any/done', 'POST', {})).toBe(200);
  });

  test('is somebody new, whatever they are called', async () => {
    const [first, second] = [
      await send(builder, { do: 'add', name: 'Jo', role: 'editor' }),
      await send(builder, { do: 'add', name: 'Jo', role: 'builder' }),
    ];
    expect(first.id).not.toBe(second.id);
    await send(builder, { do: 'remove', id: second.id });
  });

  test('has another role at once, and no session any more once removed', async () => {
    const { id, link } = await send(builder, { do: 'add', name: 'Edda', role: 'editor' });
    const edda = await signedIn(link);
    const asked = { steps: renaming.steps };
    expect(JSON.stringify(await edda.command('editDesign', asked))).toContain('You may not');
    await send(builder, { do: 'change', id, name: 'Edda', role: 'builder' });
    expect(JSON.stringify(await edda.command('editDesign', asked))).not.toContain('You may not');
    expect(await statusOf(edda, '/api/saved-site', 'HEAD')).toBe(200);
    const again = await send(builder, { do: 'link', id });
    await send(builder, { do: 'remove', id });
    expect(await statusOf(edda, '/api/saved-site', 'HEAD')).toBe(401);
    const late = await signedIn(again.link);
    expect(await statusOf(late, '/api/saved-site', 'HEAD')).toBe(401);
  });

  test.each([
    [{ do: 'remove', id: 'builder' }, 'stays a builder'],
    [{ do: 'change', id: 'builder', name: 'Builder', role: 'editor' }, 'stays a builder'],
    [{ do: 'link', id: 'nobody' }, 'somebody else has changed that'],
    [{ do: 'add', name: '  ', role: 'editor' }, 'Give a name'],
    [{ do: 'add', name: 'X', role: 'owner' }, 'Roles are builder and editor'],
    [{ do: 'what' }, ''],
    [null, ''],
  ])('a request that cannot be done, %j, is refused in words', async (request, words) => {
    const answer = await builder.request('/api/people', 'POST', JSON.stringify(request));
    expect(answer.status).toBe(200);
    const result = (await answer.json()) as Result<unknown>;
    expect(result).toMatchObject({ ok: false });
    expect(JSON.stringify(result)).toContain(words);
  });
});

test('the command line lets people in, too, and says what it cannot do', async () => {
  const sign = (...more: string[]) => bontel('sign-in', ...more, '--data', data);
  const nel = await signedIn(sign('nel', '--name', 'Nel Ortiz', '--role', 'editor').out.trim());
  expect(await statusOf(nel, '/api/people', 'POST', { do: 'link', id: 'nel' })).toBe(403);
  const builderNow = await signedIn(sign('nel', '--role', 'builder').out.trim());
  expect(await statusOf(builderNow, '/api/people', 'POST', { do: 'link', id: 'nel' })).toBe(200);
  expect(sign('nel', '--remove').code).toBe(0);
  expect(await statusOf(builderNow, '/api/saved-site', 'HEAD')).toBe(401);
  for (const [args, words] of [
    [['nel', '--remove'], 'Nobody is called'],
    [['builder', '--remove'], 'stays a builder'],
    [['builder', '--role', 'editor'], 'stays a builder'],
    [['nel', '--role', 'owner'], 'Roles are builder and editor'],
    [['Nel Ortiz'], 'An id is'],
    [['command-line'], 'own'],
  ] as const) {
    const refused = sign(...args);
    expect([refused.code, refused.err]).toEqual([2, expect.stringContaining(words)]);
  }
});
