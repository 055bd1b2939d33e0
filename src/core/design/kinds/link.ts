import { z } from 'zod';
import { ok } from '../../issue.ts';
import { isSafeLink } from '../../link.ts';
import { foldSpace } from '../../text.ts';
import { one } from '../../pattern/types.ts';
import type { LinkValue } from '../field.ts';
import { type FieldKind, PLAIN, notA } from './definition.ts';

const given = z.union([
  z.string().transform((to) => ({ to, entry: undefined, words: undefined })),
  z.strictObject({
    to: z.string().nullish(),
    entry: z.string().nullish(),
    words: z.string().max(2000).nullish(),
  }),
]);

/** A link: to an entry or an address, with its words where they are others than its name. */
export const link: FieldKind<'link'> = {
  ...PLAIN,
  kind: 'link',
  label: 'Link',
  words: 'a link',
  doc: 'A link to an entry or an address, with words of its own.',
  spoken: ['link', 'url', 'web address', 'website'],
  suggestedBy: ['link', 'website', 'homepage'],
  valueType: () => one('text'),
  target: () => ({ of: 'link' }),
  parse: (raw, field) => {
    const read = given.safeParse(raw);
    const fix = 'Give an address ("https://…", "/path"), or { entry: ID }, and words.';
    if (!read.success) return notA(field, 'a link', raw, fix);
    const [to, entry, words] = [read.data.to, read.data.entry, read.data.words].map((text) =>
      foldSpace(text ?? ''),
    ) as [string, string, string];
    if (to === '' && entry === '' && words === '') return ok(null);
    const safe = to === '' || isSafeLink(to);
    if (!safe || (to === '') === (entry === ''))
      return notA(field, 'a link', safe ? words || to : to, fix);
    return ok({
      ...(entry === '' ? { to } : { entry }),
      ...(words === '' ? {} : { words }),
    } satisfies LinkValue);
  },
  asText: (stored) => (stored as LinkValue).to ?? null,
  searched: (stored) => (stored as LinkValue).words ?? '',
  control: 'link',
  display: (stored, _, world) => {
    const { words, to, entry } = stored as LinkValue;
    const name = entry === undefined ? null : world.nameOf({ of: 'entry', key: entry });
    return words ?? to ?? name ?? entry ?? '';
  },
  family: 'presence',
  sortable: false,
  mentions: (stored) => {
    const { entry } = stored as LinkValue;
    return entry === undefined ? [] : [{ of: 'entry', key: entry }];
  },
  standIn: (field) => ({ to: '#', words: field.label }),
  example: {
    field: {},
    raw: { to: ' https://results.example/2026 ', words: 'Results' },
    stored: { to: 'https://results.example/2026', words: 'Results' },
    printed: { to: 'https://results.example/2026', words: 'Results' },
    shown: 'Results',
    wrong: 'javascript:alert(1)',
  },
};
