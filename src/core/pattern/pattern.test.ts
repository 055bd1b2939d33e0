import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { compilePattern } from './compile.ts';
import { FUNCTIONS } from './functions/index.ts';
import { printParts } from './print.ts';
import { readPattern } from './read.ts';
import type { Expression, Part } from './tree.ts';
import {
  type Environment,
  type Member,
  type ObjectType,
  type Scope,
  type ValueKind,
  type Context,
} from './types.ts';

type Fields = Record<string, { kind: Exclude<ValueKind, 'object'>; value: unknown }>;

function environment(fields: Fields): Environment {
  const members = new Map<string, Member>(
    Object.entries(fields).map(([key, { kind, value }]) => [
      key,
      {
        type: () => ({ kind, many: Array.isArray(value) }),
        read: (owner) => (owner as Fields)[key]?.value ?? null,
        field: key,
      },
    ]),
  );
  const own: ObjectType = {
    name: 'a variety',
    member: (n) => members.get(n),
    memberNames: () => [...members.keys()],
  };
  const named: ObjectType = {
    name: 'the entry',
    member: () => ({ type: () => ({ kind: 'text', many: false }), read: () => 'x' }),
    memberNames: () => ['name'],
    naming: 'name',
  };
  return {
    own,
    roots: new Map([
      ['entry', { type: () => ({ kind: 'object', many: false, object: named }), read: (o) => o }],
    ]),
  };
}

function scope(fields: Fields, address = false): Scope {
  return {
    language: 'en',
    zone: 'Europe/Dublin',
    own: fields,
    roots: {},
    address,
    urlOf: () => null,
    imageUrl: (media, width) => `/media/${(media as { id: string }).id}/${width}`,
    steps: 10_000,
    issues: [],
  };
}

function evaluate(source: string, fields: Fields, context: Context = 'text'): string | null {
  const { pattern, issues } = compilePattern(source, environment(fields), context);
  expect(issues).toEqual([]);
  return pattern!.text(scope(fields, context === 'address'));
}

function codes(source: string, fields: Fields = {}, context: Context = 'text'): string[] {
  return compilePattern(source, environment(fields), context).issues.map((i) => i.code);
}

const text = (value: string | null): Fields[string] => ({ kind: 'text', value });

const withoutRanges = (value: unknown): unknown =>
  JSON.parse(JSON.stringify(value, (key, v: unknown) => (/range$/i.test(key) ? undefined : v)));

const name = fc.stringMatching(/^[a-z][A-Za-z0-9_]{0,6}$/);
const range = { start: 0, end: 0 };
const { expression } = fc.letrec<{ expression: Expression; primary: Expression }>((tie) => ({
  primary: fc.oneof(
    { maxDepth: 3 },
    fc.array(name, { minLength: 1, maxLength: 4 }).map((names): Expression => ({
      kind: 'path',
      names: names.map((n) => ({ name: n, range })),
      range,
    })),
    fc.string({ unit: 'grapheme' }).map((value): Expression => ({ kind: 'string', value, range })),
    fc
      .double({ noNaN: true, noDefaultInfinity: true, min: -1e6, max: 1e6 })
      .map((value): Expression => ({
        kind: 'number',
        value: Math.round(value * 1000) / 1000 + 0,
        range,
      })),
    fc
      .tuple(name, fc.array(tie('expression'), { maxLength: 3 }))
      .map(([n, args]): Expression => ({ kind: 'call', name: n, nameRange: range, args, range })),
  ),
  expression: fc.oneof(
    { maxDepth: 3 },
    tie('primary'),
    fc
      .tuple(tie('primary'), tie('expression'))
      .map(([left, right]): Expression => ({ kind: 'coalesce', left, right, range })),
  ),
}));

