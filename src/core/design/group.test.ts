import { describe, expect, test } from 'vitest';
import { designOf, typeOf } from '../../../tests/helpers/design.ts';
import { paragraphsOf } from '../rich-text/index.ts';
import { compileSite } from '../site/compile.ts';
import { withKind } from '../design-edit/change-kind.ts';
import { checkMentions, checkWhole } from './check-values.ts';
import { parseValue } from './field-values.ts';
import { kindOf } from './kinds/index.ts';
import { fieldSpec } from './spec.ts';

const given = { now: 0, zone: 'UTC', richText: paragraphsOf };
const crew = (fields: object[], more: object = {}) => ({
  key: 'crew',
  kind: 'group',
  many: true,
  fields,
  ...more,
});
const ROWER = [
  { key: 'name', kind: 'text', required: true },
  { key: 'seat', kind: 'number', max: 8, id: 's1' },
  { key: 'person', kind: 'reference', types: ['person'] },
];
const field = fieldSpec.parse(crew(ROWER));
const codesOf = (fields: object[]) =>
  compileSite(designOf({ types: [typeOf('boat', fields), typeOf('person')] })).issues.map(
    ({ code, path }) => `${code} ${path}`,
  );

describe('a group', () => {
  test('is read by keys or ids, item by item, blanks left out', () => {
    const raw = [
      { name: 'Ann', seat: '1' },
      { name: ' ', s1: '' },
      { name: 'Bo', person: 'p' },
    ];
    const stored = [
      { name: 'Ann', s1: 1 },
      { name: 'Bo', person: 'p' },
    ];
    expect(parseValue(raw, field, given)).toEqual({ ok: true, value: stored });
    const printed = stored.map((item) => kindOf(field).print(item, field, 'UTC'));
    expect(printed[0]).toEqual({ name: 'Ann', seat: 1 });
    expect(parseValue(printed, field, given)).toEqual({ ok: true, value: stored });
    expect(parseValue([{}], field, given)).toEqual({ ok: true, value: null });
  });

  test('whose field has the former key of another is read by keys in files, by ids in forms', () => {
    const fields = [
      { key: 'place', kind: 'number', id: 'seat' },
      { key: 'seat', kind: 'text', id: 's2' },
    ];
    const renamed = fieldSpec.parse(crew(fields));
    const raw = [{ place: 7, seat: 'stroke' }];
    const stored = [{ seat: 7, s2: 'stroke' }];
    expect(parseValue(raw, renamed, given)).toEqual({ ok: true, value: stored });
    const form = { ...given, isKept: () => false };
    expect(parseValue(stored, renamed, form)).toEqual({ ok: true, value: stored });
  });

  test.each([
    ['what is no group', ['Ann']],
    ['a field that it has not', [{ nmae: 'Ann' }]],
    ['a value of the wrong kind', [{ seat: 'bow' }]],
  ])('refuses %s, at the group', (_, raw) => {
    expect(parseValue(raw, field, given)).toMatchObject({ ok: false, issues: [{ path: 'crew' }] });
  });

  test('is whole where each of its items is', () => {
    const wrong = (items: object[]) => checkWhole([field], { crew: items }, given);
    expect(wrong([{ name: 'Ann', s1: 8 }])).toEqual([]);
    expect(wrong([{ name: 'Ann' }, { s1: 9 }])).toMatchObject([
      { code: 'required', path: 'crew' },
      { code: 'beyond-limits', path: 'crew' },
    ]);
    expect(checkWhole([field], {}, given)).toEqual([]);
  });

  test('leads only to what is there and may be led to', () => {
    const world = {
      typeOf: (id: string) => (id === 'p' ? 'person' : id === 'b' ? 'boat' : null),
      has: () => true,
      candidates: () => [],
    };
    const wrong = (person: string) =>
      checkMentions([field], { crew: [{ person }] }, world).map(({ code, path }) => [code, path]);
    expect(wrong('p')).toEqual([]);
    expect(wrong('b')).toEqual([['wrong-type', 'crew']]);
    expect(wrong('x')).toEqual([['unknown-entry', 'crew']]);
  });

  test('holds groups, four deep and no deeper', () => {
    const deep = (levels: number): object =>
      crew(levels === 1 ? [{ key: 'name', kind: 'text' }] : [deep(levels - 1)]);
    expect(codesOf([deep(4)])).toEqual([]);
    expect(codesOf([deep(5)])).toContain('wrong-group types/boat/fields/crew');
  });

  test.each([
    ['no fields', []],
    ['two fields of one key', [ROWER[0]!, { key: 'name', kind: 'date', id: 'n' }]],
    ['a computed field', [{ key: 'c', kind: 'computed', pattern: 'x' }]],
    ['a unique field', [{ key: 'c', kind: 'text', unique: true }]],
  ])('with %s is refused', (_, fields) => {
    expect(codesOf([crew(fields)])).toContain('wrong-group types/boat/fields/crew');
  });

  test('keeps its fields where it comes to hold one or several', () => {
    const one = withKind(field, field, { kind: 'group', many: false }, () => 'other');
    expect(one).toMatchObject({ many: false, fields: field.fields, id: 'other' });
    expect(withKind(field, undefined, { kind: 'group', many: false }, String)).toMatchObject({
      many: false,
      fields: field.fields,
    });
  });

  test('names types and sets as other fields do', () => {
    const lost = crew([{ key: 'person', kind: 'reference', types: ['nobody'] }]);
    expect(codesOf([lost])).toEqual(['unknown-name types/boat/fields/crew/fields/person']);
  });
});
