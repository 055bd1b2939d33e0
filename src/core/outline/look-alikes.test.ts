import fc from 'fast-check';
import { expect, test } from 'vitest';
import { lookAlikes } from './look-alikes.ts';
import { nearNames } from './near-names.ts';

const named = (...names: string[]) => names.map((name) => ({ name }));
const pairs = (...names: string[]) =>
  lookAlikes(named(...names), 'en').map(([a, b]) => `${a.name}/${b.name}`);

test('names that differ by case, accents, the plural or a letter or two look alike', () => {
  expect(pairs('Early', 'early', 'Late')).toEqual(['Early/early']);
  expect(pairs('Boat', 'Boats', 'Bóat')).toHaveLength(3);
  expect(pairs('Marathon', 'Marathn', 'Sprint')).toEqual(['Marathon/Marathn']);
  expect(pairs('Oar', 'Ore')).toEqual([]);
});

test('they are those that each is near to', () => {
  const name = fc.stringMatching(/^[a-d]{0,9}$/);
  fc.assert(
    fc.property(fc.uniqueArray(name, { maxLength: 8 }), (names) => {
      const all = named(...names);
      const expected = all.flatMap((one, i) =>
        all
          .slice(i + 1)
          .filter(
            (other) =>
              nearNames(other.name, [one], 'en').length > 0 ||
              nearNames(one.name, [other], 'en').length > 0,
          )
          .map((other) => [one.name, other.name].sort().join('/')),
      );
      const found = lookAlikes(all, 'en').map((pair) =>
        pair
          .map((p) => p.name)
          .sort()
          .join('/'),
      );
      expect(found.sort()).toEqual(expected.sort());
    }),
    { numRuns: 300 },
  );
});