describe('reading', () => {
  test('any text is read without an exception, and what has no issues prints to something that reads the same', () => {
    const piece = fc.oneof(
      fc.constantFrom(
        '{',
        '}',
        '[',
        ']',
        '{{',
        '}}',
        '[[',
        ']]',
        '{title}',
        '[{a}]',
        '"',
        '\\',
        ' ?? ',
        '.',
        '(',
        ')',
        ',',
      ),
      fc.string(),
    );
    fc.assert(
      fc.property(
        fc.array(piece).map((p) => p.join('')),
        (source) => {
          const first = readPattern(source);
          if (first.issues.length > 0) return;
          const again = readPattern(printParts(first.tree.parts));
          expect(again.issues).toEqual([]);
          expect(withoutRanges(again.tree.parts)).toEqual(withoutRanges(first.tree.parts));
        },
      ),
      { numRuns: 3000 },
    );
  });

  test('every expression prints to something that reads the same', () => {
    fc.assert(
      fc.property(expression, (e) => {
        const parts: Part[] = [{ kind: 'expression', expression: e, range }];
        const again = readPattern(printParts(parts));
        expect(again.issues).toEqual([]);
        expect(withoutRanges(again.tree.parts)).toEqual(withoutRanges(parts));
      }),
    );
  });

  test('any text compiles without an exception in every context, and evaluates without one', () => {
    const fields: Fields = {
      title: text('A'),
      traits: { kind: 'text', value: ['x', 'y'] },
      sow: { kind: 'date', value: '2026-02-03' },
    };
    const word = fc.constantFrom(
      '{title',
      '{sow',
      '{traits',
      '{limit(title, ',
      '{date(sow, "',
      'yyyy',
      '")',
      '}',
      '[',
      ']',
      '??',
      ' ',
      '3',
      ')',
      '/',
      '{entry',
      '.path',
    );
    fc.assert(
      fc.property(
        fc.array(word),
        fc.constantFrom<Context>('address', 'text', 'attribute', 'metadata', 'value'),
        (words, context) => {
          const { pattern } = compilePattern(words.join(''), environment(fields), context);
          pattern?.text(scope(fields));
          pattern?.trace(scope(fields));
        },
      ),
      { numRuns: 2000 },
    );
  });

  test.each([
    ['a]', 'lone-bracket'],
    ['a}', 'lone-brace'],
    ['[a]', 'group-without-expression'],
    ['[{a}', 'unclosed-group'],
    ['{a', 'unclosed-expression'],
    ['{}', 'empty-expression'],
    ['{"a}', 'unclosed-text'],
    ['{a b}', 'unexpected-character'],
    ['{f(a,)}', 'unexpected-character'],
  ])('%s is refused as %s', (source, code) => {
    expect(readPattern(source).issues.map((i) => i.code)).toContain(code);
  });

  test('a style writes the day of a date-time in the site’s zone; a pattern may write its time', () => {
    const fields = { starts: { kind: 'datetime', value: Date.UTC(2026, 4, 9, 23, 30) } as const };
    expect(evaluate('{date(starts, "long")}', fields)).toBe('May 10, 2026');
    expect(evaluate('{date(starts, "d MMM yyyy, HH:mm")}', fields)).toBe('10 May 2026, 00:30');
  });

  test('every issue of a broken pattern says where, why and what to do', () => {
    expect(readPattern('/{a[-{b}]').issues.map((i) => i.code)).toEqual(['unexpected-character']);
    for (const issue of readPattern('a] {b c} [d').issues) {
      expect(issue.range!.end).toBeGreaterThan(issue.range!.start);
      expect(issue.message).toMatch(/\.$/);
      expect(issue.fix).toMatch(/\.$/);
    }
  });

  test('with two groups open "]]" closes both; with one it is a bracket', () => {
    const fields = { a: text('1'), b: text('2') };
    expect(evaluate('[{a}[ {b}]]', fields)).toBe('1 2');
    expect(evaluate('[{a}]] ]', fields)).toBe('1] ');
    expect(evaluate('[[{a}]]', fields)).toBe('[1]');
  });
});

describe('optional groups', () => {
  const fields = { a: text('A'), b: text(null), c: text('C') };
  test.each([
    ['x[ ({b})]', 'x'],
    ['x[ ({a})]', 'x (A)'],
    ['[{a}[-{b}]]', 'A'],
    ['[{b}[-{a}]]', null],
    ['[([{b}][{b}])]', null],
    ['[([{b}][{c}])]', '(C)'],
    ['[{b ?? a}!]', 'A!'],
  ])('%s gives %s', (pattern, result) => {
    expect(evaluate(pattern, fields)).toBe(result);
  });

  test('0 and no are not blank; white space is', () => {
    const values: Fields = {
      n: { kind: 'number', value: 0 },
      no: { kind: 'yesno', value: false },
      space: text(' \t '),
    };
    expect(evaluate('[{n}][{no}][{space}!]', values)).toBe('0no');
  });
});

