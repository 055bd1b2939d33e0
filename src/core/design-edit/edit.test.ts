import { describe, expect, test } from 'vitest';
import { type Design, designSpec } from '../design/spec.ts';
import { changesOf, versionOf, withChanges } from './changes.ts';
import { applyEdit, inverseOf } from './edit.ts';

const design: Design = designSpec.parse({
  site: { name: 'S', url: 'https://s.example', zone: 'UTC', language: 'en' },
  types: [
    { key: 'note', address: '/{title}', fields: [{ key: 'title', kind: 'text' }] },
    { key: 'page', address: '/p/{title}', fields: [{ key: 'title', kind: 'text' }] },
  ],
});
const note = design.types[0]!;
const edit = (set: Record<string, unknown>, version = versionOf(note)) =>
  applyEdit(design, { part: 'types', key: 'note', set, version });

describe('changes', () => {
  test('what differs is named with its new value, what is gone with null', () => {
    expect(changesOf({ a: 1, b: [1], c: 'x' }, { a: 1, b: [2], d: 'y' })).toEqual({
      b: [2],
      c: null,
      d: 'y',
    });
    expect(changesOf(note, structuredClone(note))).toEqual({});
  });

  test('set on the part they were taken from, they give the other one', () => {
    const [before, after] = [
      { a: 1, b: 2 },
      { b: 3, c: 4 },
    ];
    expect(withChanges<object>(before, changesOf(before, after))).toEqual(after);
  });

  test('any change gives another version', () => {
    expect(versionOf(note)).toBe(versionOf(structuredClone(note)));
    expect(versionOf({ ...note, label: 'Other' })).not.toBe(versionOf(note));
  });
});

describe('an edit', () => {
  test('changes its part and leaves the others', () => {
    const edited = edit({ address: '/n/{title}' });
    expect(edited).toMatchObject({
      ok: true,
      value: { types: [{ address: '/n/{title}' }, { address: '/p/{title}' }] },
    });
  });

  test('is taken back by its inverse', () => {
    const set = { address: '/n/{title}', description: 'New.' };
    const edited = edit(set);
    if (!edited.ok) throw new Error('The edit was refused.');
    const inverse = inverseOf(design, { part: 'types', key: 'note', set, version: '' });
    const back = applyEdit(edited.value, {
      part: 'types',
      key: 'note',
      set: inverse,
      version: versionOf(edited.value.types[0]),
    });
    expect(back).toEqual({ ok: true, value: design });
  });

  test('of a part changed since it was opened is refused with both values', () => {
    const refused = edit({ address: '/mine/{title}' }, 'another version');
    expect(refused).toMatchObject({ ok: false, issues: [{ code: 'changed-since' }] });
    expect(refused.ok ? '' : refused.issues[0]!.message).toMatch(/\/mine\/\{title\}.*\/\{title\}/);
  });

  test('of a part that is gone, of the wrong form, or that does not compile is refused', () => {
    expect(applyEdit(design, { part: 'types', key: 'gone', set: {}, version: '' })).toMatchObject({
      ok: false,
      issues: [{ code: 'unknown-part' }],
    });
    expect(edit({ fields: 'none' })).toMatchObject({
      ok: false,
      issues: [{ code: 'wrong-form', path: 'types/note/fields' }],
    });
    expect(edit({ address: '/{titel}' })).toMatchObject({ ok: false });
    expect(edit({ address: '/../{title}' })).toMatchObject({
      ok: false,
      issues: [{ code: 'address-dot-segment', path: 'types/note/address' }],
    });
  });
});
