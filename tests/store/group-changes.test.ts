import { expect, test } from 'vitest';
import type { Field } from '@/core/design/field.ts';
import { withKind } from '@/core/design-edit/change-kind.ts';
import { stepsBetween } from '@/core/design-edit/between.ts';
import type { CommandInput, CommandName } from '@/server/commands/index.ts';
import { loadSite } from '@/server/commands/load-site.ts';
import { runCommand } from '@/server/commands/run.ts';
import { readSite } from '@/server/files/read-site.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { conversionOutcome } from '@/server/queries/conversion.ts';
import { entryDetail, newEntry } from '@/server/queries/entry.ts';
import { savedFiles } from '@/server/saving/saved-files.ts';
import { saveToFolder } from '@/server/saving/to-folder.ts';
import { at, loadFiles, temporaryFolder } from '../helpers/folder.ts';
import { derivedRows, rebuild } from '../helpers/snapshot.ts';

const FILES = {
  'types/crew.json': {
    key: 'crew',
    address: '/{title}',
    seo: { title: '{title}[: {rowers.seat}]' },
    fields: [
      { key: 'title', kind: 'text' },
      {
        key: 'rowers',
        kind: 'group',
        many: true,
        fields: [
          { key: 'name', kind: 'text' },
          { key: 'seat', kind: 'text', default: '1' },
          { key: 'from', kind: 'date', default: 'today' },
        ],
      },
    ],
  },
  'entries/crew.json': [
    {
      entry: { id: 'eight', live: '2026-03-02/' },
      title: 'Eight',
      rowers: [
        { name: 'Ann', seat: '7' },
        { name: 'Bo', seat: 'stroke' },
        { name: 'Cy', seat: '2' },
      ],
    },
    { entry: { id: 'pair', live: '2026-03-02/' }, title: 'Pair', rowers: [{ name: 'Di' }] },
  ],
};

async function site() {
  const loaded = await loadFiles(FILES, at('2026-07-01'));
  expect(loaded.issues).toEqual([]);
  const { connection, view, data } = loaded;
  let wall = at('2026-07-02');
  const run = <N extends CommandName>(name: N, input: CommandInput<N>) =>
    runCommand(connection, name, COMMAND_LINE, input, { wallClock: (wall += 1000) });
  const type = () => view.at(wall + 1)!.site.typesByKey.get('crew')!;
  const release = (fields: (of: Field[]) => Field[]): number => {
    const [title, rowers] = type().fields as [Field, Field];
    const now = { ...type(), fields: [title, { ...rowers, fields: fields(rowers.fields!) }] };
    const steps = stepsBetween('types/crew', type(), now, () => 'unused');
    const done = run('release', { edit: { steps } });
    if (!done.ok) throw new Error(JSON.stringify(done.issues));
    return (done.value as { release: number }).release;
  };
  const values = () => entryDetail(view, COMMAND_LINE, 'eight', wall + 1, wall + 1)!.values;
  return {
    ...loaded,
    run,
    release,
    values,
    now: () => wall + 1,
    items: () => values().rowers as Record<string, unknown>[],
    save: (rowers: object[]) =>
      run('saveEntry', {
        id: 'eight',
        type: 'crew',
        values: { title: 'Eight', rowers },
        seen: null,
      }),
    publish: () =>
      run('planChange', { entry: 'eight', action: 'publish', at: null, revision: null }),
    title: () => /<title>(.*)<\/title>/.exec(view.render('/eight', wall + 1)!.body)![1],
    savedAndLoaded: async () => {
      const folder = temporaryFolder();
      saveToFolder(savedFiles(connection, data, COMMAND_LINE), folder);
      const again = await loadFiles(FILES, at('2026-07-01'));
      const { site: read, issues } = await readSite(folder, wall + 1);
      expect(issues).toEqual([]);
      loadSite(again.connection, again.data, COMMAND_LINE, read!, wall + 1);
      return entryDetail(again.view, COMMAND_LINE, 'eight', wall + 1, wall + 1)!.values;
    },
    expectRebuilt: () => {
      const rows = derivedRows(connection);
      rebuild(connection, view);
      expect(derivedRows(connection)).toEqual(rows);
    },
  };
}

const asNumber = (fields: Field[]): Field[] =>
  fields.map((f) =>
    f.key === 'seat' ? withKind(f, f, { kind: 'number', many: false }, () => 'seat2') : f,
  );

test('a field of a group that becomes another kind reads what fits, and tells what does not', async () => {
  const s = await site();
  const part = 'types/crew/fields/rowers/fields/seat';
  const to = { id: 'x', key: 'x', kind: 'number', many: false } as Field;
  const clock = { at: s.now(), past: false, seeing: 'published' as const };
  expect(conversionOutcome(s.view, COMMAND_LINE, { part, to }, clock)).toMatchObject({
    filled: 1,
    losing: 1,
    lost: [{ id: 'eight', value: 'stroke' }],
    readers: { patterns: 1 },
  });
  s.release(asNumber);
  expect(s.title()).toBe('Eight: 7, 2');
  expect(s.items().map((item) => item.seat2)).toEqual([7, null, 2]);
  s.expectRebuilt();
});

test('taken back, it shows every value: those that did not fit, and those written since', async () => {
  const s = await site();
  const before = s.release(asNumber);
  const [ann, bo, cy] = s.items();
  const items = [bo!, { ...ann, seat2: 6 }, { name: 'Ed', seat2: '3' }, cy!];
  expect(s.save(items)).toMatchObject({ ok: true });
  s.publish();
  expect(s.title()).toBe('Eight: 6, 3, 2');
  expect(await s.savedAndLoaded()).toEqual(s.values());
  expect(s.run('undoRelease', { release: before })).toMatchObject({ ok: true });
  expect(s.items().map((item) => item.seat)).toEqual(['stroke', '6', '3', '2']);
  expect(s.title()).toBe('Eight: stroke, 6, 3, 2');
  s.expectRebuilt();
});

test('a field of a group that went and came back has what it held, saved meanwhile or not', async () => {
  const s = await site();
  const gone = s.release((fields) => fields.filter(({ key }) => key !== 'name'));
  const [ann, bo] = s.items();
  expect(s.save([{ ...ann, name: 'Made up' }])).toMatchObject({ ok: false });
  expect(s.save([bo!, { ...ann, seat: '5' }])).toMatchObject({ ok: true });
  expect(await s.savedAndLoaded()).toEqual(s.values());
  s.run('undoRelease', { release: gone });
  expect(s.items().map(({ name, seat }) => [name, seat])).toEqual([
    ['Bo', 'stroke'],
    ['Ann', '5'],
  ]);
});

test('a field of a group keeps its kind under the id it has', async () => {
  const s = await site();
  expect(() => s.release((all) => all.map((f) => ({ ...f, kind: 'text' })))).toThrow(
    'types/crew/fields/rowers/fields/from',
  );
});

test('a new item starts with what its fields start with', async () => {
  const s = await site();
  const { fields } = newEntry(s.view, COMMAND_LINE, 'crew', at('2026-07-02'))!.type;
  expect(fields[1]!.starts).toEqual({ name: null, seat: '1', from: '2026-07-02' });
});
