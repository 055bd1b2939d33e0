import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { normalRichText } from '@/core/rich-text/index.ts';
import { randomText } from '../../../tests/helpers/random-text.ts';
import { markdownToRichText } from './markdown.ts';
import type { MarkdownFinding } from './markdown-world.ts';
import { richTextToMarkdown } from './rich-text-markdown.ts';

const read = (source: string) => {
  const told: MarkdownFinding[] = [];
  const doc = normalRichText(markdownToRichText(source, { tell: (f) => told.push(f) }));
  return { doc, told };
};

test('a document is the same after Markdown and back, whatever it holds', () => {
  let plain = 0;
  let all = 0;
  fc.assert(
    fc.property(randomText, (given) => {
      const doc = normalRichText(given);
      const text = richTextToMarkdown(doc);
      expect(read(text).doc).toEqual(doc);
      all++;
      if (!text.includes('```rich-text\n{')) plain++;
    }),
    { numRuns: Number(process.env.LONG ?? 300) },
  );
  expect(plain / all).toBeGreaterThan(0.15); // JSON is the exception, even among such texts
});

describe('what Markdown itself has no words for', () => {
  const part = `:::::part[box]{title="Soak first" serves="4"}
\`\`\`yaml
tags:
  - slow
\`\`\`

::::field[method]
Soak *overnight*.

:::part[box]{title="Within"}
:::
::::
:::::
`;
  test.each<[string, string]>([
    ['a part with values, a list and a text of its own', part],
    ['an entry', '::entry[growers/edda]\n'],
    ['a link to an entry', 'Ask [Edda](entry:growers/edda "Who saves it").\n'],
    ['words of a style', 'A :style[quiet **word**]{name="soft"} here.\n'],
    ['a paragraph of a style', ':::style[lead]\nFirst.\n:::\n'],
    ['underlined words', 'An :underline[important] word.\n'],
    ['a picture of a style', ':picture[A pea]{src="pea.png" style="wide"}\n'],
  ])('%s is written so, and read so', (_, source) => {
    const { doc, told } = read(source);
    expect(told).toEqual([]);
    expect(richTextToMarkdown(doc)).toBe(source);
  });

  test('colons that begin none of it are words', () => {
    const source =
      'At 10:30, note:this and a:b[c](/d), :smile: and ::leaf[x]\n\n:::warning\nKept.\n:::\n';
    const { doc, told } = read(source);
    expect(told).toEqual([]);
    const text = JSON.stringify(doc);
    for (const words of ['note:this', ':smile:', '::leaf[x]', ':::warning', 'Kept.', '"/d"'])
      expect(text).toContain(words);
  });

  test('what nests without end is refused with its line, not a fault', () => {
    const lines = Array.from({ length: 300 }, (_, i) => `${':'.repeat(303 - i)}style[a]`);
    expect(() => read(lines.join('\n'))).toThrow(/at most 40 deep/);
  });

  test.each<[string, string, number, RegExp]>([
    ['values that are no YAML', ':::part[box]\n```yaml\n- a\n```\n:::\n', 2, /no YAML/],
    ['words in a part that are of no field', ':::part[box]\nLoose.\n:::\n', 2, /sections/],
    ['a field outside of a part', ':::field[x]\nKept.\n:::\n', 1, /outside of a part/],
    ['a style without a name', 'a\n\n:style[b]\n', 3, /name=KEY/],
    ['a list of a style', ':::style[lead]\n- a\n:::\n', 1, /stays plain/],
    ['JSON that is none', '```rich-text\n{\n```\n', 1, /this is none/],
    [
      'JSON that is no block',
      '```rich-text\n{"type":"heading","attrs":{"level":9}}\n```\n',
      1,
      /"\/attrs\/level"/,
    ],
  ])('%s are told with their line', (_, source, line, said) => {
    expect(read(source).told).toEqual([{ line, words: expect.stringMatching(said) as string }]);
  });
});
