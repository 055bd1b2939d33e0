import { UNTOLD } from '../design/values.ts';
import { describe, expect, test } from 'vitest';
import { designOf, typeOf, viewOf } from '../../../tests/helpers/design.ts';
import { MemoryReader } from '../../../tests/helpers/memory-reader.ts';
import type { Values } from '../design/values.ts';
import { compileSite } from '../site/compile.ts';
import { renderEntry } from '../site/render.ts';
import { type PageMeta, headHtml, robots } from './head.ts';
import { robotsTxt, sitemapIndexXml, sitemapXml } from './sitemap.ts';

const meta: PageMeta = {
  title: 'Pea "&" <Bean>',
  description: 'It’s a <pea>.',
  canonical: 'https://seeds.example/pea?a=1&b=2',
  index: true,
  follow: true,
  language: 'en-IE',
  siteName: 'Seeds',
  shareType: 'article',
  picture: { url: 'https://seeds.example/p.webp', alt: 'A "pea"', width: 800, height: 600 },
};

describe('the head of a page', () => {
  test('says what the page is, once each, escaped', () => {
    const html = headHtml(meta);
    expect(html).toContain('<title>Pea &quot;&amp;&quot; &lt;Bean&gt;</title>');
    expect(html).toContain('<link rel="canonical" href="https://seeds.example/pea?a=1&amp;b=2">');
    expect(html).toContain('<meta property="og:locale" content="en_IE">');
    expect(html).toContain('<meta property="og:image:alt" content="A &quot;pea&quot;">');
    const names = [...html.matchAll(/<meta (?:name|property)="([^"]+)"/g)].map((m) => m[1]);
    expect(new Set(names).size).toBe(names.length);
    expect(html).not.toContain('robots');
  });

  test('says nothing of what there is not', () => {
    const html = headHtml({ ...meta, description: null, canonical: null, picture: null });
    expect(html).not.toMatch(/description|canonical|og:url|og:image/);
    expect(headHtml({ ...meta, picture: { ...meta.picture!, alt: '' } })).not.toContain(
      'image:alt',
    );
  });

  test.each([
    [true, true, 'all'],
    [false, true, 'noindex'],
    [true, false, 'nofollow'],
    [false, false, 'noindex, nofollow'],
  ])('tells robots: index %s, follow %s is "%s"', (index, follow, expected) => {
    expect(robots({ index, follow })).toBe(expected);
    expect(headHtml({ ...meta, index, follow }).includes(`content="${expected}"`)).toBe(
      expected !== 'all',
    );
  });
});

describe('sitemaps', () => {
  test('name pages by whole addresses, with the day they changed where that is known', () => {
    const xml = sitemapXml('https://seeds.example', [
      { path: '/a&b', modified: Date.parse('2026-07-01T12:00:00Z') },
      { path: '/', modified: null },
    ]);
    expect(xml).toContain(
      '<url><loc>https://seeds.example/a&amp;b</loc><lastmod>2026-07-01T12:00:00.000Z</lastmod></url>',
    );
    expect(xml).toContain('<url><loc>https://seeds.example/</loc></url>');
    expect(xml).toMatch(/^<\?xml version="1.0" encoding="UTF-8"\?>\n<urlset xmlns=/);
  });

  test('are named by an index and by robots.txt', () => {
    expect(sitemapIndexXml('https://s.example', 2).match(/<loc>[^<]+/g)).toEqual([
      '<loc>https://s.example/sitemap-1.xml',
      '<loc>https://s.example/sitemap-2.xml',
    ]);
    expect(robotsTxt('https://s.example')).toMatch(
      /^User-agent: \*\n(Disallow: \S+\n)+\nSitemap: /,
    );
  });
});

