import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { type RichNode, checkRichText, normalRichText, plainText } from '@/core/rich-text/index.ts';
import { markdownToRichText } from './markdown.ts';
import type { MarkdownFinding } from './markdown-world.ts';
import { richTextToMarkdown } from './rich-text-markdown.ts';

function read(source: string): { doc: RichNode; told: MarkdownFinding[] } {
  const told: MarkdownFinding[] = [];
  const world = {
    isForeign: true,
    findPicture: (url: string) => (url === 'pea.png' ? 'pea.png' : null),
    tell: (finding: MarkdownFinding) => told.push(finding),
  };
  return { doc: normalRichText(markdownToRichText(source, world)), told };
}

/** What a text with HTML reads as, as Markdown without any. */
const plain = (source: string): string => richTextToMarkdown(read(source).doc).trim();

describe('HTML in a text of another tool', () => {
  test.each([
    ['One<br>two', 'One\\\ntwo'],
    [
      '<b>bold <i>both</i></b>, <u>under</u>, <s>gone</s>',
      '**bold _both_**, :underline[under], ~~gone~~',
    ],
    ['Press <kbd>Ctrl</kbd>, H<sub>2</sub>O', 'Press `Ctrl`, H2O'],
    ['<a href="https://x.example" title="X">go</a>', '[go](https://x.example "X")'],
    [
      '<p align="center">\n<img src="pea.png" alt="A pea" width="90">\n</p>',
      '![A pea](media/pea.png)',
    ],
    ['<h2 class="x">Head</h2>', '## Head'],
    ['<div>\n\nStill **bold**\n\n</div>', 'Still **bold**'],
    ['<details>\n<summary>More</summary>\n\n- one\n- two\n\n</details>', 'More\n\n- one\n- two'],
    [
      '<table><tr><th>a</th><th>b</th></tr><tr><td>1</td><td><b>2</b></td></tr></table>',
      '| a | b |\n| - | - |\n| 1 | **2** |',
    ],
    [
      'See https://x.example/a, or ask a@x.example',
      'See [https://x.example/a](https://x.example/a), or ask [a@x.example](mailto:a@x.example)',
    ],
    ['<!-- nobody reads this --> Words', 'Words'],
    ['<iframe src="https://v.example/e" title="A film"></iframe>', '[A film](https://v.example/e)'],
    ['a < b and c > d', 'a < b and c > d'],
    ['`<b>` stays', '`<b>` stays'],
    ['```html\n<b>stays</b>\n```\n\n<b>not</b>', '```html\n<b>stays</b>\n```\n\n**not**'],
  ])('%s', (source, meant) => {
    expect(plain(source)).toBe(meant);
  });

  test('a caption stands before its table', () => {
    const { doc } = read('<table><caption>Of peas</caption><tr><td>1</td></tr></table>');
    expect(doc.content!.map((block) => [block.type, plainText(block)])).toEqual([
      ['paragraph', 'Of peas'],
      ['table', '1'],
    ]);
  });

  test.each(['script', 'svg', 'template', 'select'])('a <%s> goes, and is told', (name) => {
    const { doc, told } = read(`One <${name}>x</${name}> two`);
    expect(plainText(doc)).toBe('One two');
    expect(told).toEqual([{ line: 1, words: `HTML <${name}> is left out.` }]);
  });

  test('cells hold blocks', () => {
    const { doc } = read('<table><tr><td>c<ul><li>x</li></ul></td></tr></table>');
    const cell = doc.content![0]!.content![0]!.content![0]!;
    expect(cell.type).toBe('tableCell');
    expect(cell.content!.map(({ type }) => type)).toEqual(['paragraph', 'bulletList']);
  });

  test('what cannot stand is told with its line, and its words stay where it has any', () => {
    const { doc, told } = read(
      'One\n\n<script>alert(1)</script>\n\n<a href="javascript:alert(1)" onclick="x()">two</a>\n\n<img src="https://elsewhere.example/x.png" alt="three">',
    );
    expect(plainText(doc)).toBe('One two three');
    expect(told).toEqual([
      { line: 3, words: 'HTML <script> is left out.' },
      { line: 5, words: expect.stringContaining('javascript') as string },
      { line: 7, words: expect.stringContaining('elsewhere.example') as string },
    ]);
  });

  test.each([
    ['<i>'.repeat(30_000), 'at most 20000 tags'],
    [`<div>${'<blockquote>'.repeat(19_000)}deep`, 'nests too deep'],
  ])('too much of it stays as words, and is told', (source, words) => {
    const { doc, told } = read(source);
    expect(told.map((f) => f.words).join()).toContain(words);
    expect(plainText(doc)).toContain(source.slice(0, 9));
  });

  test('loses no word, whatever stands around it', () => {
    const word = fc.constantFrom('pea', 'bean', 'kale', 'leek', 'oats');
    const tag = fc.constantFrom(
      ...['b', 'i', 'a', 'p', 'div', 'ul', 'li', 'table', 'tr', 'td', 'h2', 'blockquote', 'span'],
      ...['details', 'summary', 'dl', 'dt', 'dd', 'pre', 'code', 'q', 'center', 'u', 'ol'],
    );
    const piece = fc.oneof(
      word,
      tag.map((t) => `<${t}>`),
      tag.map((t) => `</${t}>`),
      tag.map((t) => `<${t} href="/x" onclick='"'>`),
      fc.constantFrom('\n\n', '\n', '- ', '> ', '**', '# ', '<br>', '<br/>', '<!-- c -->', '\n\n'),
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 25 }), (pieces) => {
        const source = pieces.join('');
        const { doc } = read(source);
        expect(checkRichText(doc)).toBeNull();
        const count = (text: string): number =>
          [...text.matchAll(/pea|bean|kale|leek|oats/g)].length;
        const text = plainText(doc);
        expect({ source, count: count(text) }).toEqual({ source, count: count(source) });
      }),
      { numRuns: 800 },
    );
  });
});
