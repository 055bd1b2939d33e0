import { Ajv2020 } from 'ajv/dist/2020.js';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { harmedText, randomForm, randomText } from '../../../tests/helpers/random-text.ts';
import {
  checkRichText,
  nodesOf,
  normalRichText,
  plainText,
  richTextSchema,
  withinForm,
} from './index.ts';

const runs = { numRuns: 300 };

test('the JSON Schema takes what the check takes, and refuses what it refuses', () => {
  const fits = new Ajv2020({ strict: false }).compile(richTextSchema());
  fc.assert(
    fc.property(fc.oneof(randomText, harmedText), (doc) => {
      expect([fits(doc), doc]).toEqual([checkRichText(doc) === null, doc]);
    }),
    runs,
  );
});

test.each<[string, object, string, RegExp]>([
  ['a level', { type: 'heading', attrs: { level: 9 } }, '/content/0/attrs/level', /from 1 to 6/],
  ['an unknown node', { type: 'video' }, '/content/0/type', /no "video"/],
  ['a place', { type: 'listItem' }, '/content/0', /may not stand in a "doc"/],
  [
    'a mark',
    { type: 'paragraph', content: [{ type: 'text', text: 'a', marks: [{ type: 'big' }] }] },
    '/content/0/content/0/marks/0/type',
    /no mark "big"/,
  ],
  [
    'where a link leads',
    {
      type: 'paragraph',
      content: [
        { type: 'text', text: 'a', marks: [{ type: 'link', attrs: { href: 'javascript:x' } }] },
      ],
    },
    '/content/0/content/0/marks/0/attrs/href',
    /http\(s\), mailto, tel/,
  ],
  ['an entry that is not named', { type: 'entry' }, '/content/0/attrs/entry', /id of an entry/],
])('what is wrong is told by its place: %s', (_, node, at, said) => {
  const fault = checkRichText({ type: 'doc', content: [node] });
  expect(fault?.at).toBe(at);
  expect(fault?.words).toMatch(said);
});

test('the normal form of a document has the same words, and is its own', () => {
  fc.assert(
    fc.property(randomText, (doc) => {
      const normal = normalRichText(doc);
      expect(checkRichText(normal)).toBeNull();
      expect(normalRichText(normal)).toEqual(normal);
      expect(plainText(normal)).toBe(plainText(doc));
    }),
    runs,
  );
});

describe('a form of texts', () => {
  test('leaves what it lets in, and all words but those of parts and pictures', () => {
    fc.assert(
      fc.property(randomText, randomForm, (given, form) => {
        const text = normalRichText(given);
        const { doc, removed } = withinForm(text, form);
        expect(checkRichText(doc)).toBeNull();
        const folded = (value: unknown): string => plainText(value).replace(/\s/g, '');
        expect(folded(doc)).toBe(folded(text));
        expect(withinForm(doc, form).removed).toEqual([]);
        if (removed.length === 0) expect(doc).toBe(text);
        for (const { type, attrs, marks = [] } of nodesOf(doc)) {
          if (type === 'part') expect(form.parts.has(String(attrs?.type))).toBe(true);
          if (form.levels && type === 'heading')
            expect(form.levels.has(Number(attrs?.level))).toBe(true);
          for (const mark of marks)
            if (form.marks && mark.type !== 'styled') expect(form.marks.has(mark.type)).toBe(true);
        }
      }),
      runs,
    );
  });

  test('leaves no style at a heading whose level is another one', () => {
    const words = [{ type: 'text', text: 'H' }];
    const heading = { type: 'heading', attrs: { level: 4, style: 'lead' }, content: words };
    const form = { marks: null, blocks: null, levels: new Set([2]), parts: new Set<string>() };
    const { doc } = withinForm(
      { type: 'doc', content: [heading] },
      { ...form, styles: new Set<string>() },
    );
    expect(doc.content).toEqual([{ type: 'heading', attrs: { level: 2 }, content: words }]);
  });

  test('says what it took out, where it stood, and gives it back', () => {
    const table = {
      type: 'table',
      content: [
        {
          type: 'tableRow',
          content: [
            {
              type: 'tableHeader',
              content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Sow' }] }],
            },
          ],
        },
      ],
    };
    const none = { marks: null, levels: null, parts: new Set<string>(), styles: new Set<string>() };
    const { doc, removed } = withinForm(
      { type: 'doc', content: [table] },
      { ...none, blocks: new Set<string>() },
    );
    expect(removed).toEqual([{ what: 'Table', at: '/content/0', words: 'Sow', node: table }]);
    expect(doc.content).toEqual([{ type: 'paragraph', content: [{ type: 'text', text: 'Sow' }] }]);
  });
});
