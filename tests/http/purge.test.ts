import { mkdtempSync, readFileSync, readdirSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { Result } from '@/core/issue.ts';
import { bontel, type RunningServer, startServer } from '../helpers/run.ts';
import { type Session, signIn } from '../helpers/session.ts';

const data = mkdtempSync(join(tmpdir(), 'bontel-purge-'));
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

async function run<T>(name: string, input: unknown): Promise<T> {
  const result = (await session.command(name, input)) as Result<T>;
  if (!result.ok) throw new Error(JSON.stringify(result));
  return result.value;
}

/** The files of the data folder that hold a word. */
function holding(word: string): string[] {
  const files = readdirSync(data, { recursive: true, encoding: 'utf8' });
  return files.filter((name) => {
    const file = join(data, name);
    return statSync(file).isFile() && readFileSync(file).includes(word);
  });
}

test('of what is purged no word is left on the disk, kept ones included', async () => {
  const title = 'Quillwort of Zanzibar';
  const type = 'notice';
  const answer = await session.request(
    '/api/outcome/form',
    'POST',
    JSON.stringify({ at: Date.now(), type }),
  );
  const fields = (await answer.json()) as { id: string; key: string }[];
  const naming = fields.find(({ key }) => key === 'title')!.id;
  const saving = { type, values: { [naming]: title }, seen: null };
  const { id } = await run<{ id: string }>('saveEntry', { id: null, ...saving });
  await run('saveEntry', { id, ...saving, values: { [naming]: `${title} again` } });
  await run('planChange', { entry: id, action: 'publish', at: null, revision: null });
  const keep = { revision: 2, edits: { [naming]: `${title}, unsaved` } };
  const words = { entry: id, type, window: 'w', writing: true, keep };
  await session.request('/api/writing', 'POST', JSON.stringify(words));
  expect(holding('Quillwort of Zanzibar').length).toBeGreaterThan(1);
  await run('purgeEntry', { entry: id });
  expect(holding('Quillwort')).toEqual([]);
  expect(holding('quillwort')).toEqual([]);
});
