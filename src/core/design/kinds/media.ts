import { z } from 'zod';
import { ok } from '../../issue.ts';
import { one } from '../../pattern/types.ts';
import { type FieldKind, PLAIN, notA } from './definition.ts';

/** Formats of pictures, as their media types end (`image/…`). */
export const FORMATS = ['jpeg', 'png', 'webp', 'gif', 'avif'] as const;

/** A picture or file, stored as the id of a medium. */
export const media: FieldKind<'media'> = {
  ...PLAIN,
  kind: 'media',
  label: 'Picture',
  words: 'a picture',
  doc: 'A picture of the site’s media.',
  spoken: ['picture', 'image', 'photo', 'file', 'media'],
  suggestedBy: ['picture', 'image', 'photo', 'portrait', 'cover', 'logo', 'drawing'],
  properties: {
    /** Formats that its files may have; all where left out. */
    formats: z.array(z.enum(FORMATS)).min(1).optional(),
    /** The most that a file may have, in kilobytes of 1,000 bytes. */
    maxKilobytes: z.int().min(1).max(64_000).optional(),
  },
  limits: (stored, { formats, maxKilobytes }, { file }) => {
    const found = file?.(String(stored));
    if (!found) return [];
    const format = found.mime.replace('image/', '');
    const size = Math.ceil(found.bytes / 1000);
    return [
      ...(formats && !formats.some((f) => f === format)
        ? [
            `is ${formats.map((f) => f.toUpperCase()).join(' or ')}, and “${String(stored)}” is ${format.toUpperCase()}`,
          ]
        : []),
      ...(maxKilobytes !== undefined && size > maxKilobytes
        ? [
            `has at most ${maxKilobytes.toLocaleString('en')} kB, and “${String(stored)}” has ${size.toLocaleString('en')}`,
          ]
        : []),
    ];
  },
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
