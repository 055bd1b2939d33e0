import { describe, expect, test } from 'vitest';
import { applyEdit } from '@/core/design-edit/edit.ts';
import type { Wanted } from '@/core/design-edit/change-kind.ts';
import type { CommandInput, CommandName } from '@/server/commands/index.ts';
import { runCommand } from '@/server/commands/run.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { conversionOutcome } from '@/server/queries/conversion.ts';
import { entryDetail } from '@/server/queries/entry.ts';
import { Validity } from '@/core/time/interval.ts';
import { at, loadFiles } from '../helpers/folder.ts';
import { kindSteps } from '../helpers/random-edits.ts';
import { derivedRows, rebuild } from '../helpers/snapshot.ts';
import { setting } from '../helpers/release.ts';

const race = (id: string, values: object, live = '2026-01-01/') => ({
  entry: { id, live },
  title: id,
  ...values,
});
const FILES = {
  'types/boat.json': {
    key: 'boat',
    address: '/boats/{title}',
    fields: [{ key: 'title', kind: 'text' }],
  },
  'types/race.json': {
    key: 'race',
    address: '/{boat.title ?? "all"}/{title}',
    fields: [
      { key: 'title', kind: 'text' },
      { key: 'water', kind: 'text' },
      { key: 'boat', kind: 'reference', types: ['boat'] },
    ],
  },
  'listings/calm.json': {
    key: 'calm',
    type: 'race',
    address: '/calm',
    where: { field: 'water', op: 'is-not', value: 'rough' },
    sort: ['water', 'title'],
  },
  'entries/boat.json': [race('Swift', {}), race('Heron', {})],
  'entries/race.json': [
    race('Spring', { water: 'Calm', boat: 'Swift' }),
    race('Summer', { water: 'rough', boat: 'Heron' }),
    race('Autumn', { water: 'as it comes' }),
    race('Winter', {}),
  ],
};

async function site() {
  const { connection, view, issues } = await loadFiles(FILES, at('2026-07-01'));
  expect(issues).toEqual([]);
  let wall = at('2026-07-02');
  const run = <N extends CommandName>(name: N, input: CommandInput<N>) => {
    const done = runCommand(connection, name, COMMAND_LINE, input, { wallClock: (wall += 1000) });
    if (!done.ok) throw new Error(JSON.stringify(done.issues));
    return done.value;
  };
  const now = (): number => wall + 1;
  const type = (instant = now()) => view.at(instant)!.site.typesByKey.get('race')!;
  const fieldId = (key: string, instant = now()): string =>
    type(instant).fields.find((f) => f.key === key)!.id;
  return {
    connection,
    view,
    run,
    now,
    steps: (field: string, wanted: Wanted) =>
      kindSteps(view.at(now())!.site.design, `types/race/fields/${fieldId(field)}`, wanted),
    field: (key: string, instant = now()) => type(instant).fields.find((f) => f.key === key)!,
    values: (id: string, instant = now()) => {
      const { values } = entryDetail(view, COMMAND_LINE, id, instant, instant)!;
      return (key: string): unknown => values[fieldId(key, instant)] ?? null;
    },
    list: (key: string, instant = now()) => {
      const { site: found, reader } = view.at(instant)!;
      return reader.listing(found.listings.get(key)!, new Validity(instant), 0, 10).ids;
    },
    expectRebuilt: () => {
      const rows = derivedRows(connection);
      rebuild(connection, view);
      expect(derivedRows(connection)).toEqual(rows);
    },
  };
}
const OPTIONS = [
  { id: 'c', key: 'calm', label: 'Calm' },
  { id: 'r', key: 'rough', label: 'Rough' },
];
const withOptions = (steps: ReturnType<Awaited<ReturnType<typeof site>>['steps']>) =>
  steps.map((step) =>
    step.do === 'add' ? { ...step, part: { ...step.part, options: OPTIONS } } : step,
  );

