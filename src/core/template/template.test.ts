import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { designOf, typeOf, viewOf } from '../../../tests/helpers/design.ts';
import { MemoryReader } from '../../../tests/helpers/memory-reader.ts';
import type { Block } from '../design/block.ts';
import type { Values } from '../design/values.ts';
import { compileSite } from '../site/compile.ts';
import { renderEntry } from '../site/render.ts';
import { automaticPage, escapePattern } from './automatic.ts';
import { classes, element } from './html.ts';
import { pageLinksHtml, pageNumbers } from './page-links.ts';
import { richTextHtml } from './rich-text-html.ts';
import { wordsOf } from './words.ts';

const FIELDS = [
  { key: 'summary', kind: 'paragraphs' },
  { key: 'stock', kind: 'number' },
  { key: 'shade', kind: 'yesno' },
  { key: 'friend', kind: 'reference', types: ['note'] },
];

/** The words of HTML, as a reader sees them. */
function wordsIn(html: string): string {
  return html
    .replace(/<[^>]*>/g, '')
    .replace(/&lt;/g, '<')
    .replace(/&gt;/g, '>')
    .replace(/&quot;/g, '"')
    .replace(/&#39;/g, "'")
    .replace(/&amp;/g, '&');
}

/** The content of a page drawn by a template of these blocks. */
function drawn(blocks: Block[], values: Values, more: Values[] = []): string {
  const note = typeOf('note', FIELDS, { address: '/{title}', template: 't' });
  const templates = [
    { key: 't', kind: 'page', type: 'note', blocks },
    { key: 'bare', kind: 'frame', blocks: [{ block: 'slot', slot: 'main' }] },
  ];
  const { site, issues } = compileSite(
    designOf({ types: [note], templates, site: { frame: 'bare' } }),
  );
  expect(issues).toEqual([]);
  const type = site.types.get('note')!;
  const entries = [values, ...more].map((v, i) => viewOf(type, `n${i}`, v, { path: `/n${i}` }));
  const page = renderEntry(site, new MemoryReader(site, { entries }), entries[0]!, 0);
  return /<a class="skip".*?<\/a>(.*)<\/body>/s.exec(page.body)![1]!;
}

describe('a block', () => {
  test.each<[string, Block[], Values, string]>([
    [
      'heading',
      [{ block: 'heading', text: '{title}', level: 2 }],
      { title: 'A&B' },
      'A&amp;B</h2>',
    ],
    ['heading without words', [{ block: 'heading', text: '{title}', level: 2 }], {}, ''],
    ['text', [{ block: 'text', text: 'In stock: {stock}' }], { stock: 1200 }, 'In stock: 1,200'],
    ['text of a zero', [{ block: 'text', text: '{stock}' }], { stock: 0 }, '>0<'],
    ['text of a no', [{ block: 'text', text: '{shade}' }], { shade: false }, '>no<'],
    ['text with a part left out', [{ block: 'text', text: 'a[ {title}]' }], {}, '>a<'],
  ])('%s', (_, blocks, values, expected) => {
    const html = drawn(blocks, values);
    if (expected === '') expect(html).not.toMatch(/<h2/);
    else expect(html).toContain(expected);
  });

  test('never passes markup out of a value, in text or in an attribute', () => {
    const evil = '"><img src=x onerror=alert(1)>';
    const html = drawn(
      [
        { block: 'heading', text: '{title}', level: 1 },
        { block: 'text', text: '{summary}', style: 'x' },
        { block: 'fieldSheet', fields: ['summary'] },
      ],
      { title: evil, summary: evil },
    );
    expect(html).not.toContain('<img');
    expect(html.match(/&lt;img/g)!.length).toBeGreaterThanOrEqual(3);
  });

  test('of cards shows what it points at that is live, and nothing else', () => {
    const cards: Block[] = [{ block: 'cards', field: 'friend' }];
    expect(drawn(cards, { friend: 'n1' }, [{ title: 'Friend' }])).toContain('>Friend</a>');
    expect(drawn(cards, { friend: 'gone' })).not.toContain('<ul');
    expect(drawn(cards, {})).not.toContain('<ul');
  });
});

describe('cards within cards', () => {
  test('of entries that point at each other end', () => {
    const note = typeOf('note', FIELDS, { address: '/{title}', template: 't', card: 'c' });
    const templates = [
      { key: 't', kind: 'page', type: 'note', blocks: [{ block: 'cards', field: 'friend' }] },
      {
        key: 'c',
        kind: 'card',
        type: 'note',
        blocks: [
          { block: 'heading', text: '{title}', level: 3 },
          { block: 'cards', field: 'friend' },
        ],
      },
    ];
    const { site } = compileSite(designOf({ types: [note], templates }));
    const type = site.types.get('note')!;
    const entries = ['a', 'b'].map((id, i) =>
      viewOf(type, id, { title: id, friend: i === 0 ? 'b' : 'a' }, { path: `/${id}` }),
    );
    const page = renderEntry(site, new MemoryReader(site, { entries }), entries[0]!, 0);
    expect(page.body.match(/<h3/g)!.length).toBeLessThanOrEqual(4);
    expect(page.status).toBe(200);
  });
});

describe('page links', () => {
  test.each([
    [1, 1, [1]],
    [1, 3, [1, 2, 3]],
    [5, 9, [1, null, 4, 5, 6, null, 9]],
    [9, 9, [1, null, 8, 9]],
  ])('on page %i of %i are %j', (number, count, expected) => {
    expect(pageNumbers(number, count)).toEqual(expected);
  });

  test('always hold first, last and this one, in order, without repetition', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 500 }), fc.integer({ min: 1, max: 500 }), (a, b) => {
        const [number, count] = [Math.min(a, b), Math.max(a, b)];
        const shown = pageNumbers(number, count).filter((n) => n !== null);
        expect(shown).toEqual([...new Set(shown)].sort((x, y) => x - y));
        expect(shown).toEqual(expect.arrayContaining([1, number, count]));
      }),
    );
  });

  test('say which page this is, and what comes before and after', () => {
    const shown = {
      key: 'all',
      entries: [],
      total: 30,
      query: '',
      number: 2,
      count: 3,
      address: '/all',
      empty: '',
      card: () => '',
      needs: [],
    };
    const html = pageLinksHtml(shown, 'de');
    expect(html).toContain('<a href="/all" rel="prev">Zurück</a>');
    expect(html).toContain('<a href="/all/page-2" aria-current="page">2</a>');
    expect(html).toContain('<a href="/all/page-3" rel="next">Weiter</a>');
    const beside = pageLinksHtml(shown, 'en', { as: 'beside' });
    expect(beside.match(/<a /g)).toHaveLength(2);
    const more = pageLinksHtml({ ...shown, query: 'q=a&b=c' }, 'en', { as: 'more' });
    expect(more).toContain('<a href="/all/page-3?q=a&amp;b=c" rel="next">Show more</a>');
    expect(pageLinksHtml({ ...shown, count: 1, number: 1 }, 'en')).toBe('');
    expect(pageLinksHtml({ ...shown, address: null }, 'en')).toBe('');
  });
});

