import { z } from 'zod';
import { type Issue, ok } from '../../issue.ts';
import { didYouMean } from '../../did-you-mean.ts';
import { key } from '../key.ts';
import type { Field, FieldOption } from '../field.ts';
import { type FieldKind, PLAIN, notA } from './definition.ts';

const option = z.union([
  key.transform((k) => ({ id: k, key: k, label: k })),
  z
    .strictObject({ id: key.optional(), key, label: z.string().min(1).max(200) })
    .transform(({ id, ...rest }) => ({ id: id ?? rest.key, ...rest })),
]);

/** One of prepared options, stored as the option's id. */
export const choice: FieldKind<'choice'> = {
  ...PLAIN,
  kind: 'choice',
  label: 'Choice',
  words: 'a choice',
  doc: 'One of options prepared here, such as how difficult something is.',
  spoken: ['choice', 'one of'],
  properties: {
    /** Choices, in their order. */
    options: z.array(option).max(1000).optional(),
  },
  valueType: (field) => ({
    kind: 'choice',
    many: field.many,
    label: (value) => labelOf(field, value),
  }),
  parse: (raw, field) => {
    const options = field.options ?? [];
    const text = String(raw).trim();
    const found =
      options.find((o) => o.id === text) ??
      options.find((o) => o.key === text) ??
      options.find((o) => o.label.toLowerCase() === text.toLowerCase());
    if (found) return ok(found.id);
    const keys = options.map((o) => o.key);
    return notA(
      field,
      `one of ${keys.slice(0, 20).join(', ')}`,
      raw,
      didYouMean(text, keys, 'Use an option, or add this one to the field.'),
    );
  },
  asText: (stored, field) => optionOf(field, stored)?.label ?? null,
  control: 'option',
  otherControls: ({ many }) => (many ? ['checks', 'search'] : ['radio', 'search']),
  print: (stored, field) => optionOf(field, stored)?.key ?? stored,
  display: (stored, field) => labelOf(field, String(stored)),
  family: 'choice',
  sortable: true,
  standIn: (field) => field.options?.[0]?.id ?? null,
  check: (field, path): Issue[] =>
    field.options?.length
      ? doubledOptions(field, path)
      : [
          {
            code: 'options-missing',
            path,
            message: `${field.label} is a choice without options.`,
            fix: 'List its options.',
          },
        ],
  example: {
    field: { options: [{ id: 'easy', key: 'easy', label: 'Easy as pie' }] },
    raw: 'Easy as Pie',
    stored: 'easy',
    printed: 'easy',
    shown: 'Easy as pie',
    wrong: 'eazy',
  },
};

function optionOf(field: Pick<Field, 'options'>, id: unknown): FieldOption | undefined {
  return field.options?.find((o) => o.id === id);
}

function labelOf(field: Field, id: string): string {
  return optionOf(field, id)?.label ?? id;
}

function doubledOptions(field: Field, path: string): Issue[] {
  const seen = new Set<string>();
  const ids = new Set<string>();
  const again = field.options?.find(
    ({ id, key: k }) => seen.has(k) || ids.has(id) || !seen.add(k) || !ids.add(id),
  );
  return again
    ? [
        {
          code: 'doubled-key',
          path,
          message: `The option "${again.key}" of ${field.label} is there twice.`,
          fix: 'Give each option its own key.',
        },
      ]
    : [];
}
