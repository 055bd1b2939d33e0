import fc from 'fast-check';
import { expect, test } from 'vitest';
import { didYouMean, editDistance, nearest } from './did-you-mean.ts';

/** Edit distance with swaps of neighbours, by its definition. */
function slow(a: string, b: string): number {
  if (a === '' || b === '') return a.length + b.length;
  const swap =
    a.length > 1 && b.length > 1 && a.at(-1) === b.at(-2) && a.at(-2) === b.at(-1)
      ? slow(a.slice(0, -2), b.slice(0, -2)) + 1
      : Infinity;
  return Math.min(
    slow(a.slice(0, -1), b) + 1,
    slow(a, b.slice(0, -1)) + 1,
    slow(a.slice(0, -1), b.slice(0, -1)) + (a.at(-1) === b.at(-1) ? 0 : 1),
    swap,
  );
}

test('the edit distance is that of its definition', () => {
  const word = fc.string({ unit: fc.constantFrom('a', 'b', 'c'), maxLength: 6 });
  fc.assert(
    fc.property(word, word, (a, b) => {
      expect(editDistance(a, b)).toBe(slow(a, b));
    }),
    { numRuns: 200 },
  );
});

test('the nearest name is offered, and none that is far off', () => {
  expect(nearest('titel', ['summary', 'title'])).toBe('title');
  expect(nearest('zzz', ['summary', 'title'])).toBeUndefined();
  expect(didYouMean('titel', ['title'], 'Add it.')).toBe('Did you mean "title"?');
  expect(didYouMean('zzz', ['title'], 'Add it.')).toBe('Add it.');
});

test('of very many names only the first are looked at', () => {
  let asked = 0;
  function* names(): Generator<string> {
    while (true) yield `${'x'.repeat(50)}${asked++}`;
  }
  expect(nearest('y'.repeat(50), names())).toBeUndefined();
  expect(asked).toBeLessThan(2000);
});
