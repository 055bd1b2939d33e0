import {
  appendFileSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import JSZip from 'jszip';
import Database from 'better-sqlite3';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { bontel, bontelInMemory, startBontel } from '../helpers/run.ts';

const folder = mkdtempSync(join(tmpdir(), 'bontel-bring-'));
const data = join(folder, 'data');
const table = join(folder, 'growers.csv');
const ROWS = 1500;

beforeAll(() => {
  expect(bontel('load', 'demo/site', '--data', data).code).toBe(0);
  const rows = Array.from({ length: ROWS }, (_, i) => `Grower ${i},Of village ${i % 7}`);
  writeFileSync(table, `name,bio\n${rows.join('\n')}\n`);
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

function entries(): number {
  const database = new Database(join(data, 'site.db'));
  try {
    return database.prepare('SELECT count(*) FROM entry').pluck().get() as number;
  } finally {
    database.close();
  }
}
const bring = (...more: string[]): string[] => [
  ...['load', table, '--as', 'grower', '--data', data, '--json'],
  ...more,
];

test('killed at any moment, either all of it is there or nothing', async () => {
  const before = entries();
  for (const wait of [300, 700, 1100, 1600, 2200]) {
    const running = startBontel(...bring());
    const ended = new Promise((resolve) => running.once('exit', resolve));
    await new Promise((resolve) => setTimeout(resolve, wait));
    running.kill('SIGKILL');
    await ended;
    expect([before, before + ROWS]).toContain(entries());
  }
  const done = bontel(...bring()).json<{ created: number; same: number }>();
  expect(done.created + done.same).toBe(ROWS);
  expect(entries()).toBe(before + ROWS);
});

test('a table that is larger than the memory there is comes in, whatever its cells hold', () => {
  const wide = join(folder, 'wide.csv');
  const map = join(folder, 'wide.yaml');
  const rows = 600;
  writeFileSync(map, 'fields: { name: name }\n');
  writeFileSync(wide, 'name,story\n');
  for (let i = 0; i < rows; i++) appendFileSync(wide, `Wide ${i},${`word${i} `.repeat(15_000)}\n`);
  const before = entries();
  const asked = ['load', wide, '--as', 'grower', '--map', map, '--data', data];
  expect(bontelInMemory(64, ...asked)).toMatchObject({ code: 0 });
  expect(entries()).toBe(before + rows);
});

test('tried only tells, with the mapping that was guessed', () => {
  const before = entries();
  const told = bontel(...bring('--dry-run')).json<{ dry: boolean; mapping: { fields: object } }>();
  expect(told).toMatchObject({ dry: true, same: ROWS, mapping: { fields: { name: 'name' } } });
  expect(entries()).toBe(before);
});

test('for a type, a file or a mapping that is not there it says so, and ends as refused', () => {
  expect(bontel('load', table, '--as', 'nobody', '--data', data)).toMatchObject({ code: 1 });
  expect(bontel('load', join(folder, 'none'), '--as', 'grower', '--data', data).code).toBe(1);
  const map = join(folder, 'map.yaml');
  writeFileSync(map, 'fields: { name: nowhere }\n');
  const wrong = bontel('load', table, '--as', 'grower', '--map', map, '--data', data);
  expect([wrong.code, wrong.err]).toEqual([1, expect.stringContaining('no such field')]);
});

test('an archive is unpacked, and one without records is told so', async () => {
  const archive = join(folder, 'growers.zip');
  const zip = new JSZip().file('growers.csv', readFileSync(table));
  writeFileSync(archive, await zip.generateAsync({ type: 'nodebuffer' }));
  const asked = ['--as', 'grower', '--data', data, '--dry-run', '--json'];
  const told = bontel('load', archive, ...asked);
  expect(told.json<{ created: number }>().created).toBe(ROWS);
  const empty = join(folder, 'empty');
  mkdirSync(empty);
  const nothing = bontel('load', empty, ...asked);
  expect(nothing.code).toBe(1);
  expect(nothing.json()).toMatchObject({ brought: false, issues: [{ code: 'no-records' }] });
  writeFileSync(join(folder, 'no.zip'), 'no archive');
  expect(bontel('load', join(folder, 'no.zip'), ...asked).code).toBe(1);
});
