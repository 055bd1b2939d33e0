import fc from 'fast-check';
import { expect, test } from 'vitest';
import { RICH_DESIGN, choices, drawing, randomEdit } from '../../../tests/helpers/random-edits.ts';
import { type DesignEdit, applyEdit } from './edit.ts';
import { type OpenEdit, foldEdits, withDependents, withNeeds } from './fold.ts';
import type { Json } from './parts.ts';
import type { Step } from './steps.ts';

const set = (part: string, property: string, was: Json, now: Json): DesignEdit => ({
  steps: [{ do: 'set', part, property, was, now }],
});
const open = (...edits: DesignEdit[]): OpenEdit[] => edits.map((edit, i) => ({ id: i + 1, edit }));
const field: Step = {
  do: 'add',
  part: { id: 'f1', key: 'frost', kind: 'date', label: 'Frost date' },
  within: 'types/seed',
  list: 'fields',
  after: 'sow',
};

test('what an edit reads is taken along with it, and by whom', () => {
  const edits = open(
    { steps: [field] },
    set('types/page', 'label', 'Page', 'Leaf'),
    set('types/seed', 'seo.description', null, 'Before {frost}'),
  );
  const taken = withNeeds(RICH_DESIGN, edits, new Set([3]));
  expect(taken.edits.map(({ id }) => id)).toEqual([1, 3]);
  expect([...taken.because]).toEqual([[1, 3]]);
});

test('an edit of what another one set is taken together with it', () => {
  const edits = open(
    set('types/page', 'label', 'Page', 'Leaf'),
    set('types/seed', 'label', 'Seed', 'Plant'),
    set('types/page', 'label', 'Leaf', 'Sheet'),
  );
  expect(withNeeds(RICH_DESIGN, edits, new Set([3])).edits.map(({ id }) => id)).toEqual([1, 3]);
  expect(withDependents(RICH_DESIGN, edits, new Set([1]))).toEqual([1, 3]);
  expect(withDependents(RICH_DESIGN, edits, new Set([2]))).toEqual([2]);
});

test('what is built on an edit without naming it is found as well', () => {
  const edits = open(
    set('redirects/r1', 'from', '/old', '/elsewhere'),
    set('listings/now', 'address', null, '/old'),
  );
  expect(withNeeds(RICH_DESIGN, edits, new Set([2])).edits.map(({ id }) => id)).toEqual([1, 2]);
  expect(withDependents(RICH_DESIGN, edits, new Set([1]))).toEqual([1, 2]);
});

test('an edit overtaken by a release is passed over and said, the others hold', () => {
  const edits = open(
    set('types/page', 'label', 'Page', 'Leaf'),
    set('types/seed', 'label', 'Seed', 'Plant'),
  );
  const released = applyEdit(RICH_DESIGN, set('types/page', 'label', 'Page', 'Side'));
  if (!released.ok) throw new Error('refused');
  const { design, stuck } = foldEdits(released.value.design, edits);
  expect(design.types.map((t) => t.label)).toEqual(['Grower', 'Plant', 'Club rules', 'Side']);
  expect(stuck).toMatchObject([{ id: 1, issues: [{ code: 'changed-since' }] }]);
});

test('any choice of open edits, with what it needs, applies; what is undone leaves the rest whole', () => {
  fc.assert(
    fc.property(choices, (numbers) => {
      const pick = drawing(numbers);
      const edits: OpenEdit[] = [];
      let now = RICH_DESIGN;
      for (let i = 0; i < 14; i++) {
        const done = applyEdit(now, randomEdit(now, pick));
        if (!done.ok) continue;
        now = done.value.design;
        edits.push({ id: i, edit: done.value.edit });
      }
      expect(foldEdits(RICH_DESIGN, edits)).toMatchObject({ design: now, stuck: [] });
      const chosen = new Set(edits.filter(() => pick(3) === 0).map(({ id }) => id));
      const taken = withNeeds(RICH_DESIGN, edits, chosen);
      expect(taken.stuck).toEqual([]);
      expect(foldEdits(RICH_DESIGN, taken.edits).stuck).toEqual([]);
      expect(taken.edits.filter(({ id }) => chosen.has(id))).toHaveLength(chosen.size);
      const undone = new Set(withDependents(RICH_DESIGN, edits, chosen));
      const left = edits.filter(({ id }) => !undone.has(id));
      expect(foldEdits(RICH_DESIGN, left).stuck).toEqual([]);
    }),
    { numRuns: 40 },
  );
});