describe('rich text', () => {
  const text = (words: string, ...marks: object[]) => ({ type: 'text', text: words, marks });
  const doc = (...content: object[]) => ({ type: 'doc', content });
  const paragraph = (...content: object[]) => ({ type: 'paragraph', content });
  const html = (...content: object[]): string =>
    richTextHtml(doc(...content), { media: () => null, picture: () => null });
  const link = (href: unknown) => ({ type: 'link', attrs: { href } });
  const bold = { type: 'bold' };
  const italic = { type: 'italic' };

  test.each<[string, object, string]>([
    ['escapes words', paragraph(text('<b>&')), '<p>&lt;b&gt;&amp;</p>'],
    ['leaves out empty paragraphs', paragraph(), ''],
    [
      'keeps a run in bold whole, whatever changes in it',
      paragraph(text('a ', bold), text('b', bold, italic), text(' c', bold)),
      '<p><strong>a <em>b</em> c</strong></p>',
    ],
    [
      'puts what reaches further outside',
      paragraph(text('a', italic), text('b', bold, italic)),
      '<p><em>a<strong>b</strong></em></p>',
    ],
    ['links', paragraph(text('x', link('/a?b&c'))), '<p><a href="/a?b&amp;c">x</a></p>'],
    [
      'keeps the words of a link to a script',
      paragraph(text('x', link('javascript:y'))),
      '<p>x</p>',
    ],
    ['keeps the words of a link to nothing', paragraph(text('x', link(7))), '<p>x</p>'],
    ['knows no other marks', paragraph(text('x', { type: 'onclick' })), '<p>x</p>'],
    [
      'puts headings below the page’s own title',
      { type: 'heading', attrs: { level: 1 }, content: [text('H')] },
      '<h2>H</h2>',
    ],
    [
      'bears a level that is none',
      { type: 'heading', attrs: { level: { toString: 'x' } }, content: [text('H')] },
      '<h2>H</h2>',
    ],
    ['leaves out a heading without words', { type: 'heading', attrs: { level: 3 } }, ''],
    [
      'starts numbers where they start',
      {
        type: 'orderedList',
        attrs: { start: 3 },
        content: [{ type: 'listItem', content: [paragraph(text('x'))] }],
      },
      '<ol start="3"><li>x</li></ol>',
    ],
    [
      'names the language of code by a class',
      { type: 'codeBlock', attrs: { language: '"x' }, content: [text('<y>')] },
      '<pre tabindex="0"><code class="language-&quot;x">&lt;y&gt;\n</code></pre>',
    ],
    [
      'shows the content of what it does not know',
      { type: 'widget', attrs: { onload: 'x' }, content: [paragraph(text('in'))] },
      '<p>in</p>',
    ],
    [
      'leaves out pictures that are not there',
      paragraph({ type: 'image', attrs: { src: 'https://x.example/p.png' } }),
      '',
    ],
  ])('%s', (_, node, expected) => {
    expect(html(node)).toBe(expected);
  });

  test('that is none is nothing, and too deep ends', () => {
    for (const odd of [null, undefined, {}, { type: 'doc' }, { type: 'doc', content: [null] }])
      expect(() => richTextHtml(odd, { media: () => null, picture: () => null })).not.toThrow();
    let deep: object = paragraph(text('deep'));
    for (let i = 0; i < 5000; i++) deep = { type: 'blockquote', content: [deep] };
    expect(html(deep)).not.toContain('deep');
  });

  test('closes every element it opens, in order', () => {
    const marks = fc.subarray([bold, italic, { type: 'code' }, link('/a'), link('/b')]);
    const run = fc.record({
      type: fc.constant('text'),
      text: fc.string({ minLength: 1 }),
      marks,
    });
    fc.assert(
      fc.property(fc.array(run, { minLength: 1, maxLength: 6 }), (runs) => {
        const open: string[] = [];
        const drawn = html(paragraph(...runs));
        for (const [, end, tag] of drawn.matchAll(/<(\/?)([a-z]+)[^>]*>/g))
          if (end === '') open.push(tag!);
          else expect(open.pop()).toBe(tag);
        expect(open).toEqual([]);
        const words = runs.map((r) => r.text).join('');
        expect(wordsIn(drawn)).toBe(words);
      }),
    );
  });
});

