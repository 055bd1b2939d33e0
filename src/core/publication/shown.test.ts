import { expect, test } from 'vitest';
import fc from 'fast-check';
import type { Plan } from './model.ts';
import { codeOf, shownBy, shownOver } from './shown.ts';

const revisions = [1, 2, 3, 4].map((number) => ({ number, saved: 0, values: {}, author: 'ann' }));
const publish = (at: number, revision: number): Plan => ({
  ...{ at, sequence: 0, do: 'publish', revision },
});
const retire = (at: number): Plan => ({ at, sequence: 0, do: 'retire', revision: null });

/** What is shown over time, in short: "2/3" for words of 2 and the rest of 3, "(…)" as fallback. */
function told(facts: Partial<Parameters<typeof shownOver>[0]>): string[] {
  const all = shownOver({ revisions, plans: [], others: [], fallback: [], ...facts });
  return all.map(({ at, shown }) => {
    if (!shown) return `${at} nothing`;
    const words = `${shown.revision}/${shown.shared}`;
    return `${at} ${shown.isFallback ? `(${words})` : words}`;
  });
}

test('a number stands for what is shown, and for nothing else', () => {
  const number = fc.integer({ min: 1, max: 2 ** 20 - 1 });
  fc.assert(
    fc.property(number, number, fc.boolean(), (revision, shared, isFallback) => {
      expect(shownBy(codeOf({ revision, shared, isFallback }))).toEqual({
        ...{ revision, shared, isFallback },
      });
    }),
  );
  expect(codeOf({ revision: 7, shared: 7, isFallback: false })).toBe(7);
});

test('what is not in words is as it was published last in any language', () => {
  expect(told({ plans: [publish(10, 1)], others: [publish(20, 3)] })).toEqual(['10 1/1', '20 1/3']);
});

test('and never older than the words', () => {
  expect(told({ plans: [publish(10, 3)], others: [publish(20, 2)] })).toEqual(['10 3/3']);
  expect(told({ plans: [publish(20, 2)], others: [publish(10, 3)] })).toEqual(['20 2/3']);
});

test('another language makes nothing live here', () => {
  expect(told({ others: [publish(10, 1)] })).toEqual([]);
});

test('words that a rule took away are not brought back by another language', () => {
  const facts = { revisions, fallback: [], plans: [publish(10, 1)], others: [publish(20, 3)] };
  const [first, second] = shownOver(facts);
  expect(first).not.toHaveProperty('keeps');
  expect(second).toMatchObject({ at: 20, keeps: true });
  const again = shownOver({ ...facts, plans: [publish(10, 1), publish(30, 1)], others: [] });
  expect(again.map(({ at, keeps }) => [at, keeps])).toEqual([
    [10, undefined],
    [30, undefined],
  ]);
});

test('where there are no words of its own the site’s language stands in, while it is live', () => {
  const fallback = [
    { from: 10, to: 20, revision: 1, sharedRevision: 2 },
    { from: 20, to: 50, revision: 2, sharedRevision: 2 },
  ];
  const plans = [publish(30, 3), retire(40)];
  expect(told({ plans, others: [], fallback })).toEqual([
    '10 (1/2)',
    '20 (2/2)',
    '30 3/3',
    '40 (2/2)',
    '50 nothing',
  ]);
});
