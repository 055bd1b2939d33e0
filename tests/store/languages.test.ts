import { expect, test } from 'vitest';
import { readValues, storedValues } from '@/server/store/stored-values.ts';
import { SITE, at, loadFiles } from '../helpers/folder.ts';

const TYPE = {
  key: 'note',
  address: '/{code}',
  fields: [
    { key: 'title', kind: 'text' },
    { key: 'code', kind: 'text', translated: false },
    { key: 'stock', kind: 'number' },
    { key: 'body', kind: 'richtext' },
  ],
};

test('a revision keeps translated values by language, shared ones once, and a language reads only its own', async () => {
  const { connection, view, result } = await loadFiles({
    'site.yaml': { ...SITE, language: 'en-IE' },
    'types/note.json': TYPE,
    'entries/note/a.json': {
      entry: { id: 'a', live: '2026-01-01' },
      title: 'Pea',
      code: 'p1',
      stock: 3,
      body: 'Words.',
    },
  });
  expect(result).toMatchObject({ ok: true });
  const json = connection.driver.prepare('SELECT "values" FROM revision').pluck().get() as string;
  expect(JSON.parse(json)).toMatchObject({
    title: { languages: { 'en-IE': 'Pea' } },
    code: 'p1',
    stock: 3,
    body: { languages: { 'en-IE': { type: 'doc' } } },
  });
  expect(readValues(json, 'de')).toMatchObject({ title: null, code: 'p1', stock: 3, body: null });
  expect(view.render('/p1', at('2026-06-01'))!.body).toContain('<h1>Pea</h1>');
  const rows = connection.driver
    .prepare(
      `SELECT language FROM live_interval UNION SELECT language FROM address UNION SELECT language FROM planned_change`,
    )
    .pluck()
    .all();
  expect(rows).toEqual(['en-IE']);
});

test('values written in a language are read back in it as they were', async () => {
  const { view } = await loadFiles({ 'types/note.json': TYPE });
  const type = view.at(at('2026-06-01'))!.site.types.get('note')!;
  const values = { title: 'Pea', code: 'p1', stock: 0, body: { type: 'doc', content: [] } };
  expect(readValues(JSON.stringify(storedValues(type, values, 'en')), 'en')).toEqual(values);
  expect(readValues(JSON.stringify(storedValues(type, { title: null }, 'en')), 'en')).toEqual({
    title: null,
  });
});