describe('checking', () => {
  const fields: Fields = {
    title: text('A'),
    traits: { kind: 'text', value: ['x'] },
    sow: { kind: 'date', value: '2026-02-03' },
    stock: { kind: 'number', value: 3 },
  };

  test.each([
    ['{titel}', 'unknown-name'],
    ['{uper(title)}', 'unknown-function'],
    ['{upper(title, title)}', 'argument-count'],
    ['{year(title)}', 'argument-kind'],
    ['{upper(traits)}', 'many-valued'],
    ['{title.name}', 'no-members'],
    ['{date(sow, title)}', 'argument-literal'],
    ['{date(sow, "QQQQ")}', 'argument-value'],
    [`{${Array.from({ length: 17 }, () => 'a').join('.')}}`, 'too-many-hops'],
  ])('%s is refused as %s', (source, code) => {
    expect(codes(source, fields)).toEqual([code]);
  });

  test('a near name is offered, with the place to put it', () => {
    const issue = compilePattern('x {titel}', environment(fields), 'text').issues[0]!;
    expect(issue).toMatchObject({
      replacement: 'title',
      range: { start: 3, end: 8 },
      fix: 'Did you mean "title"?',
    });
  });

  test('an address takes plain characters and numeric dates only', () => {
    expect(codes('/Ä/{title}', fields, 'address')).toEqual(['address-text']);
    expect(codes('/{date(sow, "MMMM")}', fields, 'address')).toEqual(['argument-value']);
    expect(codes('/{date(sow, "yyyy-MM-dd")}', fields, 'address')).toEqual([]);
  });
});

describe('escaping belongs to the context', () => {
  const nasty = fc.string({
    unit: fc.constantFrom('<', '>', '"', "'", '&', 'a', ' ', '/', '.', 'ß', '😀', '\n'),
  });

  test('no value leaves an unescaped character in text or attributes, and none but [a-z0-9-] in addresses', () => {
    fc.assert(
      fc.property(nasty, nasty, (a, b) => {
        const fields = { title: text(a), note: text(b) };
        for (const context of ['text', 'attribute'] as const)
          expect(evaluate('{title}-{note ?? title}', fields, context) ?? '').not.toMatch(
            /[<>"']|&(?!(amp|lt|gt|quot|#39);)/,
          );
        expect(evaluate('{title} {note}', fields, 'metadata') ?? '').not.toMatch(/\s\s|^\s|\s$/);
      }),
    );
  });
});

describe('functions', () => {
  test.each([...FUNCTIONS.values()].map((f) => [f.name, f.example] as const))(
    '%s gives what its example says',
    (_, { pattern, fields, result }) => {
      expect(evaluate(pattern, fields as Fields)).toBe(result);
    },
  );

  test('a year in text is not grouped, other numbers are', () => {
    const fields: Fields = {
      sow: { kind: 'date', value: '2026-03-09' },
      stock: { kind: 'number', value: 2026 },
    };
    expect(evaluate('{year(sow)} {stock}', fields)).toBe('2026 2,026');
  });

  test('limit keeps whole words and counts code points with the ellipsis', () => {
    const cut = (value: string, n: number): string | null =>
      evaluate(`{limit(t, ${n})}`, { t: text(value) }, 'metadata');
    expect(cut('one two three', 13)).toBe('one two three');
    expect(cut('one two three', 8)).toBe('one two…');
    expect(cut('one two three', 7)).toBe('one…');
    expect(cut('😀😀 😀😀😀', 4)).toBe('😀😀…');
    expect(cut('abcdefgh', 4)).toBe('abc…');
    fc.assert(
      fc.property(
        fc.string({ unit: 'grapheme' }),
        fc.integer({ min: 1, max: 20 }),
        (value, n) => [...(cut(value, n) ?? '')].length <= Math.max(n, 0),
      ),
    );
  });

  test('dates in a zone: year, month and day of a date-time are the site’s', () => {
    const fields: Fields = {
      starts: { kind: 'datetime', value: Date.parse('2026-06-30T23:30:00Z') },
    };
    expect(
      evaluate('{year(starts)}-{month(starts)}-{day(starts)} {date(starts, "HH:mm EEEE")}', fields),
    ).toBe('2026-7-1 00:30 Wednesday');
  });
});
