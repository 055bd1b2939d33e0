import { category } from './category.ts';
import { choice } from './choice.ts';
import { computed } from './computed.ts';
import { date } from './date.ts';
import { datetime } from './datetime.ts';
import type { FieldKind } from './definition.ts';
import { group } from './group.ts';
import { link } from './link.ts';
import { media } from './media.ts';
import { number } from './number.ts';
import { paragraphs } from './paragraphs.ts';
import { reference } from './reference.ts';
import { registerKinds } from './registry.ts';
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
  group,
  computed,
];
registerKinds(FIELD_KINDS);

export { kindOf } from './registry.ts';
