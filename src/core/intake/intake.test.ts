import { describe, expect, test } from 'vitest';
import fc from 'fast-check';
import { typeSpec } from '../design/spec.ts';
import { guessMapping } from './guess.ts';
import { Look } from './look.ts';
import { pathFrom } from './map-record.ts';
import {
  dayOrderOf,
  decimalsOf,
  plainDate,
  plainList,
  plainNumber,
  plainYesNo,
} from './plain-values.ts';
import { type SourceRecord, headingOf, pathOf } from './record.ts';

test.each([
  ['2024-03-02', '2024-03-02'],
  ['2024/3/2', '2024-03-02'],
  ['2019-11-02 08:00:00 +0100', '2019-11-02T08:00:00+0100'],
  ['2024-03-02T10:30:00.123Z', '2024-03-02T10:30:00Z'],
  ['2 March 2024', '2024-03-02'],
  ['March 2nd, 2024', '2024-03-02'],
  ['Sat, 02 Mar 2024 10:30:00 GMT', '2024-03-02T10:30:00Z'],
  ['02.03.2024', '2024-03-02'],
  ['2/3/24', '2024-03-02'],
  ['Mar 2, 2024 1:05 pm', '2024-03-02T13:05:00'],
  ['31.02.2024', null],
  ['2024-13-01', null],
  ['March', null],
  ['', null],
])('%j is the date %j', (text, date) => expect(plainDate(text)).toBe(date));

test('days by numbers alone are read as the others say', () => {
  expect(plainDate('3/2/2024', 'mdy')).toBe('2024-03-02');
  expect([dayOrderOf('13/2/2024'), dayOrderOf('2/13/2024'), dayOrderOf('2/3/2024')]).toEqual([
    ...['dmy', 'mdy', 'either'],
  ]);
});

test.each([
  ['1,234.5', 1234.5],
  ['1.234,5', 1234.5],
  ['1 234', 1234],
  ['€ 12', 12],
  ['40 %', 40],
  ['3,5', 3.5],
  ['-7', -7],
  ['12a', null],
  ['1,23,4', null],
])('%j is the number %j', (text, number) => expect(plainNumber(text)).toBe(number));

test.each([
  ['1.234', 'either'],
  ['1,234', 'either'],
  ['12.5', 'point'],
  ['1,234.5', 'point'],
  ['1,234,567', 'point'],
  ['3,5', 'comma'],
  ['1.234,5', 'comma'],
  ['1.234.567', 'comma'],
  ['1234', null],
  ['words', null],
] as const)('%j has %j before its decimals', (text, way) => {
  expect(decimalsOf(text)).toBe(way);
});

test.each([
  ['1.234', 1.234, 1234],
  ['1,234', 1234, 1.234],
  ['3,5', 3.5, 3.5],
  ['1,234.5', 1234.5, 1234.5],
])('%j is %j with points before decimals, and %j with commas', (text, point, comma) => {
  expect([plainNumber(text, 'point'), plainNumber(text, 'comma')]).toEqual([point, comma]);
});

test('what one number of a table says of its decimals holds for all', () => {
  const look = new Look();
  const add = (...stock: string[]): void =>
    stock.forEach((value, i) =>
      look.add({ source: `t.csv#${i}`, line: i, values: { stock: value }, body: null }),
    );
  add('1.234', '12');
  expect(look.seen()).toMatchObject({ decimals: null, isEitherNumber: true });
  add('3,5');
  expect(look.seen()).toMatchObject({ decimals: 'comma', isEitherNumber: false });
});

test('lists are parted by what they are parted by', () => {
  expect(plainList('a, b ,c')).toEqual(['a', 'b', 'c']);
  expect(plainList('Smith, J.; Doe, K.')).toEqual(['Smith, J.', 'Doe, K.']);
  expect(plainList('["a", "b"]')).toEqual(['a', 'b']);
  expect([plainYesNo('Ja'), plainYesNo('off'), plainYesNo('perhaps')]).toEqual([true, false, null]);
});