describe('small parts', () => {
  test('classes and elements are escaped and left out where empty', () => {
    expect(classes('a', undefined, '"b')).toBe(' class="a &quot;b"');
    expect(element('p', '', '')).toBe('');
    expect(element('p', ' id="x"', 'y')).toBe('<p id="x">y</p>');
  });

  test('any text escaped as a pattern gives itself back', () => {
    fc.assert(
      fc.property(fc.string({ minLength: 1 }), (words) => {
        const html = drawn([{ block: 'text', text: escapePattern(`x${words}x`) }], {});
        expect(wordsIn(html)).toBe(`x${words}x`);
      }),
      { numRuns: 60 },
    );
  });

  test('an automatic page shows the name, the summary, then fields by what they are', () => {
    const { site } = compileSite(
      designOf({
        types: [
          typeOf(
            'note',
            [...FIELDS, { key: 'story', kind: 'richtext' }, { key: 'picture', kind: 'media' }],
            { summary: 'summary' },
          ),
        ],
      }),
    );
    expect(automaticPage(site.types.get('note')!).map((b) => b.block)).toEqual([
      'heading',
      'byline',
      'text',
      'columns',
      'richText',
    ]);
  });

  test('a row that moves by itself can be stopped without a script', () => {
    const row = {
      block: 'row',
      label: 'Shelf',
      moves: true,
      blocks: [{ block: 'text', text: 'A' }],
    };
    const html = drawn([row], {});
    expect(html).toContain('<section class="row row-moves" aria-label="Shelf">');
    expect(html).toContain('<label class="row-stop"><input type="checkbox"> Stand still</label>');
  });

  test('public words are there in each language, by its first part', () => {
    expect(wordsOf('de-AT').next).toBe('Weiter');
    expect(wordsOf('xx').next).toBe('Next');
    expect(wordsOf('pt-BR').fromTo('maio', 'julho')).toBe('maio a julho');
    for (const language of ['de', 'es', 'fr', 'it', 'nl', 'pt'])
      expect(Object.keys(wordsOf(language))).toEqual(Object.keys(wordsOf('en')));
  });
});
