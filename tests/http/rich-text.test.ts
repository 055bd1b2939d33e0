import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { bontel, type RunningServer, startServer } from '../helpers/run.ts';

const data = mkdtempSync(join(tmpdir(), 'bontel-texts-'));
let server: RunningServer;
let key: string;

beforeAll(async () => {
  expect(bontel('load', 'demo/site', '--data', data).code).toBe(0);
  key = bontel('key', 'A program', '--data', data).out.trim();
  server = await startServer(data, { builder: true });
});
afterAll(async () => {
  await server?.stop();
  rmSync(data, { recursive: true, force: true });
});

const post = async (
  source: string,
  { type = 'text/markdown', by = key, to = 'entry=about&field=body', headers = {} } = {},
) => {
  const answer = await fetch(`${server.url}/api/rich-text?${to}`, {
    method: 'POST',
    headers: { 'content-type': type, ...(by ? { authorization: `Bearer ${by}` } : {}), ...headers },
    body: source,
  });
  const text = await answer.text();
  return { status: answer.status, body: text.startsWith('{') ? JSON.parse(text) : text };
};
const doc = (...content: object[]): string => JSON.stringify({ type: 'doc', content });

test('a program saves a new version of a text, as Markdown or as JSON', async () => {
  const markdown = 'Ask [Edda](entry:edda).\n';
  expect(await post(markdown)).toEqual({ status: 200, body: { saved: true } });
  expect(await post(markdown)).toEqual({ status: 200, body: { saved: false } });
  const content = [{ type: 'text', text: 'From JSON' }];
  const json = doc({ type: 'paragraph', content });
  expect(await post(json, { type: 'application/json; charset=utf-8' })).toEqual({
    status: 200,
    body: { saved: true },
  });
});

test.each<[string, string, string, string]>([
  ['text/markdown', 'Fine.\n\n[x](javascript:y)', 'line 3', 'may not stand'],
  ['text/markdown', '![A pea](gone.png)', 'line 1', 'no picture'],
  [
    'text/markdown',
    '[x](entry:nobody)',
    '/content/0/content/0/marks/0/attrs/entry',
    'no such entry',
  ],
  [
    'application/json',
    doc({ type: 'heading', attrs: { level: 9 } }),
    '/content/0/attrs/level',
    '1 to 6',
  ],
  [
    'application/json',
    doc({ type: 'part', attrs: { type: 'variety' } }),
    '/content/0/attrs/type',
    'no type of parts',
  ],
  ['application/json', '{', '/', 'not JSON'],
  ['application/json', '[]', '/', 'type": "doc"'],
])(
  '%s that holds what it may not is refused with its place: %s',
  async (type, source, at, said) => {
    const { status, body } = await post(source, { type });
    expect(status).toBe(422);
    expect(body.faults[0]).toEqual({ at, words: expect.stringContaining(said) as string });
  },
);

test('parts within parts without end are refused, by Markdown and by JSON', async () => {
  const open = '{"type":"part","attrs":{"type":"notice","values":{"title":';
  const deep = `${open.repeat(5000)}0${'}}}'.repeat(5000)}`;
  const fenced = `\`\`\`rich-text\n${deep}\n\`\`\``;
  expect((await post(fenced)).status).toBe(422);
  expect(
    (await post(`{"type":"doc","content":[${deep}]}`, { type: 'application/json' })).status,
  ).toBe(422);
});

test('only who has a key, or is signed in here, sends texts', async () => {
  expect((await post('x', { by: '' })).status).toBe(403); // of no origin
  expect((await post('x', { by: `bontel_${'a'.repeat(43)}` })).status).toBe(401);
  expect((await post('x', { type: 'text/html' })).status).toBe(415);
  expect((await post('x', { to: 'entry=nobody&field=body' })).status).toBe(404);
  expect((await post('x', { to: 'entry=about&field=title' })).status).toBe(404);
  const [id] = bontel('key', '--data', data).out.split(' ');
  expect(bontel('key', '--end', id!, '--data', data).code).toBe(0);
  expect((await post('x')).status).toBe(401);
});
