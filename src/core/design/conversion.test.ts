import fc from 'fast-check';
import { expect, test } from 'vitest';
import { convert, referenceIds, valuesAs, valuesBefore } from './conversion.ts';
import type { Field, FieldBefore } from './field.ts';
import { FIELD_KINDS } from './kinds/index.ts';

const HOW = { zone: 'Europe/Dublin', language: 'en' };
const OPTIONS = [
  { id: 'o1', key: 'easy', label: 'Easy as pie' },
  { id: 'o2', key: 'hard', label: 'Hard' },
];
const side = (kind: string, many = false): Field =>
  ({ id: kind, key: kind, label: kind, kind, many, options: OPTIONS, set: 's' }) as Field;

const before = (field: string, kind: string, replaces?: FieldBefore): FieldBefore => ({
  field,
  kind,
  many: false,
  replaces,
});

test.each([
  ['text', 'choice', 'Easy as Pie', 'o1'],
  ['text', 'choice', 'unknown', null],
  ['choice', 'text', 'o1', 'Easy as pie'],
  ['text', 'number', ' 12.5 ', 12.5],
  ['text', 'number', 'a dozen', null],
  ['number', 'text', 12.5, '12.5'],
  ['yesno', 'text', true, 'yes'],
  ['text', 'yesno', 'No', false],
  ['text', 'date', '2026-03-09', '2026-03-09'],
  ['text', 'date', 'today', null],
  ['text', 'datetime', 'now', null],
  ['datetime', 'date', Date.UTC(2026, 6, 1, 23, 30), '2026-07-02'],
  ['date', 'datetime', '2026-07-02', Date.UTC(2026, 6, 1, 23)],
  ['paragraphs', 'text', 'One\ntwo', 'One two'],
  ['text', 'tags', 'Very tall', 'very-tall'],
  ['tags', 'text', 'very-tall', 'Very tall'],
  ['text', 'reference', 'e1', null],
  ['reference', 'text', 'e1', null],
  ['text', 'media', 'a.png', null],
])('%s read as %s: %j is %j', (from, to, value, wanted) => {
  const { value: found, lost } = convert(value, side(from), side(to), HOW);
  expect(found).toEqual(wanted);
  expect(lost).toEqual(wanted === null ? [value] : []);
});

test('rich text and paragraphs keep their words', () => {
  const doc = convert('One\n\nTwo', side('paragraphs'), side('richtext'), HOW).value;
  expect(convert(doc, side('richtext'), side('paragraphs'), HOW).value).toBe('One Two');
});

test('one becomes a list of one; of several the first that fits stays, the rest is told', () => {
  expect(convert('a', side('text'), side('text', true), HOW)).toEqual({ value: ['a'], lost: [] });
  const several = convert(['x', '2', '3'], side('text', true), side('number'), HOW);
  expect(several).toEqual({ value: 2, lost: ['x', '3'] });
  expect(convert(null, side('text'), side('number'), HOW)).toEqual({ value: null, lost: [] });
});

const NOW: Field = {
  ...side('choice'),
  id: 'c',
  replaces: before('n', 'number', before('t', 'text')),
};

test('a field has the values of those it took the place of, until it has one of its own', () => {
  const numbers = { ...NOW, options: [{ id: 'twelve', key: 'twelve', label: '12' }] };
  expect(valuesAs([numbers], { t: '12' }, HOW)).toEqual({ t: '12', c: 'twelve' });
  expect(valuesAs([numbers], { t: '7', n: 12 }, HOW).c).toBe('twelve');
  expect(valuesAs([numbers], { t: '12', c: null }, HOW).c).toBe(null);
  const plain = { t: '12' };
  expect(valuesAs([side('text')], plain, HOW)).toBe(plain);
});

test('what is written goes back to what was before, where it has a place there', () => {
  const field = { ...side('number'), id: 'n', replaces: before('t', 'text') };
  expect(valuesBefore([field], { n: 13 }, { t: '12' }, HOW)).toEqual({ t: '13' });
  expect(valuesBefore([field], { n: 12 }, { t: '012' }, HOW)).toEqual({});
  expect(valuesBefore([field], { n: null }, { t: '12' }, HOW)).toEqual({ t: null });
  const referring = { ...side('reference'), id: 'r', replaces: before('t', 'text') };
  expect(valuesBefore([referring], { r: 'e1' }, { t: 'Ann' }, HOW)).toEqual({});
});

test('references of a field stand under the ids it had while it held references', () => {
  const one = before('one', 'reference');
  expect(referenceIds({ ...side('reference', true), id: 'many', replaces: one })).toEqual([
    'many',
    'one',
  ]);
  expect(referenceIds({ ...side('text'), id: 't', replaces: one })).toEqual(['one']);
  expect(referenceIds({ ...side('reference'), id: 'r', replaces: before('t', 'text') })).toEqual([
    'r',
  ]);
});

test('whatever the kinds, a value is converted to one of the kind wanted, or told as lost', () => {
  const kinds = fc.constantFrom(...FIELD_KINDS);
  fc.assert(
    fc.property(kinds, kinds, fc.boolean(), fc.boolean(), (from, to, was, many) => {
      const source = { ...side(from.kind, was), ...from.example.field } as Field;
      const target = side(to.kind, many);
      const { stored } = from.example;
      const { value, lost } = convert(was ? [stored] : stored, source, target, HOW);
      if (from.kind === to.kind && from.kind !== 'choice')
        expect(value).toEqual(many ? [stored] : stored);
      if (value === null) {
        expect(lost).toEqual([stored]);
        return;
      }
      expect(Array.isArray(value)).toBe(many);
      const [one] = [value].flat();
      const given = { now: 0, zone: HOW.zone, richText: () => ({ type: 'doc', content: [] }) };
      expect(to.parse(to.print(one, target, HOW.zone), target, given).ok).toBe(true);
    }),
  );
});
