import { describe, expect, test } from 'vitest';
import type { Plan } from './model.ts';
import { applyPlans, newestSaved, nextPublication, publishedBy } from './plans.ts';
import { stateAt } from './state.ts';

const revisions = [10, 20, 30].map((saved, i) => ({
  number: i + 1,
  saved,
  values: {},
  author: '',
}));
const plan = (at: number, act: Plan['do'], revision: number | null = null): Plan => ({
  at,
  sequence: 0,
  do: act,
  revision,
});

describe('a publication', () => {
  test('takes the newest revision saved by then, or the one that is named', () => {
    expect(newestSaved(revisions, 25)?.number).toBe(2);
    expect(newestSaved(revisions, 9)).toBeUndefined();
    expect(publishedBy(plan(25, 'publish'), revisions)?.number).toBe(2);
    expect(publishedBy(plan(25, 'publish', 1), revisions)?.number).toBe(1);
    expect(publishedBy(plan(25, 'publish', 3), revisions)).toBeUndefined();
  });

  test('of several at one instant the last decides', () => {
    const both = [plan(40, 'publish', 1), plan(40, 'publish', 2)];
    expect(applyPlans(null, both, revisions)).toBe(2);
    expect(nextPublication(both, revisions, 39)).toEqual({ at: 40, revision: 2 });
    expect(applyPlans(1, [plan(40, 'publish', 2), plan(40, 'retire')], revisions)).toBeNull();
  });

  test('that is taken back at its own instant is not what comes next', () => {
    const plans = [plan(40, 'publish'), plan(40, 'retire'), plan(50, 'publish', 1)];
    expect(nextPublication(plans, revisions, 30)).toEqual({ at: 50, revision: 1 });
    expect(nextPublication(plans, revisions, 50)).toBeUndefined();
  });
});

describe('state', () => {
  const interval = { from: 15, to: 35, revision: 1 };
  const at = (instant: number, intervals = [interval]) =>
    stateAt({ revisions, intervals }, instant);

  test.each([
    [5, 'not yet written', 10],
    [12, 'scheduled', 15],
    [15, 'live', 20],
    [20, 'live with newer draft', 30],
    [35, 'retired', null],
  ])('at %i it is %s, until %s at least', (instant, state, until) => {
    expect(at(instant)).toEqual({ state, until });
  });

  test('without a publication it is a draft', () => {
    expect(at(25, [])).toEqual({ state: 'draft', until: 30 });
  });
});