describe('the rules of a type', () => {
  const rich = (...words: string[]) => ({
    type: 'doc',
    content: words.map((text) => ({ type: 'paragraph', content: [{ type: 'text', text }] })),
  });
  const metaOf = (
    seo: object,
    values: Values,
    { site, type, path = '/pea' }: { site?: object; type?: object; path?: string } = {},
  ): PageMeta => {
    const fields = [
      { key: 'summary', kind: 'paragraphs' },
      { key: 'story', kind: 'richtext' },
      { key: 'picture', kind: 'media' },
      { key: 'other', kind: 'text' },
    ];
    const note = typeOf('note', fields, { address: '/{title}', seo, ...type });
    const { site: compiled, issues } = compileSite(designOf({ types: [note], site: site ?? {} }));
    expect(issues).toEqual([]);
    const media = {
      id: 'p.png',
      ...UNTOLD,
      alt: 'Peas',
      width: 4000,
      height: 2000,
      hash: 'a'.repeat(64),
      mime: 'image/png',
    };
    const entry = viewOf(compiled.types.get('note')!, 'x', values, { path });
    const reader = new MemoryReader(compiled, { entries: [entry], media: [media] });
    return renderEntry(compiled, reader, entry, Date.parse('2026-07-01')).meta!;
  };
  const seo = (rules: object): { site: object } => ({ site: { seo: rules } });

  test.each<[string, object, Values, object | undefined, string]>([
    ['the naming field', {}, { title: 'Pea' }, undefined, 'Pea'],
    ['the type’s rule', { title: '{title}!' }, { title: 'Pea' }, undefined, 'Pea!'],
    ['the site’s rule', {}, { title: 'Pea' }, seo({ title: '{entry.type}' }), 'Note'],
    [
      'the type’s over the site’s',
      { title: '{title}!' },
      { title: 'Pea' },
      seo({ title: 'S' }),
      'Pea!',
    ],
    [
      'the next rule where one comes out blank',
      { title: '{other}' },
      { title: 'Pea' },
      undefined,
      'Pea',
    ],
    [
      'the first heading where the name is blank',
      {},
      {
        title: ' ',
        story: {
          type: 'doc',
          content: [
            { type: 'heading', attrs: { level: 2 }, content: [{ type: 'text', text: 'H' }] },
          ],
        },
      },
      undefined,
      'H',
    ],
    ['folded white space', { title: ' a  {title} ' }, { title: 'b\n c' }, undefined, 'a b c'],
  ])('title is %s', (_, rules, values, more, expected) => {
    expect(metaOf(rules, values, more).title).toBe(expected);
  });

  test('description is the summary, else the first paragraph cut at a word, else nothing', () => {
    const type = { type: { summary: 'summary' } };
    const long = 'word '.repeat(60).trim();
    expect(metaOf({}, { title: 'P', summary: 'S', story: rich('T') }, type).description).toBe('S');
    const cut = metaOf({}, { title: 'P', story: rich(long, 'more') }, type).description!;
    expect(cut).toMatch(/^(word )+word…$/);
    expect(cut.length).toBeLessThanOrEqual(155);
    expect(metaOf({}, { title: 'P' }, type).description).toBeNull();
  });

  test('canonical is the page itself, unless a rule gives what an address may be', () => {
    const canonical = (rule: string, other?: string) =>
      metaOf({ canonical: rule }, { title: 'P', ...(other === undefined ? {} : { other }) })
        .canonical;
    expect(metaOf({}, { title: 'P' }).canonical).toBe('https://seeds.example/pea');
    expect(canonical('{other}', 'https://x.example/y')).toBe('https://x.example/y');
    expect(canonical('{other}', '/y')).toBe('https://seeds.example/y');
    expect(canonical('{other}')).toBe('https://seeds.example/pea');
    for (const bad of ['javascript:alert(1)', '//x.example', 'y', 'data:x'])
      expect(canonical('{other}', bad)).toBe('https://seeds.example/pea');
  });

  test('share picture is the first, or the one named, at a size that is served', () => {
    const shown = metaOf({}, { title: 'P', picture: 'p.png' }).picture!;
    expect(shown).toMatchObject({ alt: 'Peas' });
    expect(shown.url).toMatch(/^https:\/\/seeds\.example\/media\/a{64}\/\d+$/);
    expect(shown.width / shown.height).toBe(2);
    expect(metaOf({}, { title: 'P' }).picture).toBeNull();
  });

  test('share picture of the site stands where a page has none, if it is there', () => {
    const site = { site: { sharePicture: 'p.png' } };
    expect(metaOf({}, { title: 'P' }, site).picture).toMatchObject({ alt: 'Peas', width: 1200 });
    expect(metaOf({}, { title: 'P' }, { site: { sharePicture: 'gone.png' } }).picture).toBeNull();
  });

  test('robots are told what the type says, else the site', () => {
    const told = (rules: object, site?: object) => {
      const { index, follow } = metaOf(rules, { title: 'P' }, site && { site });
      return [index, follow];
    };
    expect(told({})).toEqual([true, true]);
    expect(told({ index: false })).toEqual([false, true]);
    expect(told({}, { seo: { index: false, follow: false } })).toEqual([false, false]);
    expect(told({ index: true }, { seo: { index: false } })).toEqual([true, true]);
  });
});
