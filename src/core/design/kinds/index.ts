import { category } from './category.ts';
import { choice } from './choice.ts';
import { computed } from './computed.ts';
import { date } from './date.ts';
import { datetime } from './datetime.ts';
import type { FieldKind } from './definition.ts';
import { link } from './link.ts';
import { media } from './media.ts';
import { number } from './number.ts';
import { paragraphs } from './paragraphs.ts';
import { reference } from './reference.ts';
import { richtext } from './richtext.ts';
import { tags } from './tags.ts';
import { text } from './text.ts';
import { yesno } from './yesno.ts';

/** Every kind of field, in the order screens offer them. */
export const FIELD_KINDS: readonly FieldKind[] = [
  text,
  paragraphs,
  richtext,
  number,
  yesno,
  date,
  datetime,
  choice,
  link,
  media,
  reference,
  tags,
  category,
  computed,
];
const BY_NAME = new Map(FIELD_KINDS.map((kind) => [kind.kind, kind]));

/**
 * The kind of a field. @throws Error where no such kind is registered: the design was not
 * validated
 */
export function kindOf(field: { kind: string }): FieldKind {
  const kind = BY_NAME.get(field.kind);
  if (!kind) throw new Error(`There is no field kind "${field.kind}".`);
  return kind;
}
