import { expect, test } from 'vitest';
import { nearNames } from './near-names.ts';

const NAMES = ['Early', 'Tall', 'École', 'Single scull', 'Keeps well', 'Tale'].map((name) => ({
  name,
}));

test.each([
  ['early', ['Early']],
  ['Earlys', ['Early']],
  ['erly', ['Early']],
  ['Ecoles', ['École']],
  ['single-sculls', ['Single scull']],
  ['Singel skull', ['Single scull']],
  ['tall', ['Tall', 'Tale']],
  ['tea', []],
  ['rowing', []],
])('%s may be meant by %j', (name, wanted) => {
  expect(nearNames(name, NAMES, 'en').map((near) => near.name)).toEqual(wanted);
});
