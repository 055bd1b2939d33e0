import { readFileSync } from 'node:fs';
import commonmark from 'commonmark-spec';
import { describe, expect, test } from 'vitest';
import { checkRichText, normalRichText, plainText } from '@/core/rich-text/index.ts';
import { richTextHtml } from '@/core/template/rich-text-html.ts';
import { markdownToRichText } from './markdown.ts';
import { type MarkdownFinding, TooMuch } from './markdown-world.ts';

const media = (id: string) => ({ id }) as never;
const picture = ({ id }: { id: string }) => ({
  ...{ src: id, srcset: '', sizes: '', alt: '', width: 1, height: 1, lazy: true },
});
const html = (source: string): string =>
  richTextHtml(normalRichText(markdownToRichText(source)), { media, picture }, { topHeading: 1 });

/**
 * HTML with what is no matter of meaning left out: spaces around blocks, forms of quotes, how code
 * is reached by key.
 */
function bare(text: string): string {
  return text
    .replaceAll('<pre tabindex="0">', '<pre>')
    .replace(/<pre>[\s\S]*?<\/pre>|\s+/g, (m) => (m.startsWith('<') ? m : ' '))
    .replace(/ ?(<\/?(p|ul|ol|li|blockquote|h\d|hr|pre|br)( [^>]*)?\/?>) ?/g, '$1')
    .replace(/ \/>/g, '>')
    .replace(/&quot;/g, '"')
    .replace(/&#39;/g, "'")
    .replace(/(<img [^>]*?)( width="\d+" height="\d+" loading="lazy")>/g, '$1>')
    .trim();
}

/** Numbers of the examples that come out otherwise, as the guide lists them with their reasons. */
function exceptions(): number[] {
  const guide = readFileSync('docs/markdown.md', 'utf8');
  return [...guide.matchAll(/^\| ((?:\d+(?:, )?)+) +\|/gm)].flatMap(([, list]) =>
    list!.split(', ').map(Number),
  );
}

const HTML_SECTIONS = ['HTML blocks', 'Raw HTML'];
const examples = commonmark.tests
  .filter((e) => !HTML_SECTIONS.includes(e.section))
  .map((e) => ({
    ...e,
    markdown: e.markdown.replaceAll('→', '\t'),
    html: e.html.replaceAll('→', '\t'),
  }));

describe('CommonMark 0.31.2', () => {
  const listed = new Set(exceptions());

  test('every example without raw HTML comes out as specified, but for those the guide lists', () => {
    const otherwise = examples
      .filter((e) => bare(html(e.markdown)) !== bare(e.html))
      .map((e) => e.number);
    expect(otherwise).toEqual([...listed].sort((a, b) => a - b));
    expect(examples.length - otherwise.length).toBeGreaterThanOrEqual(557);
  });

  test('what is read is rich text, whatever is written', () => {
    for (const { markdown } of commonmark.tests)
      expect(checkRichText(normalRichText(markdownToRichText(markdown)))).toBeNull();
  });

  test('no word of any example is lost', () => {
    const words = (text: string): string[] => text.match(/[\p{L}\p{N}]+/gu) ?? [];
    for (const { markdown, html: wanted } of examples) {
      const seen = wanted.replace(/<img[^>]* alt="([^"]*)"[^>]*>/g, '$1').replace(/<[^>]*>/g, ' ');
      const ours = new Set(words(plainText(markdownToRichText(markdown)) + html(markdown)));
      for (const word of words(seen)) expect(ours, markdown).toContain(word);
    }
  });
});

describe('what may not stand leaves its words', () => {
  const read = (source: string, hasPicture = (id: string) => id === 'here.png') => {
    const told: MarkdownFinding[] = [];
    const doc = markdownToRichText(source, { hasPicture, tell: (f) => told.push(f) });
    return { text: plainText(doc), told };
  };

  test('a link whose scheme is refused', () => {
    const { text, told } = read('See\n\n[the *words*](javascript:alert(1)).');
    expect(text).toContain('the words');
    expect(told).toMatchObject([{ line: 3 }]);
    expect(html('[x](javascript:alert(1))')).not.toContain('href');
  });

  test('a picture that is not in the site', () => {
    const { text, told } = read('![A tall pea](gone.png)');
    expect(text).toContain('A tall pea');
    expect(told).toHaveLength(1);
  });

  test('raw HTML, which is shown as it is written', () => {
    expect(html('a <b onclick="x">b</b>')).toContain('&lt;b onclick=');
    expect(read('<div>\nkept\n</div>').text).toContain('kept');
  });

  test('reference links keep their words and lead where their definition says', () => {
    expect(html('[a pea][p] and [p]\n\n[p]: /peas "Peas"')).toContain(
      '<a href="/peas" title="Peas">a pea</a>',
    );
  });

  test('a numbered list begins where it says', () => {
    expect(html('7. seven\n8. eight')).toContain('<ol start="7">');
  });
});

describe('what is too much is refused in words, with the line', () => {
  test.each<[string, string, number, RegExp]>([
    ['lists within lists', nest(1000), 101, /at most 100 deep/],
    ['quotes within quotes', `${'>'.repeat(10_000)} x`, 1, /at most 100 deep/],
    ['fifty thousand links', '[a](/b) '.repeat(50_000), 1, /at most 10000 links/],
    ['a line of ten megabytes', 'word '.repeat(2_000_000), 1, /at most 2 MB/],
    ['a hundred thousand lines', 'x\n'.repeat(100_000), 20_001, /at most 20000 lines/],
    ['stars without end', '*a '.repeat(200_000), 1, /at most 50000 stars/],
  ])('%s', (_, source, line, words) => {
    let refused: unknown = null;
    try {
      markdownToRichText(source);
    } catch (error) {
      refused = error;
    }
    expect(refused).toBeInstanceOf(TooMuch);
    const { finding } = refused as TooMuch;
    expect([finding.line, finding.words]).toEqual([line, expect.stringMatching(words)]);
  });
});

describe('what is much, and not too much, is read with all its words', () => {
  test.each([
    ['brackets without end', '['.repeat(60_000)],
    ['nine thousand links', '[a](/b) '.repeat(9000)],
    ['a hundred lists within lists', nest(98)],
    ['a megabyte of words', 'word '.repeat(200_000)],
  ])('%s', (_, source) => {
    const letters = (text: string): number => text.match(/[a-z[]/g)?.length ?? 0;
    const read = JSON.stringify(markdownToRichText(source));
    const texts = [...read.matchAll(/"text":"([^"]*)"/g)].map(([, text]) => text!);
    const written = source.replaceAll('[a](/b)', 'a');
    expect(letters(texts.join(''))).toBe(letters(written));
  });
});

function nest(depth: number): string {
  return Array.from({ length: depth }, (_, i) => `${'  '.repeat(i)}- x`).join('\n');
}
