import { describe, expect, test } from 'vitest';
import { designOf } from '../../../tests/helpers/design.ts';
import { paragraphsOf } from '../rich-text/index.ts';
import { checkWhole } from './check-values.ts';
import { parseValue } from './field-values.ts';
import { FIELD_KINDS, kindOf } from './kinds/index.ts';
import { STAND_INS, type StandIn, standInValues } from './stand-in.ts';

const world = { subjects: () => Array.from({ length: 30 }, (_, i) => `s${i}`) };
const given = { now: 0, zone: 'UTC', richText: paragraphsOf };
const [type] = designOf({
  types: [
    {
      key: 'all',
      fields: [
        { key: 'title', kind: 'text', maxLength: 60 },
        ...FIELD_KINDS.flatMap(({ kind, example }) => [
          { key: kind, kind, ...example.field },
          { key: `${kind}s`, kind, ...example.field, many: true },
        ]),
      ],
    },
  ],
  subjectSets: [{ key: 'things', kind: 'tags' }],
}).types;
const invented = (which: StandIn) => standInValues(type!, which, world);

describe('an invented entry', () => {
  test.each(Object.keys(STAND_INS) as StandIn[])('%s has values of its kinds', (which) => {
    const values = invented(which);
    for (const field of type!.fields) {
      const value = values[field.id];
      const printed = (one: unknown): unknown => kindOf(field).print(one, field, 'UTC');
      const raw = Array.isArray(value)
        ? value.map(printed)
        : value === null
          ? null
          : printed(value);
      expect(parseValue(raw, field, given), field.key).toEqual({ ok: true, value });
    }
    expect(checkWhole(type!.fields, values, given)).toEqual([]);
  });

  test('is long, blank or has many where it is to be', () => {
    expect(String(invented('~long').title)).toHaveLength(60);
    expect(String(invented('~long').paragraphs).length).toBeGreaterThan(800);
    expect(Object.values(invented('~blank')).filter((v) => v !== null)).toHaveLength(1);
    expect(invented('~many').texts).toHaveLength(12);
    expect(new Set(invented('~many').texts as string[]).size).toBe(12);
    expect(invented('~usual').texts).toHaveLength(1);
  });
});
