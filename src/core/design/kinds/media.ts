import { ok } from '../../issue.ts';
import { one } from '../../pattern/types.ts';
import { type FieldKind, PLAIN, notA } from './definition.ts';

/** A picture or file, stored as the id of a medium. */
export const media: FieldKind<'media'> = {
  ...PLAIN,
  kind: 'media',
  label: 'Picture',
  words: 'a picture',
  doc: 'A picture of the site’s media.',
  spoken: ['picture', 'image', 'photo', 'file', 'media'],
  suggestedBy: ['picture', 'image', 'photo', 'portrait', 'cover', 'logo', 'drawing'],
  valueType: () => one('media'),
  parse: (raw, field) =>
    typeof raw === 'string' && raw.trim() !== ''
      ? ok(raw.trim())
      : notA(field, 'a picture', raw, 'Give the file name below media/.'),
  asText: () => null,
  fromText: () => null,
  control: 'picture',
  family: 'presence',
  sortable: false,
  target: () => ({ of: 'media' }),
  mentions: (stored) => [{ of: 'media', key: String(stored) }],
  standIn: () => null,
  automatic: 'picture',
  example: {
    field: {},
    raw: 'pea.png ',
    stored: 'pea.png',
    printed: 'pea.png',
    shown: 'pea.png',
    wrong: 7,
  },
};
