import { describe, expect, test } from 'vitest';
import { type Files, SITE, at, loadFiles } from '../helpers/folder.ts';
import type { PageMeta } from '@/core/metadata/head.ts';

const LONG = 'A paragraph of words that goes on and on, '.repeat(6).trim();

function site(seo: object, fields: object, more: Files = {}): Files {
  return {
    'types/note.json': {
      key: 'note',
      address: '/n',
      summary: 'lead',
      seo,
      fields: [
        { key: 'title', kind: 'text' },
        { key: 'lead', kind: 'paragraphs' },
        { key: 'code', kind: 'text' },
        { key: 'body', kind: 'richtext' },
      ],
    },
    'entries/note/a.json': { entry: { id: 'a', live: '2026-01-01' }, ...fields },
    ...more,
  };
}

async function meta(files: Files, path = '/n'): Promise<PageMeta> {
  const { view, result } = await loadFiles(files);
  expect(result).toMatchObject({ ok: true });
  return view.render(path, at('2026-06-01'))!.meta!;
}

describe('the metadata of an entry', () => {
  test('by default: the naming field alone, and the summary', async () => {
    expect(
      await meta(
        site({}, { title: ' Blue\n pea ', lead: 'Sweet and\nblue.', body: '# Head\n\nFirst.' }),
      ),
    ).toMatchObject({
      title: 'Blue pea',
      description: 'Sweet and blue.',
      canonical: 'https://test.example/n',
      index: true,
    });
  });

  test('a blank naming field gives way to the first heading, a blank summary to the first paragraph, cut at a word', async () => {
    const { title, description } = await meta(
      site({}, { title: '  ', body: `## The *head*\n\n${LONG}\n\nSecond.` }),
    );
    expect(title).toBe('The head');
    expect(description).toMatch(
      /^A paragraph of words .* goes on and on,( A paragraph of words that goes on and on,)* A?.*…$/,
    );
    expect([...description!].length).toBeLessThanOrEqual(155);
    expect(LONG.startsWith(description!.slice(0, -1))).toBe(true);
    expect(LONG[description!.length - 1]).toBe(' ');
  });

  test('nothing to describe gives no description, and a page without any name that of the site', async () => {
    const files = site({}, { code: 'x' });
    expect(await meta(files)).toMatchObject({ title: 'Test site', description: null });
    const { view } = await loadFiles(files);
    expect(view.render('/n', at('2026-06-01'))!.body).not.toContain('name="description"');
  });

  test('a rule that comes out blank counts as not set; the type’s own comes before the site’s', async () => {
    const siteSeo = {
      'site.yaml': {
        ...SITE,
        seo: { title: '{entry.name} | {site.name}', description: '[{entry.author}]' },
      },
    };
    expect(
      await meta(site({ title: '{code}' }, { title: 'Pea', code: ' ', lead: 'Lead.' }, siteSeo)),
    ).toMatchObject({ title: 'Pea | Test site', description: 'Lead.' });
    expect(
      await meta(site({ title: '{code}!' }, { title: 'Pea', code: 'P1' }, siteSeo)),
    ).toMatchObject({ title: 'P1!' });
  });

  test('values are escaped where they stand, whatever they hold', async () => {
    const { view } = await loadFiles(site({}, { title: '</title><script>"&\'', lead: '"><img>' }));
    const { body } = view.render('/n', at('2026-06-01'))!;
    expect(body).toContain('<title>&lt;/title&gt;&lt;script&gt;&quot;&amp;&#39;</title>');
    expect(body).toContain('<meta name="description" content="&quot;&gt;&lt;img&gt;">');
    expect(body).not.toMatch(/<script|<img>/);
  });

  test('robots are told where they may not list or follow, and the sitemap leaves such pages out', async () => {
    const { view } = await loadFiles(site({ index: false, follow: false }, { title: 'Pea' }));
    expect(view.render('/n', at('2026-06-01'))!.body).toContain(
      '<meta name="robots" content="noindex, nofollow">',
    );
    expect(view.render('/sitemap.xml', at('2026-06-01'))!.body).not.toContain(
      '<loc>https://test.example/n</loc>',
    );
  });
});

describe('the metadata of a listing', () => {
  const files = (language: string): Files => ({
    'site.yaml': { ...SITE, language },
    'types/note.json': { key: 'note', fields: [{ key: 'title', kind: 'text' }] },
    'listings/all.json': {
      key: 'all',
      type: 'note',
      address: '/all',
      pageSize: 1,
      seo: { title: 'Notes of {site.name}' },
    },
    'entries/note.json': [1, 2].map((n) => ({ entry: { live: '2026-01-01' }, title: `N${n}` })),
  });

  test('every page is its own canonical, and says its number after the title in the site’s language', async () => {
    expect(await meta(files('en'), '/all')).toMatchObject({
      title: 'Notes of Test site',
      canonical: 'https://test.example/all',
    });
    expect(await meta(files('en'), '/all/page-2')).toMatchObject({
      title: 'Notes of Test site · page 2',
      canonical: 'https://test.example/all/page-2',
    });
    expect(await meta(files('de-AT'), '/all/page-2')).toMatchObject({
      title: 'Notes of Test site · Seite 2',
    });
  });

  test('page 1 of an empty listing answers 200, further ones 404', async () => {
    const { view } = await loadFiles({ ...files('en'), 'entries/note.json': [] });
    expect(
      ['/all', '/all/page-2'].map((path) => view.render(path, at('2026-06-01'))!.status),
    ).toEqual([200, 404]);
  });
});
