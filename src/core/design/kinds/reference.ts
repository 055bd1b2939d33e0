import { z } from 'zod';
import { type Issue, ok } from '../../issue.ts';
import { unknownName } from '../../did-you-mean.ts';
import { one } from '../../pattern/types.ts';
import { key } from '../key.ts';
import { type FieldKind, PLAIN, notA } from './definition.ts';

/** Another entry, stored as its id. */
export const reference: FieldKind<'reference'> = {
  ...PLAIN,
  kind: 'reference',
  label: 'Reference',
  words: 'a reference',
  doc: 'Another entry, such as who saved a seed.',
  spoken: ['reference', 'entry'],
  properties: {
    /** Content types a reference may point at. */
    types: z.array(key).max(300).optional(),
    /** What the other side of the reference is called. */
    otherSide: z.string().max(200).optional(),
    /** Its name in patterns, read from there; made of its words where nothing else is said. */
    otherKey: z
      .string()
      .regex(
        /^[a-z][A-Za-z0-9_]*$/,
        'It starts with a small letter and has letters and digits only.',
      )
      .max(64)
      .optional(),
    /** Marks the one reference that makes the tree of pages. */
    sitsWithin: z.boolean().optional(),
    /** How many entries may sit within nothing; any number where left out. */
    atTop: z.int().min(0).max(10_000).optional(),
  },
  valueType: () => one('text'),
  parse: (raw, field) => {
    const id = typeof raw === 'number' ? String(raw) : typeof raw === 'string' ? raw.trim() : '';
    return id === '' ? notA(field, 'a reference', raw, 'Give the id of an entry.') : ok(id);
  },
  asText: () => null,
  fromText: () => null,
  control: 'entry',
  display: (stored, _, world) =>
    world.nameOf({ of: 'entry', key: String(stored) }) ?? String(stored),
  family: 'members',
  sortable: false,
  target: (field) => ({ of: 'entries', types: field.types ?? null }),
  mentions: (stored) => [{ of: 'entry', key: String(stored) }],
  standIn: () => null,
  check: (field, path, { types }): Issue[] => [
    ...(field.sitsWithin && field.many
      ? [
          {
            code: 'wrong-within',
            path,
            message: 'Only a single reference can make the tree of pages.',
            fix: 'Make the field a reference that holds one entry.',
          },
        ]
      : []),
    ...(field.atTop !== undefined && !field.sitsWithin
      ? [
          {
            code: 'wrong-within',
            path: `${path}/atTop`,
            message: `${field.label} says how many may be at the top, and does not make the tree.`,
            fix: 'Let pages sit within what it leads to, or leave the number out.',
          },
        ]
      : []),
    ...(field.types ?? [])
      .filter((type) => !types.includes(type))
      .map((type) => unknownName(path, `There is no content type "${type}".`, type, types)),
  ],
  example: { field: {}, raw: 7, stored: '7', printed: '7', shown: 'Seven', wrong: true },
};
