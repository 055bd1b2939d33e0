import { describe, expect, test } from 'vitest';
import { buildPath, fallbackSlug } from './build.ts';
import { isReserved, normalisePath, pagePath, splitPageNumber } from './path.ts';

const value = (text: string) => ({ kind: 'value' as const, text, expression: 'title' });
const text = (words: string) => ({ kind: 'text' as const, text: words });
const path = (words: string) => ({ kind: 'path' as const, text: words, expression: 'within.path' });
type Parts = Parameters<typeof buildPath>[0];
const build = (...parts: object[]) => buildPath(parts as Parts, 'en', 'note-abc');

describe('a path is built', () => {
  test('from text and values made fit for one', () => {
    expect(build(text('/notes/'), value('First Frost!'))).toEqual({
      ok: true,
      path: '/notes/first-frost',
      nothingLeft: null,
    });
  });

  test('on the path of what it sits within, or at the top without one', () => {
    expect(build(path('/about'), text('/'), value('Team'))).toMatchObject({ path: '/about/team' });
    expect(build(path(''), text('/'), value('Team'))).toMatchObject({ path: '/team' });
  });

  test('with its fallback where transliteration leaves nothing, which is told', () => {
    expect(build(text('/'), value('!!!'))).toEqual({
      ok: true,
      path: '/note-abc',
      nothingLeft: 'title',
    });
    expect(fallbackSlug('note', 'abcdefghi', 'en')).toBe('note-abcdef');
  });

  test('with segments of at most 120 characters', () => {
    const built = build(text('/x/'), value('word '.repeat(700)));
    if (!built.ok) throw new Error(built.why);
    const last = built.path.split('/').at(-1)!;
    expect(last.length).toBeLessThanOrEqual(120);
    expect(last).not.toMatch(/-$/);
  });

  test('not where a value is blank, or the whole is longer than a path may be', () => {
    expect(build(text('/'), value(' '), text('/'), value('x'))).toEqual({
      ok: false,
      why: 'blank',
      expression: 'title',
    });
    const long = Array.from({ length: 12 }, () => [text('/'), value('a'.repeat(110))]).flat();
    expect(build(...long)).toMatchObject({ ok: false, why: 'too-long' });
  });
});

describe('the normal form of a path', () => {
  test.each([
    ['/A//b/', '/a/b'],
    ['/caf%C3%A9', '/café'],
    ['/cafe\u0301', '/café'],
    ['/', '/'],
  ])('%s is %s', (raw, normal) => {
    expect(normalisePath(raw)).toMatchObject({ ok: true, path: normal });
  });

  test.each(['x', '/../x', '/%ff', '/a%00b', '/a%5Cb', `/${'x'.repeat(4000)}`])(
    '%s has none',
    (raw) => {
      expect(normalisePath(raw)).toMatchObject({ ok: false });
    },
  );

  test('is its own normal form', () => {
    for (const raw of ['/A//b/', '/caf%C3%A9', '/x.y', '/ß']) {
      const once = normalisePath(raw);
      if (!once.ok) throw new Error(once.reason);
      expect(normalisePath(once.path)).toMatchObject({ path: once.path, changed: false });
    }
  });
});

test('whole first segments are reserved, and sitemap parts', () => {
  expect(['/media', '/media/x', '/sitemap-12.xml', '/api/a/b'].every(isReserved)).toBe(true);
  expect(['/mediation', '/x/media', '/sitemap-x.xml', '/'].some(isReserved)).toBe(false);
});

test('a page number is read back from the path that it makes', () => {
  expect(splitPageNumber(pagePath('/varieties', 3))).toEqual({ address: '/varieties', number: 3 });
  expect(splitPageNumber('/varieties')).toBeNull();
});
