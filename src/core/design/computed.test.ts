import { describe, expect, test } from 'vitest';
import { designOf, typeOf, viewOf } from '../../../tests/helpers/design.ts';
import { MemoryReader } from '../../../tests/helpers/memory-reader.ts';
import { compileSite } from '../site/compile.ts';
import { render } from '../site/render.ts';
import { withKind } from '../design-edit/change-kind.ts';
import { valuesAs } from './conversion.ts';
import { readsOwnAlone } from './computed.ts';
import { fieldSpec } from './spec.ts';

const HOW = { zone: 'Europe/Dublin', language: 'en' };
const computed = (key: string, pattern: string) => ({ key, kind: 'computed', pattern });
const fieldsOf = (...fields: object[]) => fields.map((field) => fieldSpec.parse(field));
const codesOf = (types: object[], more: object = {}) =>
  compileSite(designOf({ types, ...more })).issues.map(({ code, path }) => `${code} ${path}`);

describe('a computed field that reads the entry alone', () => {
  const fields = fieldsOf(
    { key: 'first', kind: 'text' },
    { key: 'last', kind: 'text' },
    { key: 'born', kind: 'date' },
    { key: 'level', kind: 'choice', options: [{ key: 'top', label: 'Top' }] },
    computed('name', '{first}[ {last}]'),
    computed('line', '{name2}'),
    computed('note', '{upper(last)}[, {level}][, born {date(born, "long")}]'),
  );

  test('is worked out from the values as the site writes them', () => {
    const values = { first: 'Ada', last: 'Byrne', born: '2001-05-06', level: 'top' };
    expect(valuesAs(fields, values, HOW)).toMatchObject({
      name: 'Ada Byrne',
      note: 'BYRNE, Top, born May 6, 2001',
    });
    expect(valuesAs(fields, { first: 'Ada' }, HOW)).toMatchObject({ name: 'Ada', note: null });
  });

  test('takes no account of what is written under its name', () => {
    expect(valuesAs(fields, { name: 'written' }, HOW).name).toBe(null);
  });

  test('reads values that were converted, and is read by what takes its place', () => {
    const size = { ...fieldsOf({ key: 'size', kind: 'number' })[0]!, id: 'size2' };
    const replaces = { field: 'size', kind: 'text', many: false };
    const all = [{ ...size, replaces }, ...fieldsOf(computed('said', '{size} m'))];
    expect(valuesAs(all, { size: ' 4 ' }, HOW).said).toBe('4 m');
    const [first, last] = fields;
    const text = withKind(fields[4]!, fields[4]!, { kind: 'text', many: false }, () => 'name2');
    const values = { first: 'Ada', last: 'Byrne' };
    expect(valuesAs([first!, last!, text], values, HOW).name2).toBe('Ada Byrne');
    expect(valuesAs([first!, last!, text], { ...values, name2: 'Ada' }, HOW).name2).toBe('Ada');
  });
});

describe('a computed field that reads others', () => {
  const types = [
    typeOf(
      'crew',
      [
        { key: 'boat', kind: 'reference', types: ['boat'] },
        computed('said', '{title}[ in {boat}]'),
      ],
      { address: '/crews/{title}', seo: { title: '{said}' } },
    ),
    typeOf('boat', [{ key: 'crew', kind: 'reference', types: ['crew'] }], {
      address: '/boats/{title}',
      seo: { title: '{crew.said}' },
    }),
  ];
  const { site, issues } = compileSite(designOf({ types }));

  test('is worked out where it is read, as of the page’s instant', () => {
    expect(issues).toEqual([]);
    const [crew, boat] = ['crew', 'boat'].map((key) => site.types.get(key)!);
    const entries = [
      viewOf(crew!, 'a', { title: 'Four', boat: 's' }, { path: '/crews/four' }),
      viewOf(boat!, 's', { title: 'Swift', crew: 'a' }, { path: '/boats/swift' }),
    ];
    const titleOf = (path: string, held = entries) =>
      /<title>(.*)<\/title>/.exec(
        render(site, new MemoryReader(site, { entries: held }), {
          path,
          at: Date.parse('2026-07-01'),
        }).body,
      )?.[1];
    expect(titleOf('/crews/four')).toBe('Four in Swift');
    expect(titleOf('/boats/swift')).toBe('Four in Swift');
    const gone = [entries[0]!, { ...entries[1]!, state: 'retired', path: null }];
    expect(titleOf('/crews/four', gone)).toBe('Four');
  });

  test('names no entry, and is read by no address and no list', () => {
    const { fields } = site.types.get('crew')!;
    expect(readsOwnAlone(fields[2]!, fields)).toBe(false);
    const crew = types[0] as { fields: object[] };
    expect(codesOf([{ ...crew, naming: 'said' }, types[1]!])).toContain(
      'wrong-naming types/crew/naming',
    );
    expect(codesOf([{ ...crew, address: '/{said}' }, types[1]!])[0]).toMatch(/^not-in-address/);
    const listings = [{ key: 'all', type: 'crew', sort: ['said'] }];
    expect(codesOf(types, { listings })[0]).toMatch(/^unknown-/);
  });
});

describe('what a computed field cannot be', () => {
  test.each([
    ['reads itself', [computed('a', '{a}')], 'reads-computed types/t/fields/a/pattern'],
    [
      'reads another in a circle',
      [computed('a', '{b}'), computed('b', '{a}')],
      'reads-computed types/t/fields/a/pattern',
    ],
    [
      'reads itself by way of another entry',
      [{ key: 'up', kind: 'reference', types: ['t'] }, computed('a', '{up.a}')],
      'reads-computed types/t/fields/a/pattern',
    ],
    [
      'names what is not there',
      [computed('a', '{nothing}')],
      'unknown-name types/t/fields/a/pattern',
    ],
    ['has no pattern', [computed('a', ' ')], 'pattern-missing types/t/fields/a/pattern'],
    [
      'is unique',
      [{ ...computed('a', 'x'), unique: true }],
      'wrong-unique types/t/fields/a/unique',
    ],
  ])('one that %s is refused', (_, fields, issue) => {
    expect(codesOf([typeOf('t', fields)])).toContain(issue);
  });
});
