import { describe, expect, test } from 'vitest';
import { designOf, typeOf, viewOf } from '../../../tests/helpers/design.ts';
import { MemoryReader } from '../../../tests/helpers/memory-reader.ts';
import { compileSite } from '../site/compile.ts';
import { render } from '../site/render.ts';

const AT = Date.parse('2026-07-01T12:00:00Z');
const { site } = compileSite(
  designOf({
    types: [
      typeOf('race', [{ key: 'more', kind: 'link' }], { address: '/{title}', template: 'race' }),
    ],
    templates: [
      {
        key: 'race',
        kind: 'page',
        type: 'race',
        blocks: [
          { block: 'fieldSheet', fields: ['more'] },
          { block: 'link', to: '{more.url}', text: 'See [{more.words}]' },
          { block: 'text', text: '{more}' },
        ],
      },
    ],
  }),
);

function drawn(more: object, state = 'live'): string[] {
  const type = site.types.get('race')!;
  const reader = new MemoryReader(site, {
    entries: [
      viewOf(type, 'head', { title: 'Head', more }, { path: '/head' }),
      viewOf(type, 'sprint', { title: 'Sprint <1>' }, { path: '/sprint', state }),
    ],
  });
  const { body } = render(site, reader, { path: '/head', at: AT });
  const parts = [/<dd>.*?<\/dd>/s, /<a [^>]*>See .*?<\/a>/s, /<p>.*?<\/p>/s];
  return parts.map((part) => part.exec(body)?.[0] ?? '');
}

describe('a link', () => {
  test('to an address is drawn with its words, and with the address where it has none', () => {
    const to = 'https://results.example/?a=1&b=2';
    const href = 'https://results.example/?a=1&amp;b=2';
    expect(drawn({ to, words: 'Results' })).toEqual([
      `<dd><a href="${href}">Results</a></dd>`,
      `<a href="${href}">See Results</a>`,
      '<p>Results</p>',
    ]);
    expect(drawn({ to })[2]).toBe(`<p>${href}</p>`);
  });

  test('to an entry leads to wherever its page is, by its name', () => {
    expect(drawn({ entry: 'sprint' })).toEqual([
      '<dd><a href="/sprint">Sprint &lt;1&gt;</a></dd>',
      '<a href="/sprint">See Sprint &lt;1&gt;</a>',
      '<p>Sprint &lt;1&gt;</p>',
    ]);
    expect(drawn({ entry: 'sprint', words: 'There' })[0]).toBe(
      '<dd><a href="/sprint">There</a></dd>',
    );
  });

  test('to an entry that is not live is left out, words and all', () => {
    expect(drawn({ entry: 'sprint', words: 'There' }, 'retired').join()).not.toContain('There');
  });

  test('may not be read by an address', () => {
    const { issues } = compileSite(
      designOf({
        types: [typeOf('race', [{ key: 'more', kind: 'link' }], { address: '/{more}' })],
      }),
    );
    expect(issues.map(({ code }) => code)).toContain('not-in-address');
  });
});
