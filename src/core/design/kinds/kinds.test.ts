import { describe, expect, test } from 'vitest';
import { isBlank } from '../../pattern/types.ts';
import { paragraphsOf } from '../../rich-text/index.ts';
import { fieldSpec } from '../spec.ts';
import { parseValue } from '../field-values.ts';
import { CONTROLS } from '../controls.ts';
import { FIELD_KINDS, kindOf } from './index.ts';

const given = { now: Date.parse('2026-07-01T12:00:00Z'), zone: 'UTC', richText: paragraphsOf };
const NAMES: Record<string, string> = { '7': 'Seven', early: 'Early', beans: 'Beans' };
const world = {
  language: 'en',
  zone: 'UTC',
  nameOf: ({ key }: { key: string }) => NAMES[key] ?? null,
};
const fieldOf = (kind: (typeof FIELD_KINDS)[number]) =>
  fieldSpec.parse({ key: 'thing', kind: kind.kind, ...kind.example.field });

describe.each(FIELD_KINDS.map((kind) => [kind.kind, kind] as const))('%s', (_, kind) => {
  const { raw, stored, printed, shown, wrong } = kind.example;
  const field = fieldOf(kind);

  test('is found by its name, and says what it is for', () => {
    expect(kindOf(field)).toBe(kind);
    expect([kind.label, kind.words, kind.doc].every((words) => words.length > 2)).toBe(true);
    expect(CONTROLS).toContain(kind.control);
  });

  test('stores what a file gives', () => {
    expect(kind.parse(raw, field, given)).toEqual({ ok: true, value: stored });
  });

  test('prints what is stored so that it is read as the same', () => {
    expect(kind.print(stored, field, 'UTC')).toEqual(printed);
    expect(kind.parse(printed, field, given)).toEqual({ ok: true, value: stored });
  });

  test('shows what is stored to people', () => {
    expect(kind.display(stored, field, world)).toBe(shown);
  });

  test('refuses what is none of it, naming the field', () => {
    const read = kind.parse(wrong, field, given);
    expect(read.ok).toBe(false);
    expect(read).toMatchObject({ issues: [{ path: 'thing' }] });
  });

  test('takes a blank for nothing', () => {
    expect(parseValue('', field, given)).toEqual({ ok: true, value: null });
    expect(parseValue(null, field, given)).toEqual({ ok: true, value: null });
  });

  test('gives JSON that can be written', () => {
    expect(JSON.stringify(kind.toJson(stored))).toEqual(expect.any(String));
  });

  test('invents a value of its own kind, or none', () => {
    const invented = kind.standIn(field, { subjects: () => ['one'] });
    if (!isBlank(invented))
      expect(kind.parse(kind.print(invented, field, 'UTC'), field, given)).toMatchObject({
        ok: true,
      });
  });
});

test('no two kinds share a name', () => {
  expect(new Set(FIELD_KINDS.map((k) => k.kind)).size).toBe(FIELD_KINDS.length);
  expect(new Set(FIELD_KINDS.map((k) => k.label)).size).toBe(FIELD_KINDS.length);
});

test('a kind that nobody registered is named', () => {
  expect(() => kindOf({ kind: 'smell' })).toThrow('There is no field kind "smell".');
});
