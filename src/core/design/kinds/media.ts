import { z } from 'zod';
import { ok } from '../../issue.ts';
import { FORMAT_NAMES, MEDIA_FORMATS, formatOf, isPicture } from '../media-formats.ts';
import { one } from '../../pattern/types.ts';
import { type FieldKind, PLAIN, notA } from './definition.ts';

/** A picture or file, stored as the id of a medium. */
export const media: FieldKind<'media'> = {
  ...PLAIN,
  kind: 'media',
  label: 'Picture',
  words: 'a picture',
  doc: 'A picture, or another file, of the site’s media.',
  spoken: ['picture', 'image', 'photo', 'file', 'media'],
  suggestedBy: ['picture', 'image', 'photo', 'portrait', 'cover', 'logo', 'drawing'],
  properties: {
    /** Formats that its files may have; those of pictures where left out. */
    formats: z.array(z.enum(FORMAT_NAMES)).min(1).optional(),
    /** The most that a file may have, in kilobytes of 1,000 bytes. */
    maxKilobytes: z.int().min(1).max(64_000).optional(),
  },
  limits: (stored, { formats, maxKilobytes }, { file }) => {
    const found = file?.(String(stored));
    if (!found) return [];
    const format = formatOf(found.mime);
    const fits = formats ? formats.some((f) => f === format) : isPicture(found);
    const wanted = formats?.map((f) => MEDIA_FORMATS[f].label).join(' or ') ?? 'a picture';
    const size = Math.ceil(found.bytes / 1000);
    return [
      ...(fits
        ? []
        : [
            `is ${wanted}, and “${String(stored)}” is ${format ? MEDIA_FORMATS[format].label : 'a font'}`,
          ]),
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
