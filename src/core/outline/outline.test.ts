import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { applyEdit, invertEdit } from '../design-edit/edit.ts';
import type { Design } from '../design/spec.ts';
import { designSpec } from '../design/spec.ts';
import { type Finding, type OutlineType, readOutline, withKind } from './read.ts';
import { outlineSteps } from './steps.ts';
import { STARTING_POINTS } from './starting-points.ts';
import { fieldWords, typeSentence } from './words.ts';

const SITE = { name: 'Club', url: 'https://club.example', zone: 'UTC', language: 'en' };
const EMPTY: Design = designSpec.parse({ site: SITE, types: [] });
const own = (_: string, key: string): string => key;

/** What fields were understood as, by their names. */
function fieldsOf(text: string, design = EMPTY): Record<string, string> {
  const types = readOutline(text, design);
  return Object.fromEntries(
    types.flatMap(({ fields }) => fields.map((f) => [f.label, fieldWords(f, types, design)])),
  );
}

const messages = (types: OutlineType[]): string[] =>
  types.flatMap(({ findings, fields }) =>
    [...findings, ...fields.flatMap((f) => f.findings)].map(({ message }) => message),
  );

/** A design with what an outline says. */
function made(text: string, design = EMPTY): Design {
  const types = readOutline(text, design);
  expect(messages(types)).toEqual([]);
  const done = applyEdit(design, { steps: outlineSteps(types, design, own) });
  if (!done.ok) throw new Error(JSON.stringify(done.issues));
  expect(applyEdit(done.value.design, invertEdit(done.value.edit))).toMatchObject({
    value: { design },
  });
  return done.value.design;
}

describe('an outline is read', () => {
  test('line by line, with what each field holds', () => {
    const text = [
      'Variety: title, sow from (date), saved by (→ Grower), traits (tags)',
      'Grower: name, photo, born on (day), difficulty (easy / some care / hard)',
    ].join('\n');
    expect(fieldsOf(text)).toEqual({
      Title: 'text (by its name)',
      'Sow from': 'a date',
      'Saved by': 'one Grower',
      Traits: 'tags of the new set Traits',
      Name: 'text (by its name)',
      Photo: 'a picture (by its name)',
      'Born on': 'a date',
      Difficulty: 'one of easy, some care, hard',
    });
    expect(readOutline(text, EMPTY).map((t) => typeSentence(t, EMPTY))).toEqual([
      'A type Variety, named by title. Its pages stand at /varieties/{title}.',
      'A type Grower, named by name. Its pages stand at /growers/{name}.',
    ]);
  });

  test.each([
    ['crew (several → Boat)', 'any number of Boats'],
    ['crew (→ Boats)', 'any number of Boats'],
    ['boat', 'one Boat (by its name)'],
    ['boats', 'any number of Boats (by its name)'],
    ['boat (Boat, required)', 'one Boat (required)'],
    ['part of (within → Race)', 'one Race, which its page sits within'],
    ['winner (→ Boat or Race)', 'one Boat or Race'],
    ['class (choice: four, eight)', 'one of four, eight'],
    ['seats (several, number)', 'a number, several'],
    ['is over?', 'yes or no (by its name)'],
    ['starts at', 'a date and time (by its name)'],
    ['crew (→ people)', 'any number of People'],
    ['kind (category)', 'a category of the new set Kind'],
  ])('%s as %s', (field, words) => {
    const all = fieldsOf(`Boat: name\nPerson: name\nRace: title, ${field}`);
    expect(Object.values(all).at(-1)).toBe(words);
  });

  test.each([
    'Boat:\n  name\n  built (number), photo\n\nRace: title',
    '- Boat:\n  - name\n  - built (number)\n  - photo\n- Race: title',
    '1. Boat: name\n* built (number)\n* photo\n2. Race: title',
  ])('with its fields below, as %j', (text) => {
    expect(readOutline(text, EMPTY).map((t) => [t.label, t.fields.map((f) => f.label)])).toEqual([
      ['Boat', ['Name', 'Built', 'Photo']],
      ['Race', ['Title']],
    ]);
    const built = readOutline(text, EMPTY)[0]!.fields[1]!;
    expect(withKind(text, built.range, 'date')).toBe(text.replace('(number)', '(date)'));
  });

  test('with a title where nothing would name its entries', () => {
    expect(fieldsOf('Result: time (number)')).toEqual({
      Title: 'text (required, by its name)',
      Time: 'a number',
    });
  });

  test('as parts without pages where that is said', () => {
    const [type] = readOutline('Sponsor (no pages): name, logo', EMPTY);
    expect(typeSentence(type!, EMPTY)).toBe(
      'A type Sponsor, named by name. It makes no pages of its own.',
    );
    expect(made('Sponsor (no pages): name').types[0]!.address).toBeUndefined();
  });

  test.each(STARTING_POINTS.map(({ label, line }) => [label, line] as const))(
    'without a question where one begins with: %s',
    (_, line) => {
      const types = readOutline(line, EMPTY);
      const asked = types.flatMap(({ findings, fields }) => [
        ...findings,
        ...fields.flatMap((field) => field.findings),
      ]);
      expect(asked).toEqual([]);
      expect(made(line).types).toHaveLength(1);
    },
  );

  test('as one entry that patterns read everywhere where that is said', () => {
    const [type] = readOutline('Club (single): phone', EMPTY);
    expect(typeSentence(type!, EMPTY)).toBe(
      'A type Club, named by phone. There is one entry of it, and all patterns can read it.',
    );
    expect(made('Club (single): phone').types[0]).toMatchObject({ single: true });
    expect(made('Club (single): phone').types[0]!.address).toBeUndefined();
  });
});