describe('a text that becomes a choice', () => {
  test('shows its values as options, in forms, lists and on pages', async () => {
    const s = await site();
    const before = s.now();
    const { edits } = { edits: withOptions(s.steps('water', { kind: 'choice', many: false })) };
    s.run('release', { edit: { steps: edits } });
    expect(s.values('Spring')('water')).toBe('c');
    expect(s.values('Autumn')('water')).toBe(null);
    expect(s.list('calm')).toEqual(['Spring', 'Autumn', 'Winter']);
    expect(s.list('calm', before)).toEqual(['Autumn', 'Spring', 'Winter']);
    expect(s.view.render('/swift/spring', s.now())!.body).toContain('<dd>Calm</dd>');
    s.expectRebuilt();
  });

  test('does so when its instant comes, and not before', async () => {
    const s = await site();
    const steps = withOptions(s.steps('water', { kind: 'choice', many: false }));
    const { id } = s.run('editDesign', { steps });
    s.run('release', { edits: [id], at: '2026-09-01T08:00' });
    const later = at('2026-09-02');
    expect(s.values('Spring')('water')).toBe('Calm');
    expect(s.list('calm')).toEqual(['Autumn', 'Spring', 'Winter']);
    expect(s.list('calm', later)).toEqual(['Spring', 'Autumn', 'Winter']);
    s.run('saveEntry', {
      id: 'Winter',
      type: 'race',
      values: { title: 'Winter', water: 'calm' },
      seen: null,
    });
    s.run('planChange', { entry: 'Winter', action: 'publish', at: null, revision: null });
    expect(s.list('calm', later)).toEqual(['Spring', 'Winter', 'Autumn']);
    s.expectRebuilt();
  });

  test('tells what does not fit, and what is in use', async () => {
    const s = await site();
    const [, added] = withOptions(s.steps('water', { kind: 'choice', many: false }));
    const to = (added as { part: unknown }).part as never;
    const input = { part: 'types/race/fields/water', to };
    const clock = { at: s.now(), past: false, seeing: 'published' as const };
    expect(conversionOutcome(s.view, COMMAND_LINE, input, clock)).toEqual({
      filled: 3,
      losing: 1,
      lost: [{ id: 'Autumn', name: 'Autumn', value: 'as it comes' }],
      readers: {
        patterns: 0,
        listings: 1,
        templates: 0,
        lines: ['listing Calm: order', 'listing Calm, water'],
      },
      values: ['as it comes', 'Calm', 'rough'].map((value) => ({ value, count: 1 })),
    });
    const gone = conversionOutcome(s.view, COMMAND_LINE, { ...input, to: null }, clock)!;
    expect([gone.filled, gone.losing]).toEqual([3, 3]);
  });

  test('and is taken back shows every value, those that did not fit and those written since', async () => {
    const s = await site();
    const steps = withOptions(s.steps('water', { kind: 'choice', many: false }));
    const { release } = s.run('release', { edit: { steps } }) as { release: number };
    const { id } = s.field('water');
    for (const [entry, water] of [
      ['Winter', 'r'],
      ['Autumn', null],
      ['Spring', null],
    ] as const)
      s.run('saveEntry', {
        id: entry,
        type: 'race',
        values: { title: entry, [id]: water },
        seen: null,
      });
    expect(s.values('Winter')('water')).toBe('r');
    expect(s.values('Spring')('water')).toBe(null);
    s.run('undoRelease', { release });
    expect(s.values('Summer')('water')).toBe('rough');
    expect(s.values('Winter')('water')).toBe('Rough');
    expect(s.values('Spring')('water')).toBe(null);
    s.expectRebuilt();
  });
});

test('a list over a field as it will be is shown before any release as after it', async () => {
  const s = await site();
  const steps = withOptions(s.steps('water', { kind: 'choice', many: false }));
  const { design } = s.view.at(s.now())!.site;
  const unsaved = applyEdit(design, { steps });
  if (!unsaved.ok) throw new Error(JSON.stringify(unsaved.issues));
  const { site: compiled } = unsaved.value;
  const reader = s.view.readerOf(compiled);
  const shown = (without: string[]) =>
    reader.listing(compiled.listings.get('calm')!, new Validity(s.now()), 1, 1, without);
  expect(shown([])).toEqual({ ids: ['Autumn'], total: 3 });
  expect(shown(['Autumn'])).toEqual({ ids: ['Winter'], total: 2 });
});

describe('a reference that becomes one of several', () => {
  test('goes on building addresses, and is found from the other side', async () => {
    const s = await site();
    s.run('release', { edit: { steps: s.steps('boat', { kind: 'reference', many: true }) } });
    expect(s.values('Spring')('boat')).toEqual(['Swift']);
    expect(s.view.render('/swift/spring', s.now())!.status).toBe(200);
    s.run('saveEntry', { id: 'Swift', type: 'boat', values: { title: 'Swifter' }, seen: null });
    s.run('planChange', { entry: 'Swift', action: 'publish', at: null, revision: null });
    expect(s.view.render('/swifter/spring', s.now())!.status).toBe(200);
    s.expectRebuilt();
  });

  test('and one again shows the first, and loses none', async () => {
    const s = await site();
    const several = s.run('release', {
      edit: { steps: s.steps('boat', { kind: 'reference', many: true }) },
    }) as { release: number };
    const { id } = s.field('boat');
    const save = (values: object): void =>
      void s.run('saveEntry', {
        id: 'Spring',
        type: 'race',
        values: { title: 'Spring', ...values },
        seen: null,
      });
    save({ [id]: ['Heron', 'Swift'] });
    s.run('planChange', { entry: 'Spring', action: 'publish', at: null, revision: null });
    const { release } = s.run('release', {
      edit: { steps: s.steps('boat', { kind: 'reference', many: false }) },
    }) as { release: number };
    expect(s.values('Spring')('boat')).toBe('Heron');
    s.expectRebuilt();
    s.run('undoRelease', { release });
    expect(s.values('Spring')('boat')).toEqual(['Heron', 'Swift']);
    s.run('undoRelease', { release: several.release });
    expect(s.values('Summer')('boat')).toBe('Heron');
    s.expectRebuilt();
  });
});

test('a field that went and came back has what it held, in entries saved meanwhile too', async () => {
  const s = await site();
  const { design } = s.view.at(s.now())!.site;
  const fields = design.types.find((t) => t.id === 'race')!.fields.filter((f) => f.key !== 'boat');
  const without = setting(design, 'types/race', { fields, address: '/races/{title}' });
  const { release } = s.run('release', { edit: { steps: without } }) as { release: number };
  s.run('saveEntry', {
    id: 'Spring',
    type: 'race',
    values: { title: 'Spring', water: 'Calm' },
    seen: null,
  });
  s.run('planChange', { entry: 'Spring', action: 'publish', at: null, revision: null });
  s.run('undoRelease', { release });
  expect(s.values('Spring')('boat')).toBe('Swift');
  s.run('saveEntry', { id: 'Swift', type: 'boat', values: { title: 'Swifter' }, seen: null });
  s.run('planChange', { entry: 'Swift', action: 'publish', at: null, revision: null });
  expect(s.view.render('/swifter/spring', s.now())!.status).toBe(200);
  s.expectRebuilt();
});
