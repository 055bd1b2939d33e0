import { expect, test } from 'vitest';
import { Validity } from '@/core/time/interval.ts';
import { withEntries } from '@/server/store/overlay-reader.ts';
import { runCommand } from '@/server/commands/run.ts';
import { countStatements } from '../helpers/count-statements.ts';
import { ANN } from '../helpers/seeds.ts';
import { at, loadFiles } from '../helpers/folder.ts';
import { entry, note } from '../helpers/notes.ts';

const NOW = at('2026-07-01');
const LIVE = ['2026-01-01/'];
const numbers = Array.from({ length: 60 }, (_, n) => n);
const id = (n: number): string => `g${String(n).padStart(2, '0')}`;

/** Sixty notes that others are about, the last of them oftener; the first ten are called alike. */
const FILES = {
  'types/note.json': note({ address: '/{title}' }),
  'listings/all.json': {
    ...{ key: 'all', type: 'note', address: '/all', sort: ['title'] },
    visitor: { filters: ['about'] },
  },
  'entries/note.json': numbers.flatMap((n) => [
    entry(id(n), n < 10 ? 'Ana' : `Name ${n}`, LIVE),
    ...[0, ...(n < 10 || n >= 55 ? [1] : [])].map((i) =>
      entry(`v${n}-${i}`, `Of ${n}`, LIVE, {}, { about: id(n) }),
    ),
  ]),
};

const offered = (body: string): string[] =>
  [...body.matchAll(/name="about\[\]" value="(\w+)"/g)].map(([, value]) => value!);

test('the values a visitor chooses among are those of the most entries, by name', async () => {
  const { view } = await loadFiles(FILES);
  const shown = offered(view.render('/all', NOW)!.body);
  expect(shown).toHaveLength(50);
  expect(shown.slice(0, 10)).toEqual(numbers.slice(0, 10).map(id));
  expect(shown.slice(-5)).toEqual(numbers.slice(-5).map(id));
  expect(offered(view.render('/all?about=g50', NOW)!.body)).toContain('g50');
});

test('entries come in the order they are asked for, whatever was read before', async () => {
  const { view } = await loadFiles(FILES);
  const { reader } = view.at(NOW)!;
  const asked = ['g03', 'g01', 'nobody', 'g02'];
  const read = (ids: string[]): string[] => [...reader.liveEntries(ids, new Validity(NOW)).keys()];
  expect(read(['g02', 'g01'])).toEqual(['g02', 'g01']);
  expect(read(asked)).toEqual(['g03', 'g01', 'g02']);
  const some = view.at(NOW)!.reader.liveEntries(['g01'], new Validity(NOW)).get('g01')!;
  const seen = withEntries(reader, { entries: [some], moved: new Map() });
  expect([...seen.liveEntries(asked, new Validity(NOW)).keys()]).toEqual(read(asked));
});

test('how many have a value is counted once, until somebody writes or one comes or leaves', async () => {
  const left = entry('leaves', 'Leaves', ['2026-01-01/2026-07-02'], {}, { about: 'g00' });
  const held = await loadFiles({ ...FILES, 'entries/note/leaves.json': [left] });
  const { view, connection } = held;
  const counted = (instant: number): unknown[] => {
    const { site, reader } = view.at(instant)!;
    const plan = site.listings.get('all')!;
    let counts = new Map<string, number>();
    const read = (): void => void (counts = reader.counts(plan, 'about', new Validity(instant)));
    const statements = countStatements(connection, read);
    return [counts.get('g00'), statements > 0];
  };
  expect(counted(NOW)).toEqual([3, true]);
  expect(counted(NOW + 1000)).toEqual([3, false]);
  expect(counted(at('2026-07-02'))).toEqual([2, true]);
  expect(counted(NOW)).toEqual([3, true]);
  const retired = { entry: 'v0-0', action: 'retire', at: null, revision: null } as const;
  const wallClock = at('2026-07-01T13:00:00Z');
  expect(counted(wallClock)).toEqual([3, false]);
  expect(runCommand(connection, 'planChange', ANN, retired, { wallClock }).ok).toBe(true);
  expect(counted(wallClock)).toEqual([2, true]);
});