test('whatever stands in a table is read or is nothing; it never fails', () => {
  fc.assert(
    fc.property(fc.anything(), fc.string(), (value, text) => {
      for (const one of [value, text]) {
        const day = plainDate(one);
        if (day !== null) expect(day).toMatch(/^\d{4}-\d\d-\d\d/);
        plainNumber(one);
        plainList(one);
      }
    }),
  );
});

test.each([
  ['# Title\n\nWords', 'Title', '\nWords'],
  ['\n#  A *b* ##\nWords', 'A b', 'Words'],
  ['Title\n=====\nWords', 'Title', 'Words'],
  ['## Second level', null, '## Second level'],
  ['Words\n# Title', null, 'Words\n# Title'],
])('the heading of %j is %j', (text, heading, rest) =>
  expect(headingOf(text)).toEqual({ heading, rest }),
);

test('a file’s path is an address; a relative one leads from where it stands', () => {
  const from = (source: string): SourceRecord => ({ source, line: 1, values: {}, body: null });
  expect(pathOf(from('posts/2019/frost.md'))).toBe('/posts/2019/frost');
  expect(pathOf(from('posts/index.md'))).toBe('/posts');
  expect(pathOf(from('README.md'))).toBe('/');
  expect(pathFrom(from('a/b.md'), '../c%20d.md#e')).toBe('c d.md');
  expect(pathFrom(from('a/b.md'), './c.png')).toBe('a/c.png');
  expect(pathFrom(from('a/b.md'), '/c.png')).toBe('c.png');
  expect(pathFrom(from('a/b.md'), '../../../c.png')).toBe('c.png');
  expect(pathFrom(from('a/b.md'), 'https://x.example/c.png')).toBeNull();
});

describe('a mapping', () => {
  const type = typeSpec.parse({
    ...{ key: 'post', naming: 'title', summary: 'lead' },
    fields: [
      { key: 'title', kind: 'text' },
      { key: 'lead', kind: 'paragraphs' },
      { key: 'story', kind: 'richtext' },
      { key: 'cover', kind: 'media' },
      { key: 'traits', kind: 'tags', set: 'traits' },
      { key: 'sowFrom', kind: 'date', label: 'Sow from' },
      { key: 'grower', kind: 'reference', types: ['grower'] },
    ],
  });
  const seenIn = (...records: Partial<SourceRecord>[]) => {
    const look = new Look();
    records.forEach((record, i) =>
      look.add({ source: `f.csv#${i}`, line: i, values: {}, body: null, ...record }),
    );
    return look.seen();
  };

  test('is guessed from names, from what fields are for, and from values', () => {
    const seen = seenIn({
      source: 'posts/a.md',
      values: {
        'SOW FROM': '3/14/2024',
        Headline: 'A',
        excerpt: 'B',
        image: 'a.png',
        keywords: ['x'],
        grower_name: 'Ana',
        slug: 'a',
        draft: false,
        layout: 'post',
      },
      body: { text: '# Other\n\nWords', line: 9 },
    });
    expect(guessMapping(seen, type)).toMatchObject({
      days: 'mdy',
      fields: {
        'SOW FROM': 'sowFrom',
        Headline: 'title',
        '@heading': 'title',
        '@body': 'story',
        excerpt: 'lead',
        image: 'cover',
        keywords: 'traits',
        grower_name: 'grower',
        slug: '@address',
        draft: '@draft',
      },
    });
  });

  test('says of what is unknown which kind would hold it', () => {
    const rows = ['1', '2'].map((n) => ({
      values: { a: n, b: `2024-0${n}-01`, c: 'yes', d: `https://x.example/${n}`, e: `w\n${n}` },
    }));
    const kinds = seenIn(...rows).keys.map(({ name, kind }) => [name, kind]);
    expect(kinds).toEqual([
      ['a', 'number'],
      ['b', 'date'],
      ['c', 'yesno'],
      ['d', 'link'],
      ['e', 'paragraphs'],
    ]);
  });
});