describe('what may not be meant is pointed out, with what mends it', () => {
  const mended = (text: string, design = EMPTY): string => {
    const types = readOutline(text, design);
    const all = types.flatMap(({ findings, fields }) => [
      ...findings,
      ...fields.flatMap((f) => f.findings),
    ]);
    return all.flatMap(({ corrections }) => corrections)[0]!.text;
  };

  test.each([
    ['Boat: built (dat)', '“dat” is no kind of field; is it “date”?', 'Boat: built (date)'],
    [
      'Boat: built (required, dat)',
      '“dat” is no kind of field; is it “date”?',
      'Boat: built (date, required)',
    ],
    ['Boat: built (xyzzy)', '“xyzzy” is no kind of field', 'Boat: built'],
    [
      'Boat: crew (→ Crew)',
      'There is no type Crew to lead to.',
      'Boat: crew (→ Crew)\nCrew: title',
    ],
    ['Boat: name, twin (→ Boot)', 'There is no type Boot to lead to.', 'Boat: name, twin (→ Boat)'],
    ['Boat: class (choice)', 'A choice has options.', 'Boat: class (one / another)'],
  ])('%s', (text, message, after) => {
    expect(messages(readOutline(text, EMPTY))).toEqual([message]);
    expect(mended(text)).toBe(after);
    expect(messages(readOutline(after, EMPTY))).toEqual([]);
  });

  test('a name that is nearly that of a type there is', () => {
    const design = made('Swap day: title');
    const text = 'Swap-Days: place';
    expect(messages(readOutline(text, design))).toEqual([
      'There is a type Swap day; this makes another.',
    ]);
    expect(mended(text, design)).toBe('Swap day: place');
  });

  test('two lines or fields of one name', () => {
    expect(messages(readOutline('Boat: name\nBoats: title', EMPTY))).toEqual([
      'There is a line for Boats already.',
    ]);
    expect(messages(readOutline('Boat: sow from, Sow-from', EMPTY))).toEqual([
      'Sow from is on this line twice.',
    ]);
  });

  test('more fields than a type can have, and more lines than are written at once', () => {
    expect(messages(readOutline(`Boat: name${', a'.repeat(20_000)}`, EMPTY))).toContain(
      'A type has at most 300 fields.',
    );
    const lines = Array.from({ length: 5000 }, (_, i) => `T${i}: title`).join('\n');
    expect(messages(readOutline(lines, EMPTY))).toEqual(['One outline has at most 200 types.']);
  });

  test('another kind is said of a field in its place', () => {
    const text = 'Boat: name, built, crew';
    const built = readOutline(text, EMPTY)[0]!.fields[1]!;
    expect(withKind(text, built.range, 'number')).toBe('Boat: name, built (number), crew');
  });
});

