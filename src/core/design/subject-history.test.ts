import fc from 'fast-check';
import { expect, test } from 'vitest';
import { Validity } from '../time/interval.ts';
import { SubjectHistory, type SubjectVersion } from './subject-history.ts';

const ABOUT = { slug: 's', description: '', picture: null, languages: {} };
const LAST = 12;

/** Versions of a few keys, each at most one at a time. */
const histories = fc
  .array(
    fc.record({
      key: fc.constantFrom('a', 'b', 'c', 'd'),
      from: fc.integer({ min: 0, max: LAST - 1 }),
      length: fc.integer({ min: 1, max: 5 }),
      merged: fc.option(fc.constantFrom('a', 'b', 'c', 'd')),
      parent: fc.option(fc.constantFrom('a', 'b')),
    }),
    { maxLength: 10 },
  )
  .map((all) =>
    all.reduce<SubjectVersion[]>((kept, { key, from, length, merged, parent }) => {
      const to = from + length > LAST ? null : from + length;
      const clashes = kept.some((v) => v.key === key && from < (v.to ?? 99) && v.from < (to ?? 99));
      const into = merged === key ? null : merged;
      const version = { ...ABOUT, key, name: `${key}${from}`, from, to, merged: into };
      const above = into !== null || parent === key ? null : parent;
      return clashes ? kept : [...kept, { ...version, parent: above }];
    }, []),
  );

test('what a key stands for, and what counts as it, stays until its bounds say otherwise', () => {
  fc.assert(
    fc.property(histories, fc.nat(LAST), fc.nat(LAST), (versions, one, two) => {
      const history = new SubjectHistory('set', versions);
      const [at, then] = [Math.min(one, two), Math.max(one, two)];
      for (const key of ['a', 'b', 'c', 'd']) {
        const [own, shape] = [new Validity(at), new Validity(at)];
        history.tell(key, own);
        history.tellShape(shape);
        const [now, later] = [history.at(at), history.at(then)];
        if (own.until === null || then < own.until) expect(later.get(key)).toEqual(now.get(key));
        if (shape.until !== null && then >= shape.until) continue;
        // What is added to the others meanwhile, nobody had so far.
        const kept = later
          .keysWithin(key)
          .filter((k) => versions.some((v) => v.key === k && v.from <= at));
        expect(kept.sort()).toEqual(now.keysWithin(key).toSorted());
      }
    }),
    { numRuns: 500 },
  );
});

test('an instant is answered by the versions that hold then, whatever was asked before', () => {
  fc.assert(
    fc.property(
      histories,
      fc.array(fc.nat(LAST), { minLength: 20, maxLength: 20 }),
      (versions, all) => {
        const history = new SubjectHistory('set', versions);
        for (const at of all) {
          const alone = versions.filter(
            (v) => v.merged === null && v.from <= at && (v.to === null || at < v.to),
          );
          const names = history
            .at(at)
            .all()
            .map(({ name }) => name);
          expect(names.toSorted()).toEqual(alone.map(({ name }) => name).sort());
        }
      },
    ),
  );
});
