import { describe, expect, test } from 'vitest';
import { type Files, SITE, loadFiles } from '../helpers/folder.ts';

const note = { key: 'note', address: '/{title}', fields: [{ key: 'title', kind: 'text' }] };
const withField = (field: object): object => ({ ...note, fields: [...note.fields, field] });
const many = <T>(n: number, of: (i: number) => T): T[] =>
  Array.from({ length: n }, (_, i) => of(i));
const md = (body: string): string => `---\ntitle: A\n---\n${body}\n`;
const body = withField({ key: 'body', kind: 'richtext' });
const deep = (n: number): string => `${'['.repeat(n)}x${']'.repeat(n)}`;

describe('too much is refused in words, in time, without a stack', () => {
  const cases: [string, Files, RegExp][] = [
    [
      'lists 1,200 deep',
      {
        'types/note.yaml': body,
        'entries/note/a.md': md(many(1200, (i) => `${'  '.repeat(i)}- x`).join('\n')),
      },
      /at most 100 deep/,
    ],
    [
      '50,000 links',
      { 'types/note.yaml': body, 'entries/note/a.md': md('[a](/b) '.repeat(50_000)) },
      /at most 10000 links/,
    ],
    [
      'a line of ten megabytes',
      { 'types/note.yaml': body, 'entries/note/a.md': md('word '.repeat(2_000_000)) },
      /MB|large/,
    ],
    [
      'quotes 10,000 deep',
      { 'types/note.yaml': body, 'entries/note/a.md': md('>'.repeat(10_000)) },
      /at most 100 deep/,
    ],
    ['YAML 10,000 deep', { 'types/note.yaml': `key: ${deep(10_000)}` }, /deep/],
    [
      'YAML anchors in a circle',
      { 'types/note.yaml': '&a\nkey: note\nfields: [*a]\n' },
      /stands within what it names/,
    ],
    [
      '3,000 fields',
      {
        'types/note.yaml': { ...note, fields: many(3000, (i) => ({ key: `f${i}`, kind: 'text' })) },
      },
      /fields/,
    ],
    [
      '20,000 conditions',
      {
        'types/note.yaml': note,
        'listings/all.yaml': {
          key: 'all',
          type: 'note',
          where: { all: many(20_000, () => ({ field: 'title', op: 'is', value: 'x' })) },
        },
      },
      /conditions/,
    ],
    [
      '3,000 references to entries that are not there',
      {
        'types/note.yaml': withField({ key: 'next', kind: 'reference', many: true }),
        'entries/note.yaml': many(3000, (i) => ({
          entry: { id: `n${i}` },
          title: `N${i}`,
          next: [`m${i}`],
        })),
      },
      /points at "m0"/,
    ],
    [
      '5,000 pages within each other',
      {
        'types/note.yaml': {
          ...withField({ key: 'inside', kind: 'reference', types: ['note'], sitsWithin: true }),
          address: '[{within.path}]/{title}',
        },
        'entries/note.yaml': many(5000, (i) => ({
          entry: { id: `n${i}`, saved: '2026-01-01', live: '2026-01-01' },
          title: `N${i}`,
          ...(i > 0 ? { inside: `n${i - 1}` } : {}),
        })),
      },
      /deep|within/,
    ],
    [
      'a text of three megabytes',
      { 'types/note.yaml': note, 'entries/note.yaml': [{ title: 'x'.repeat(3_000_000) }] },
      /long|large|MB/,
    ],
  ];

  test.each(cases)(
    '%s',
    async (_, files, said) => {
      const { result, issues } = await loadFiles(files);
      expect(result.ok).toBe(false);
      expect(issues.map((i) => i.message).join('\n')).toMatch(said);
      for (const { message, fix } of issues)
        expect(`${message}${fix ?? ''}`.length).toBeLessThan(2000);
    },
    60_000,
  );
});

describe('front matter', () => {
  const read = async (source: string) => {
    const { view, issues } = await loadFiles({
      'types/note.yaml': { ...note, fields: [...note.fields, { key: 'summary', kind: 'text' }] },
      'entries/note/a.md': source,
    });
    return { issues, pages: issues.length > 0 ? [] : view.pages(Date.parse('2026-06-01'))! };
  };

  test('ends only at a line that is three hyphens and nothing else', async () => {
    const { issues, pages } = await read(
      '---\nsummary: To be continued ---\nentry: { saved: 2026-01-01, live: 2026-01-01 }\ntitle: A\n---\n',
    );
    expect(issues).toEqual([]);
    expect(pages.map((p) => p.path)).toContain('/a');
  });

  test('may hold three hyphens within a value of several lines, indented', async () => {
    const { pages } = await read(
      '---\nsummary: |\n  one\n  ---\n  two\nentry: { saved: 2026-01-01, live: 2026-01-01 }\ntitle: A\n---\n',
    );
    expect(pages.map((p) => p.path)).toContain('/a');
  });

  test.each(['\ufeff', ''])(
    'is read with and without a byte-order mark, and with CRLF',
    async (mark) => {
      const { issues, pages } = await read(
        `${mark}---\r\nentry: { saved: 2026-01-01, live: 2026-01-01 }\r\ntitle: A\r\n---\r\n`,
      );
      expect(issues).toEqual([]);
      expect(pages.map((p) => p.path)).toContain('/a');
    },
  );
});

