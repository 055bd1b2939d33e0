import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { designOf, typeOf, viewOf } from '../../../tests/helpers/design.ts';
import { MemoryReader } from '../../../tests/helpers/memory-reader.ts';
import type { Issue } from '../issue.ts';
import type { Values } from '../design/values.ts';
import { compileSite } from '../site/compile.ts';
import { renderEntry } from '../site/render.ts';

/** What markup gives on the page of an entry, and what is said of it. */
function drawn(html: string, values: Values = { title: 'Pea' }): { html: string; issues: Issue[] } {
  const more = [{ key: 'where', kind: 'text' }];
  const note = typeOf('note', more, { address: '/{title}', template: 't' });
  const templates = [
    { key: 't', kind: 'page', type: 'note', blocks: [{ block: 'markup', html }] },
    { key: 'bare', kind: 'frame', blocks: [{ block: 'slot', slot: 'main' }] },
  ];
  const { site, issues } = compileSite(
    designOf({ types: [note], templates, site: { frame: 'bare' } }),
  );
  const entry = viewOf(site.types.get('note')!, 'n0', values, { path: '/n0' });
  const { body } = renderEntry(site, new MemoryReader(site, { entries: [entry] }), entry, 0);
  return { html: /<main id="content">(.*)<\/main>/s.exec(body)![1]!, issues };
}

describe('markup', () => {
  test.each([
    ['<p>About <b>{title}</b> [now]', '<p>About <b>Pea</b> [now]</p>'],
    ['<ul><li>a<li>b</ul>', '<ul><li>a</li><li>b</li></ul>'],
    ['a < b &amp; c &lt; d', 'a &lt; b &amp; c &lt; d'],
    ['<IMG SRC="/media/x" ALT="{title}">', '<img src="/media/x" alt="Pea">'],
    [
      '<a href="https://seeds.example/{title}" class=x>x</a>',
      '<a href="https://seeds.example/Pea" class="x">x</a>',
    ],
    ['x<!-- {{no}} -->y', 'xy'],
    ['{{title}}', '{title}'],
  ])('%s is written as it is meant', (html, expected) => {
    expect(drawn(html)).toEqual({ html: expected, issues: [] });
  });

  test('is nothing where all that it reads is blank, and stands where it reads nothing', () => {
    expect(drawn('<p>By {where}</p>').html).toBe('');
    expect(drawn('<p>By {where} of {title}</p>').html).toBe('<p>By  of Pea</p>');
    expect(drawn('<hr>', {}).html).toBe('<hr>');
  });

  test.each([
    ['<script>alert(1)</script>', '<script>'],
    ['<p onclick="x()">a</p>', '"onclick"'],
    ['<p style="position:fixed">a</p>', '"style"'],
    ['<iframe src="/x"></iframe>', '<iframe>'],
    ['<form action="/x"><input></form>', '<form>'],
    ['<svg><a href="javascript:x()">a</a></svg>', '<svg>'],
    ['<math><mtext></mtext></math>', '<math>'],
    ['<a href="javascript:alert(1)">a</a>', 'href='],
    ['<a href=" java&#10;script:alert(1)">a</a>', 'href='],
    ['<img src="https://elsewhere.example/p.png" alt="">', 'src='],
    ['<img src="//elsewhere.example/p.png" alt="">', 'src='],
    ['<a href="/x" target="_blank">a</a>', '"target"'],
    ['<template><img src=x onerror=x()></template>', '<template>'],
    ['<style>*{{}}</style>', '<style>'],
    ['<{title}>a</{title}>', undefined],
  ])('takes no %s', (html, said) => {
    const { html: out, issues } = drawn(html);
    if (said) expect(issues).toMatchObject([{ code: 'markup-refused' }]);
    if (said) expect(issues[0]!.message).toContain(said);
    expect(out).not.toMatch(/script|onclick|style|iframe|form|svg|math|elsewhere|target|onerror/);
  });

  test('lets no value lead elsewhere, or out of its place', () => {
    const link = '<p><a href="{where}" title="{where}">{where}</a></p>';
    for (const where of [
      'javascript:alert(1)',
      ' javascript:x',
      '//evil.example',
      'data:text/html,x',
    ])
      expect(drawn(link, { where }).html).toMatch(/^<p><a title="[^"]*">[^<]*<\/a><\/p>$/);
    expect(drawn(link, { where: '"><script>' }).html).not.toContain('<script');
    const picture = '<img src="{where}" alt="">';
    expect(drawn(picture, { where: 'https://evil.example/a' }).html).toBe('');
  });

  test('of any words gives elements of the list alone, each closed', () => {
    const piece = fc.constantFrom(
      ...[
        '<p>',
        '</p>',
        '<b',
        ' x=1',
        '>',
        '<script',
        '<!--',
        '-->',
        '"',
        "'",
        '<a href=',
        '{title}',
      ],
      ...[
        'javascript:',
        '<td>',
        '</table>',
        '<svg/onload=x>',
        '&#x6a;',
        '\uE0000\uE001',
        '<plaintext>',
      ],
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 24 }), (pieces) => {
        const { html } = drawn(pieces.join(''), { title: '<i onload=x>&"\'' });
        const open: string[] = [];
        for (const [, close, name, rest] of html.matchAll(
          /<(\/?)([a-z0-9]+)((?: [a-z-]+="[^"<>]*")*)>/g,
        )) {
          expect(['p', 'b', 'a', 'td']).toContain(name);
          expect(rest!.replace(/"[^"]*"/g, '')).not.toContain(' on');
          expect(rest).not.toMatch(/(href|src)="\s*javascript/i);
          if (close === '') open.push(name!);
          else expect(open.pop()).toBe(name);
        }
        expect(html.replace(/<\/?[a-z0-9]+(?: [a-z-]+="[^"<>]*")*>/g, '')).not.toMatch(/[<>]/);
        expect(open).toEqual([]);
      }),
    );
  });
});
