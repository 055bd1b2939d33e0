import { expect, test } from 'vitest';
import { COMMAND_LINE } from '@/server/permit.ts';
import { settingsOutcome } from '@/server/queries/settings.ts';
import { at, loadFiles } from '../helpers/folder.ts';
import { setting } from '../helpers/release.ts';

const NOW = at('2026-07-01');
const FILES = {
  'types/note.json': { key: 'note', fields: [{ key: 'title', kind: 'text' }] },
  'entries/note/a.json': {
    entry: { id: 'a', live: ['2026-08-01T10:00/2026-12-01T10:00'] },
    title: 'A',
  },
};

test('another zone names the plans that are read at another hour, and only those', async () => {
  const { view, issues } = await loadFiles(FILES, NOW);
  expect(issues).toEqual([]);
  const was = view.at(NOW)!.site.design.site.zone;
  const shifted = (zone: string) => {
    const steps = setting(view.at(NOW)!.site.design, 'site', { zone });
    const looking = { at: NOW, past: false, seeing: 'published' as const };
    const { total, first } = settingsOutcome(view, COMMAND_LINE, { steps }, looking)!.shifted;
    return [total, ...first.map(({ name, action }) => `${name} ${action}`)];
  };
  expect(was).toBe('Europe/Dublin');
  expect(shifted('Europe/Berlin')).toEqual([2, 'A publish', 'A retire']);
  // Lagos has Dublin's hour in summer alone.
  expect(shifted('Africa/Lagos')).toEqual([1, 'A retire']);
  expect(shifted('Europe/London')).toEqual([0]);
  expect(shifted(was)).toEqual([0]);
});

test('a share picture that is not there is told when a folder is loaded', async () => {
  const site = { name: 'S', url: 'https://s.example', zone: 'UTC', language: 'en' };
  const { issues } = await loadFiles(
    { ...FILES, 'site.yaml': { ...site, sharePicture: 'none.png' } },
    NOW,
  );
  expect(issues).toMatchObject([{ code: 'unknown-name', path: 'site.yaml' }]);
});
