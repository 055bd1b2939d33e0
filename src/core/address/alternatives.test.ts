import { expect, test } from 'vitest';
import { designOf, typeOf } from '../../../tests/helpers/design.ts';
import { compileSite } from '../site/compile.ts';
import { tellingApart } from './alternatives.ts';

const fields = [
  { key: 'on', label: 'Held on', kind: 'date' },
  { key: 'ease', kind: 'choice', options: ['easy', 'hard'] },
  { key: 'friend', kind: 'reference', types: ['talk'] },
  { key: 'many', kind: 'tags', set: 'traits' },
  { key: 'stock', kind: 'number' },
];
const designWith = (address: string) =>
  designOf({
    types: [typeOf('talk', fields, { address })],
    subjectSets: [{ key: 'traits', kind: 'tags' }],
  });

test('clashing addresses are told apart by what the pattern does not read yet', () => {
  const of = (pattern: string): string[] =>
    tellingApart(pattern, designWith(pattern).types[0]!.fields).map(({ words }) => words);
  expect(of('/talks/{title}')).toEqual([
    'the year of publication',
    'the year of held on',
    'ease',
    'friend',
  ]);
  expect(of('/{year(entry.published)}/{ease}/{title}')).toEqual(['the year of held on', 'friend']);
  expect(tellingApart('', [])).toEqual([]);
});

test('every pattern that is offered is one', () => {
  for (const { pattern } of tellingApart('/a/{title}', designWith('/a/{title}').types[0]!.fields))
    expect({ pattern, issues: compileSite(designWith(pattern)).issues }).toEqual({
      pattern,
      issues: [],
    });
});