describe('an outline is made', () => {
  test('types, references both ways, subject sets and addresses in one edit', () => {
    const design = made(
      'Boat: name, built (number), class (four / eight), traits (tags)\nRace: title, day (date), boats, traits (tags)',
    );
    expect(design.subjectSets).toEqual([
      { id: 'traits', key: 'traits', label: 'Traits', kind: 'tags' },
    ]);
    expect(design.types.map(({ key, address, naming }) => ({ key, address, naming }))).toEqual([
      { key: 'boat', address: '/boats/{name}', naming: 'name' },
      { key: 'race', address: '/races/{title}', naming: 'title' },
    ]);
    expect(design.types[1]!.fields[2]).toMatchObject({ key: 'boats', types: ['boat'], many: true });
  });

  test('new fields of a type that is there, those it has passed over', () => {
    const before = made('Boat: name, built (number)');
    const design = made('Boat: name, photo, seats', before);
    expect(design.types[0]!.fields.map(({ key }) => key)).toEqual([
      'name',
      'built',
      'photo',
      'seats',
    ]);
    expect(typeSentence(readOutline('Boat: name, photo', before)[0]!, before)).toBe(
      'The type Boat is there; its new fields are added. It has name already.',
    );
  });

  test('keys of names that are odd, reserved or the same', () => {
    const design = made('Été: page, 1st, ★, Ünder way');
    expect(design.types[0]!.key).toBe('ete');
    expect(design.types[0]!.fields.map(({ key }) => key)).toEqual([
      'pageField',
      'field1st',
      'field',
      'underWay',
    ]);
    expect(made('Build: title').types[0]!.address).toBe('/builds/{title}');
    expect(made('API (plural: Api): title').types[0]!.address).toBe('/api-pages/{title}');
  });
});

const word = fc.constantFrom(
  'Boat',
  'boats',
  'Race',
  'name',
  'built',
  'photo',
  'Été',
  '1',
  'is on?',
);
const said = fc.constantFrom(
  'date',
  '→ Boat',
  'tags',
  'a / b',
  'several',
  'required',
  'group: name, seat (number)',
  'group: a (group: b (group: c (group: d (group: e))))',
  'groups: within (within), total (computed)',
  'dat',
  'within',
);
const odd = fc.constantFrom(',', ':', '(', ')', '\n', '\n- ', '\n  ', ' ', '→', '/', '');
const field = fc
  .tuple(word, fc.array(said, { maxLength: 2 }))
  .map(([name, all]) => (all.length === 0 ? name : `${name} (${all.join(', ')})`));
const line = fc
  .tuple(word, fc.array(field, { maxLength: 4 }))
  .map(([name, fields]) => `${name}: ${fields.join(', ')}`);

test('whatever is written is read; what has nothing wrong makes an edit that holds', () => {
  let count = 0;
  fc.assert(
    fc.property(
      fc.oneof(
        fc.array(line, { maxLength: 4 }).map((lines) => lines.join('\n')),
        fc.array(fc.oneof(word, said, odd), { maxLength: 20 }).map((all) => all.join('')),
      ),
      (text) => {
        const types = readOutline(text, EMPTY);
        const all = types.flatMap(({ findings, fields }) => [
          ...findings,
          ...fields.flatMap((f) => f.findings),
        ]);
        for (const type of types) {
          expect(typeSentence(type, EMPTY)).not.toBe('');
          for (const f of type.fields) expect(fieldWords(f, types, EMPTY)).not.toBe('');
        }
        if (types.length === 0 || all.some(({ isWrong }) => isWrong)) return;
        count += 1;
        const done = applyEdit(EMPTY, { steps: outlineSteps(types, EMPTY, own) });
        expect(done.ok ? [] : done.issues).toEqual([]);
      },
    ),
    { numRuns: 2000 },
  );
  expect(count).toBeGreaterThan(100);
});

test('a group has its fields behind a colon, and is several where its name is one of several', () => {
  const [crew] = readOutline(
    'Crew: title, rowers (group: name, seat (number), boat (→ Crew)), kit (group: size)',
    EMPTY,
  );
  const [, rowers, kit] = crew!.fields;
  expect(fieldWords(rowers!, [crew!], EMPTY)).toBe(
    'groups (Name: text (by its name); Seat: a number; Boat: one Crew)',
  );
  expect(kit).toMatchObject({ kind: 'group', many: false, findings: [] });
  const done = applyEdit(EMPTY, { steps: outlineSteps([crew!], EMPTY, own) });
  expect(done.ok && done.value.design.types[0]!.fields[1]).toMatchObject({
    kind: 'group',
    many: true,
    fields: [{ key: 'name' }, { key: 'seat', kind: 'number' }, { key: 'boat', types: ['crew'] }],
  });
});

test('a group without fields is told, with a press that gives it one', () => {
  const text = 'Crew: title, rowers (group)';
  const [{ message, corrections }] = readOutline(text, EMPTY)[0]!.fields[1]!.findings as [Finding];
  expect(message).toBe('A group has fields.');
  expect(corrections[0]!.text).toBe('Crew: title, rowers (group: name)');
});

test('an apostrophe parts no word of keys and addresses', () => {
  const [log] = readOutline('Captain’s log: title', EMPTY);
  expect(log!.key).toBe('captains-log');
  expect(typeSentence(log!, EMPTY)).toContain('/captains-logs/{title}');
});
