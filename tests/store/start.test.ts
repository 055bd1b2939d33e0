import { join } from 'node:path';
import { expect, onTestFinished, test } from 'vitest';
import { readOutline } from '@/core/outline/read.ts';
import { outlineSteps } from '@/core/outline/steps.ts';
import { runCommand } from '@/server/commands/run.ts';
import type { CommandName } from '@/server/commands/index.ts';
import { openDatabase } from '@/server/db/connection.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { SiteView } from '@/server/queries/site-view.ts';
import { todayDetail } from '@/server/queries/today.ts';
import { typesDetail } from '@/server/queries/types.ts';
import { temporaryFolder } from '../helpers/folder.ts';

const NOW = Date.parse('2026-07-01T12:00:00Z');
const SITE = { name: 'Club', url: 'https://club.example', zone: 'Europe/Dublin', language: 'en' };
const LOOKING = { at: NOW + 100, past: false, seeing: 'published' } as const;

/** A data folder with nothing in it, and what is done there. */
function nothing() {
  const connection = openDatabase(join(temporaryFolder(), 'site.db'));
  onTestFinished(() => connection.close());
  let wall = NOW;
  return {
    view: new SiteView(connection),
    run: (name: CommandName, input: unknown) =>
      runCommand(connection, name, COMMAND_LINE, input, { wallClock: (wall += 1) }),
  };
}

const codes = (result: ReturnType<ReturnType<typeof nothing>['run']>): string[] =>
  result.ok ? [] : result.issues.map(({ code }) => code);

test('a site is started once, where there is none, with settings that hold', () => {
  const { view, run } = nothing();
  expect(codes(run('undoEdit', {}))).toEqual(['no-site']);
  expect(codes(run('startSite', { ...SITE, zone: 'Nowhere' }))).toEqual(['wrong-form']);
  expect(codes(run('startSite', { ...SITE, name: '' }))).toEqual(['wrong-form']);
  expect(view.at(NOW)).toBeNull();
  expect(run('startSite', SITE).ok).toBe(true);
  expect(codes(run('startSite', SITE))).toEqual(['site-there']);
  expect(view.render('/', NOW + 10)).toMatchObject({ status: 200, kind: 'front' });
  expect(todayDetail(view, COMMAND_LINE, NOW + 10)!.begun).toEqual({
    type: null,
    address: false,
    live: false,
    front: false,
  });
});

test('an outline is made by one edit, and its entries are written once it is released', () => {
  const { view, run } = nothing();
  run('startSite', SITE);
  const { world } = typesDetail(view, COMMAND_LINE, LOOKING)!;
  const types = readOutline('Boat: name, traits (tags)\nRace: title, boats', world);
  const steps = outlineSteps(types, world, (_, key) => key);
  expect(run('editDesign', { steps })).toMatchObject({ ok: true });
  expect(todayDetail(view, COMMAND_LINE, NOW + 10)!.begun).toMatchObject({
    type: { key: 'boat', released: false },
    address: true,
  });
  const values = { name: 'Heron' };
  const draft = { id: null, type: 'boat', values, seen: null };
  expect(run('saveEntry', draft).ok).toBe(false);
  expect(run('release', { edits: [1] }).ok).toBe(true);
  const saved = run('saveEntry', draft) as { ok: true; value: { id: string } };
  const { id: entry } = saved.value;
  run('planChange', { entry, action: 'publish', at: null, revision: null });
  expect(view.render('/boats/heron', NOW + 50)!.status).toBe(200);
  const detail = typesDetail(view, COMMAND_LINE, LOOKING)!;
  expect(detail.types.map(({ key, entries }) => [key, entries])).toEqual([
    ['boat', 1],
    ['race', 0],
  ]);
  // What content is stored under is no id for anything new, also once the type is gone.
  run('deleteEntry', { entry });
  expect(typesDetail(view, COMMAND_LINE, LOOKING)!.taken).toContain('boat');
  expect(run('undoEdit', {}).ok).toBe(false);
});

test('an outline that was released is taken back in one step', () => {
  const { view, run } = nothing();
  run('startSite', SITE);
  const before = view.at(NOW + 10)!.site.design;
  const { world } = typesDetail(view, COMMAND_LINE, LOOKING)!;
  const types = readOutline('Boat: name, traits (tags)\nRace: title, boats', world);
  const steps = outlineSteps(types, world, (_, key) => key);
  const done = run('release', { edit: { steps } }) as { ok: true; value: { release: number } };
  expect(view.at(NOW + 10)!.site.design.types).toHaveLength(2);
  expect(run('undoRelease', { release: done.value.release }).ok).toBe(true);
  expect(view.at(NOW + 10)!.site.design).toEqual(before);
});
