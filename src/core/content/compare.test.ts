import fc from 'fast-check';
import { expect, test } from 'vitest';
import { fieldSpec } from '../design/spec.ts';
import { paragraphsOf } from '../rich-text/index.ts';
import { compareValues } from './compare.ts';
import { wordPieces } from './pieces.ts';

const fields = [
  { key: 'title', kind: 'text' },
  { key: 'story', kind: 'richtext' },
  { key: 'picture', kind: 'media', many: true },
  { key: 'rows', kind: 'number', many: true },
  { key: 'stock', kind: 'number' },
].map((field) => fieldSpec.parse(field));
const world = { language: 'en', zone: 'UTC', nameOf: () => null };
const words = fc.array(fc.constantFrom('pea', 'bean', ' ', '. ', '\n', 'é', '12'), {
  maxLength: 30,
});

test('the pieces of two texts give each of them again, word for word', () => {
  fc.assert(
    fc.property(words, words, (a, b) => {
      const [was, is] = [a.join(''), b.join('')];
      const pieces = wordPieces(was, is);
      const side = (other: string): string =>
        pieces.flatMap((piece) => (piece.is === other ? [] : [piece.words])).join('');
      expect([side('new'), side('gone')]).toEqual([was, is]);
      if (was === is) expect(pieces.every((piece) => piece.is === 'same')).toBe(true);
    }),
  );
});

test('texts differ by words, rich texts by blocks, lists by rows, pictures by themselves', () => {
  const changes = compareValues(
    fields,
    {
      title: 'A pea',
      story: paragraphsOf('One.\n\nTwo.'),
      picture: ['a.png'],
      rows: [1, 2, 3],
      stock: 4,
    },
    {
      title: 'A bean',
      story: paragraphsOf('One.\n\nThree.'),
      picture: ['a.png', 'b.png'],
      rows: [1, 3],
      stock: 4,
    },
    world,
  );
  expect(changes.map(({ field, as }) => [field, as])).toEqual([
    ['title', 'words'],
    ['story', 'rows'],
    ['picture', 'pictures'],
    ['rows', 'rows'],
  ]);
  expect(changes[0]!.pieces).toEqual([
    { is: 'same', words: 'A ' },
    { is: 'gone', words: 'pea' },
    { is: 'new', words: 'bean' },
  ]);
  expect(changes[1]!.pieces.map(({ is }) => is)).toEqual(['same', 'gone', 'new']);
  expect(changes[3]!.pieces).toContainEqual({ is: 'gone', words: '2' });
});

test('a text whose words are the same and whose form is not says so', () => {
  const text = (marks: object[]) => ({
    type: 'doc',
    content: [{ type: 'paragraph', content: [{ type: 'text', text: 'a', marks }] }],
  });
  const [change] = compareValues(
    fields,
    { story: text([]) },
    { story: text([{ type: 'bold' }]) },
    world,
  );
  expect(change).toMatchObject({ field: 'story', as: 'form' });
});
