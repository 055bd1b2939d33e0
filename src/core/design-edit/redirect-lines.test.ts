import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { designOf } from '../../../tests/helpers/design.ts';
import { endOfRedirects, redirectAt, redirectIssues, redirectsOf } from '../site/redirects.ts';
import { applyEdit } from './edit.ts';
import { type RedirectLine, planRedirects } from './redirect-lines.ts';

const design = (redirects: object[] = []) =>
  designOf({ redirects, types: [{ key: 'note', fields: [{ key: 'title', kind: 'text' }] }] });
const nothing = (): null => null;

function made(redirects: object[], lines: RedirectLine[], standsAt = nothing as never) {
  const before = design(redirects);
  const { lines: planned, steps } = planRedirects(before, lines, standsAt);
  if (steps.length === 0) return { planned, now: before.redirects };
  const done = applyEdit(before, { steps });
  if (!done.ok) throw new Error(JSON.stringify(done.issues));
  return { planned, now: done.value.design.redirects };
}
const leads = (redirects: readonly { from: string; to: string }[]): string[] =>
  redirects.map(({ from, to }) => `${from} ${to}`);

describe('a redirect that leads on all below its path', () => {
  const all = redirectsOf(
    design([
      { from: '/old', to: '/new/', prefix: true },
      { from: '/old/deep', to: 'https://deep.example/x?a=1#b', prefix: true },
      { from: '/old/one', to: '/first' },
      { from: '/plain', to: '/there' },
    ]),
  );
  test.each([
    ['/old', '/new/'],
    ['/old/two/three', '/new/two/three'],
    ['/old/one', '/first'],
    ['/old/one/more', '/new/one/more'],
    ['/old/deep/er', 'https://deep.example/x/er?a=1#b'],
    ['/old/ä b%', '/new/%C3%A4%20b%25'],
    ['/older', null],
    ['/plain/x', null],
  ])('leads %s to %s', (path, expected) => {
    expect(redirectAt(all, path)?.location ?? null).toBe(expected);
  });
});

describe('redirects that are wanted', () => {
  test('are added, changed, left as they are', () => {
    const { planned, now } = made(
      [
        { from: '/a', to: '/x' },
        { from: '/b', to: '/y', status: 301 },
      ],
      [
        { from: '/a', to: '/z' },
        { from: '/b', to: '/y', status: 301 },
        { from: '/C/', to: '/w', prefix: true },
      ],
    );
    expect(planned.map(({ outcome }) => outcome)).toEqual(['changed', 'same', 'new']);
    expect(leads(now)).toEqual(['/a /z', '/b /y', '/c /w']);
    expect(now[2]).toMatchObject({ status: 308, prefix: true });
  });

  test('lead to the end at once, and so do those that led to their beginning', () => {
    const { now } = made(
      [
        { from: '/a', to: '/b' },
        { from: '/c', to: '/d' },
      ],
      [{ from: '/b', to: '/c' }],
    );
    expect(leads(now)).toEqual(['/a /d', '/c /d', '/b /d']);
  });

  test('lead to what stands on the way', () => {
    const stands = (path: string): string | null => (path === '/b' ? 'A page' : null);
    const { planned, now } = made(
      [{ from: '/b', to: '/c' }],
      [
        { from: '/a', to: '/b' },
        { from: '/b', to: '/e' },
      ],
      stands as never,
    );
    expect(planned[1]).toMatchObject({ outcome: 'refused', words: 'A page stands there.' });
    expect(leads(now)).toEqual(['/b /c', '/a /b']);
  });

  test.each([
    [{ from: '/a', to: '/a' }, 'circle'],
    [{ from: '/a', to: '/x', prefix: true }, null],
    [{ from: '/a', to: '/a/b', prefix: true }, 'circle'],
    [{ from: '/y', to: '/x' }, 'circle'],
    [{ from: '/build/x', to: '/b' }, 'keeps /build/x for itself'],
    [{ from: 'a', to: '/b' }, 'starts at a path'],
    [{ from: '/a', to: 'javascript:alert(1)' }, 'leads to a path'],
    [{ from: '/a', to: '/b', status: 404 }, 'answers with 301'],
  ])('are refused one by one: %j', (line, words) => {
    const { planned, now } = made([{ from: '/x', to: '/y' }], [line, { from: '/ok', to: '/b' }]);
    if (words === null) expect(planned[0]!.outcome).toBe('new');
    else expect(planned[0]).toMatchObject({ outcome: 'refused' });
    expect(planned[0]!.words.toLowerCase()).toContain((words ?? '').toLowerCase());
    expect(planned[1]!.outcome).toBe('new');
    expect(now.some(({ from }) => from === '/ok')).toBe(true);
  });

  test('never make a design that is wrong, and no two are followed one after the other', () => {
    const path = fc.constantFrom('/a', '/b', '/c', '/d', '/a/b', '/b/c');
    const line = fc.record(
      { from: path, to: fc.oneof(path, fc.constant('/end')), prefix: fc.boolean() },
      { requiredKeys: ['from', 'to'] },
    );
    let chained = 0;
    fc.assert(
      fc.property(
        fc.array(line, { maxLength: 6 }),
        fc.array(line, { maxLength: 6 }),
        (one, two) => {
          const first = made([], one).now;
          const { now } = made(first as never, two);
          expect(redirectIssues(design(now as never))).toEqual([]);
          const all = redirectsOf({ redirects: now });
          for (const { from, to, isPrefix } of all.values()) {
            if (isPrefix) continue;
            chained += 1;
            expect(endOfRedirects(all, from)).toBe(to);
          }
        },
      ),
      { numRuns: 300 },
    );
    expect(chained).toBeGreaterThan(20);
  });
});
