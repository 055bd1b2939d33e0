import { z } from 'zod';
import { foldSpace } from '../../text.ts';
import type { FieldKind } from './definition.ts';
import { text } from './text.ts';

/** What a pattern gives of the entry's other fields: worked out, never written. */
export const computed: FieldKind<'computed'> = {
  ...text,
  kind: 'computed',
  label: 'Computed',
  words: 'computed',
  doc: 'A line worked out from other fields by a pattern, such as a full name.',
  spoken: ['computed', 'worked out'],
  suggestedBy: [],
  names: false,
  translated: false,
  derived: true,
  properties: {
    /** What it is worked out by. */
    pattern: z.string().max(4000).default(''),
  },
  fromText: (words) => foldSpace(words),
  limits: () => [],
  check: (field, path) =>
    field.pattern?.trim()
      ? []
      : [
          {
            code: 'pattern-missing',
            path: `${path}/pattern`,
            message: `${field.label} is computed, and nothing says from what.`,
            fix: 'Write a pattern, such as {first} {last}.',
          },
        ],
  control: 'computed',
  standIn: () => null,
  example: {
    field: { pattern: '{title}' },
    raw: 'Blue pea',
    stored: 'Blue pea',
    printed: 'Blue pea',
    shown: 'Blue pea',
    wrong: ['a', 'b'],
  },
};
