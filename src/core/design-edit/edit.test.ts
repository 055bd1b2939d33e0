import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { designOf, typeOf } from '../../../tests/helpers/design.ts';
import { RICH_DESIGN, choices, drawing, randomEdit } from '../../../tests/helpers/random-edits.ts';
import { type Design, designSpec } from '../design/spec.ts';
import { compileSite } from '../site/compile.ts';
import { describe as inWords } from './describe.ts';
import { type DesignEdit, applyEdit, invertEdit } from './edit.ts';
import { applyStep } from './apply.ts';
import { stepsBetween } from './between.ts';
import { type Json, type Part, partAt, partsBelow } from './parts.ts';
import type { Step } from './steps.ts';

const design = designOf({
  types: [
    typeOf('note', [], { address: '/{title}' }),
    typeOf('page', [], { address: '/p/{title}' }),
  ],
});
const set = (part: string, property: string, was: Json, now: Json): DesignEdit => ({
  steps: [{ do: 'set', part, property, was, now }],
});
const applied = (before: Design, edit: DesignEdit): Design => {
  const done = applyEdit(before, edit);
  if (!done.ok) throw new Error(JSON.stringify(done.issues));
  return done.value.design;
};
const codes = (edit: DesignEdit, before = design): string[] => {
  const done = applyEdit(before, edit);
  return done.ok ? [] : done.issues.map(({ code }) => code);
};

describe('an edit', () => {
  test('changes its part and leaves the others', () => {
    const after = applied(design, set('types/note', 'address', '/{title}', '/n/{title}'));
    expect(after.types.map((t) => t.address)).toEqual(['/n/{title}', '/p/{title}']);
  });

  test('of another property than somebody else changed holds beside theirs', () => {
    const theirs = applied(design, set('types/note', 'seo.title', null, '{title}!'));
    const both = applied(theirs, set('types/note', 'seo.description', null, 'Of {title}'));
    expect(both.types[0]!.seo).toEqual({ title: '{title}!', description: 'Of {title}' });
  });

  test('of a property that somebody else changed is refused, with both values', () => {
    const theirs = applied(design, set('types/note', 'address', '/{title}', '/theirs/{title}'));
    const mine = applyEdit(theirs, set('types/note', 'address', '/{title}', '/mine/{title}'));
    expect(mine).toMatchObject({
      ok: false,
      issues: [
        {
          code: 'changed-since',
          path: 'types/note/address',
          values: { yours: '“/mine/{title}”', theirs: '“/theirs/{title}”' },
        },
      ],
    });
  });

  test('that sets what is set already is no conflict', () => {
    const same = set('types/note', 'address', '/{title}', '/n/{title}');
    expect(applied(applied(design, same), same).types[0]!.address).toBe('/n/{title}');
  });

  test('of what is gone, of the wrong form, or that does not hold together is refused', () => {
    expect(codes(set('types/gone', 'address', null, '/x'))).toEqual(['unknown-part']);
    expect(codes(set('nowhere/x/y', 'address', null, '/x'))).toEqual(['unknown-part']);
    expect(codes(set('types/note', 'clash', 'number', 'often'))).toEqual(['wrong-form']);
    expect(codes(set('types/note', 'address', '/{title}', '/{titel}'))).toEqual(['unknown-name']);
    expect(codes(set('types/note', '__proto__.x', null, 'y'))).toEqual(['wrong-form']);
  });

  test('of the kind of a field is refused under the id it has', () => {
    expect(codes(set('types/note/fields/title', 'kind', 'text', 'number'))).toContain(
      'kind-changed',
    );
  });

  test('taken back takes with it what was made to hold what it set', () => {
    const block = { id: 'new', block: 'text', text: '{title}' };
    const steps: Step[] = [
      {
        do: 'add',
        part: block,
        within: 'templates/seed-card',
        list: 'slots.foot',
        after: null,
      },
    ];
    const done = applyEdit(RICH_DESIGN, { steps });
    if (!done.ok) throw new Error(JSON.stringify(done.issues));
    expect(partAt(done.value.design, 'templates/seed-card')!.slots).toEqual({ foot: [block] });
    const { steps: back } = invertEdit(done.value.edit);
    expect(JSON.stringify(alike(done.value.design, back))).toBe(JSON.stringify(RICH_DESIGN));
    const loose = { do: 'set', part: 'templates/seed-card/blocks/b1', was: null } as const;
    const held = applyStep(RICH_DESIGN, { ...loose, property: 'x.y', now: 'z' });
    if (!held.ok) throw new Error(JSON.stringify(held.issues));
    const undone = applyStep(held.value.design, invertEdit({ steps: [held.value.step] }).steps[0]!);
    expect(JSON.stringify(undone.ok && undone.value.design)).toBe(JSON.stringify(RICH_DESIGN));
  });

  test('that removes what somebody else changed is refused', () => {
    const was = partAt(design, 'types/page') as never;
    const remove: Step = {
      do: 'remove',
      part: 'types/page',
      was,
      within: '',
      list: 'types',
      after: 'note',
    };
    const theirs = applied(design, set('types/page', 'label', 'Page', 'Leaf'));
    expect(codes({ steps: [remove] }, theirs)).toEqual(['changed-since']);
    expect(applied(design, { steps: [remove] }).types).toHaveLength(1);
  });
});

