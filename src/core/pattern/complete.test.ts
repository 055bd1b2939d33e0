import { describe, expect, test } from 'vitest';
import { Environments } from '../design/environment.ts';
import { designSpec } from '../design/spec.ts';
import { completeAt } from './complete.ts';

const design = designSpec.parse({
  site: { name: 'S', url: 'https://s.example', zone: 'Europe/Dublin', language: 'en' },
  types: [
    {
      key: 'seed',
      fields: [
        { key: 'title', kind: 'text' },
        { key: 'sowFrom', label: 'First sowing', kind: 'date' },
        { key: 'savedBy', kind: 'reference', types: ['grower'] },
      ],
    },
    {
      key: 'grower',
      fields: [
        { key: 'name', kind: 'text' },
        { key: 'village', kind: 'text' },
      ],
    },
  ],
});
const env = new Environments(design).ofType(design.types[0]!);

/** What is offered where "|" stands. */
function offered(text: string, inAddress = false): string[] | null {
  const caret = text.indexOf('|');
  const found = completeAt(text.replace('|', ''), caret, env, inAddress);
  return found && found.offers.map(({ insert }) => insert);
}

describe('what a pattern can go on with', () => {
  test('is the fields first, then the roots and functions', () => {
    const all = offered('{|')!;
    expect(all.slice(0, 3)).toEqual(['title', 'sowFrom', 'savedBy']);
    expect(all).toContain('site');
    expect(all).toContain('limit(');
  });

  test.each([
    ['{ti|', 'title'],
    ['{limit(ti|', 'title'],
    ['About {savedBy.v|', 'village'],
    ['{title ?? savedBy.na|}', 'name'],
    ['{sowing|', 'sowFrom'],
    ['{nothing.here.|', undefined],
  ])('%s begins with %s', (text, expected) => {
    expect(offered(text)![0]).toBe(expected);
  });

  test.each(['|', 'a{{|', '{title}|', '{date(sowFrom, "d|', '[a |'])('%s is nothing', (text) => {
    expect(offered(text)).toBeNull();
  });

  test('takes the place of the word at the caret, and says the whole expression and what it gives', () => {
    const found = completeAt('a {savedBy.vil} b', 13, env)!;
    expect([found.from, found.to]).toEqual([11, 14]);
    expect(found.offers[0]).toEqual({
      insert: 'village',
      label: 'Village',
      gives: 'text',
      expression: 'savedBy.village',
    });
  });

  test('is in an address what an address may read', () => {
    expect(offered('{entry.|')).toContain('updated');
    expect(offered('{entry.|', true)).not.toContain('updated');
  });
});