describe('loads that are refused, with the place', () => {
  const live = { saved: '2026-01-01', live: '2026-01-01' };
  const byHand = (address: unknown): Files => ({
    'types/note.yaml': note,
    'listings/all.yaml': { key: 'all', type: 'note', address: '/all' },
    'entries/note.yaml': [{ entry: { id: 'a', ...live, address }, title: 'A' }],
  });
  const redirects = (...list: object[]): Files => ({
    'types/note.yaml': note,
    'redirects.yaml': list,
  });

  test.each<[string, RegExp, Files]>([
    ['an address by hand without a slash', /starts with "\/"/, byHand('here')],
    ['one that is reserved', /keeps it for itself/, byHand('/media/x')],
    ['one of a sitemap', /keeps it for itself/, byHand('/sitemap-1.xml')],
    ['one of a listing', /a listing stands there/, byHand('/all')],
    ['one of a listing’s second page', /listing’s pages stand there/, byHand('/all/page-2')],
    [
      'a site address with a path',
      /a scheme and a host/,
      { 'types/note.yaml': note, 'site.yaml': { ...SITE, url: 'https://a.example/x' } },
    ],
    [
      'a site address with a user',
      /a scheme and a host/,
      { 'types/note.yaml': note, 'site.yaml': { ...SITE, url: 'https://u:p@a.example' } },
    ],
    [
      'redirects in a ring',
      /circle/,
      redirects({ from: '/a', to: '/b' }, { from: '/b', to: '/a' }),
    ],
    [
      'a redirect given twice',
      /Two redirects start at \/a/,
      redirects({ from: '/a', to: '/b' }, { from: '/a', to: '/c' }),
    ],
    [
      'a redirect from a reserved path',
      /keeps \/media\/x for itself/,
      redirects({ from: '/media/x', to: '/b' }),
    ],
    [
      'a redirect to a script',
      /A redirect leads to/,
      redirects({ from: '/a', to: 'javascript:alert(1)' }),
    ],
    [
      'a redirect to another host in disguise',
      /A redirect leads to/,
      redirects({ from: '/a', to: '//other.example' }),
    ],
    [
      'doubled columns of a table',
      /title/,
      { 'types/note.yaml': note, 'entries/note.csv': 'title,title\nA,B\n' },
    ],
    [
      'a stray file among types',
      /holds .yaml and .json files, and this is none/,
      { 'types/note.yaml': note, 'types/a.yaml.bak': 'x' },
    ],
    [
      'a day past the year 9999',
      /years 1 to 9999/,
      {
        'types/note.yaml': withField({ key: 'on', kind: 'datetime' }),
        'entries/note.yaml': [{ title: 'A', on: 9_000_000_000_000_000 }],
      },
    ],
    [
      'a condition on a day that no calendar has',
      /today ± days/,
      {
        'types/note.yaml': withField({ key: 'on', kind: 'date' }),
        'listings/all.yaml': {
          key: 'all',
          type: 'note',
          where: { field: 'on', op: 'on-or-after', value: 'today + 200000000' },
        },
      },
    ],
    [
      'a style sheet that reaches out',
      /only use files of this site/,
      { 'types/note.yaml': note, 'style.css': 'p { background: u\\72l(https://x.example/a) }' },
    ],
    [
      'a style sheet with a foreign picture',
      /may not use image-set/,
      {
        'types/note.yaml': note,
        'style.css': 'p { background: image-set("https://x.example/a" 1x) }',
      },
    ],
    [
      'a font of more than 4 MB',
      /larger than 4 MB/,
      { 'types/note.yaml': note, 'style/big.woff2': `wOF2${'x'.repeat(4 * 1024 * 1024)}` },
    ],
    [
      'a font that is none',
      /WOFF2, and this is none/,
      { 'types/note.yaml': note, 'style/odd.woff2': 'words' },
    ],
    [
      'a picture that is none',
      /not a picture that can be read/,
      { 'types/note.yaml': note, 'media/odd.png': 'words' },
    ],
  ])('%s', async (_, words, files) => {
    const { result, issues } = await loadFiles(files);
    expect(result.ok).toBe(false);
    expect(issues.map((i) => i.message).join('\n')).toMatch(words);
    for (const { path } of issues) expect(path).toEqual(expect.any(String));
  });

  test.each<[string, Files]>([
    ['folders of tools', { '.git/config': 'x', '.vscode/settings.json': '{}' }],
    [
      'an id with letters that addresses encode',
      { 'entries/note.yaml': [{ entry: { id: 'pea_1', ...live }, title: 'P' }] },
    ],
  ])('%s are no matter', async (_, files) => {
    const { issues } = await loadFiles({ 'types/note.yaml': note, ...files });
    expect(issues).toEqual([]);
  });
});
