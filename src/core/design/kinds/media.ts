import { ok } from '../../issue.ts';
import { one } from '../../pattern/types.ts';
import { type FieldType, notA } from './definition.ts';

/** A picture or file, stored as the id of a medium. */
export const media: FieldType = {
  kind: 'media',
  words: 'a picture',
  valueType: () => one('media'),
  parse: (raw, field) =>
    typeof raw === 'string' && raw.trim() !== ''
      ? ok(raw.trim())
      : notA(field, 'a picture', raw, 'Give the file name below media/.'),
  family: 'presence',
  sortable: false,
};