test('the inverse of an edit gives the design back, to the letter', () => {
  let accepted = 0;
  fc.assert(
    fc.property(choices, (numbers) => {
      const pick = drawing(numbers);
      let now = RICH_DESIGN;
      const steps: { before: Design; edit: DesignEdit }[] = [];
      for (let i = 0; i < 12; i++) {
        const done = applyEdit(now, randomEdit(now, pick));
        if (!done.ok) continue;
        accepted += 1;
        steps.push({ before: now, edit: done.value.edit });
        now = done.value.design;
        expect(JSON.stringify(designSpec.parse(now))).toBe(JSON.stringify(now));
      }
      for (const { before, edit } of steps.toReversed()) {
        now = applied(now, invertEdit(edit));
        expect(JSON.stringify(now)).toBe(JSON.stringify(before));
      }
    }),
    { numRuns: 60 },
  );
  expect(accepted).toBeGreaterThan(40);
});

test('an edit that took hold does the same again, and says so in a sentence', () => {
  fc.assert(
    fc.property(choices, (numbers) => {
      const done = applyEdit(RICH_DESIGN, randomEdit(RICH_DESIGN, drawing(numbers)));
      if (!done.ok) return;
      const { edit, design: after } = done.value;
      expect(JSON.stringify(applied(RICH_DESIGN, edit))).toBe(JSON.stringify(after));
      expect(inWords(after, edit)).toMatch(/\S/);
      expect(inWords(after, edit)).not.toMatch(/undefined|\[object/);
    }),
    { numRuns: 60 },
  );
});

test('the steps between two states of a part lead from one to the other', () => {
  fc.assert(
    fc.property(choices, (numbers) => {
      const pick = drawing(numbers);
      let now = RICH_DESIGN;
      for (let i = 0; i < 8; i++) {
        const done = applyEdit(now, randomEdit(now, pick));
        if (done.ok) now = done.value.design;
      }
      for (const path of ['types/seed', 'listings/now', 'templates/seed-page', 'site', 'style']) {
        const [opened, wanted] = [partAt(RICH_DESIGN, path)!, partAt(now, path)];
        // A key is renamed, everywhere, and not set.
        if (!wanted || isRenamed(path, opened, wanted)) continue;
        const steps = stepsBetween(path, opened, wanted, () => 'fresh');
        const between = steps.length === 0 ? RICH_DESIGN : alike(RICH_DESIGN, steps);
        expect(partAt(between, path)).toEqual(wanted);
      }
    }),
    { numRuns: 60 },
  );
});

/** A design after steps that need not hold together with the rest of it. */
function alike(before: Design, steps: Step[]): Design {
  const done = applyEdit(before, { steps });
  if (done.ok) return done.value.design;
  const wrong = done.issues.filter(({ code }) => code === 'wrong-form' || code === 'changed-since');
  expect(wrong).toEqual([]);
  return steps.reduce((d, step) => {
    const next = applyStep(d, step);
    return next.ok ? next.value.design : d;
  }, before);
}

function isRenamed(path: string, opened: Part, wanted: Part): boolean {
  const keys = new Map(partsBelow(path, opened).map(([p, { key }]) => [p, key]));
  return partsBelow(path, wanted).some(([p, { key }]) => keys.has(p) && keys.get(p) !== key);
}

test('a design of a site with every sort of part holds together', () => {
  expect(compileSite(RICH_DESIGN).issues).toEqual([]);
});

test('an edit of a timing rule says what the rule does', () => {
  const rule = { id: 't1', do: 'retire', from: 'entry.published', after: 'P14D' };
  const words = (from: object[], to: object[]): string => {
    const [was, now] = [from, to].map((timing) =>
      designOf({ types: [typeOf('note', [], timing.length > 0 ? { timing } : {})] }),
    );
    const steps = stepsBetween('types/note', was!.types[0]!, now!.types[0]!, () => 'n1');
    return inWords(now!, { steps });
  };
  expect(words([rule], [rule, { ...rule, id: 't2', after: 'P1D' }])).toBe(
    'Note: timing rule “retires 1 day after it went live first” added',
  );
  expect(words([], [rule])).toBe('Note: timing “retires 14 days after it went live first”');
  expect(words([rule], [{ ...rule, after: 'P1W' }])).toBe(
    'Note, “retires 1 week after it went live first”: how much later “P1W”, was “P14D”',
  );
});

test('what is wrong within a list is told by its place, counted from 1', () => {
  const rules = ['P1D', 'P99999Y'].map((after, i) => ({
    id: `t${i}`,
    do: 'retire',
    from: 'x',
    after,
  }));
  const done = applyEdit(design, set('types/note', 'timing', null, rules));
  expect(done).toMatchObject({ ok: false, issues: [{ path: 'types/note/timing/2/after' }] });
});
