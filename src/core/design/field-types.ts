import { category } from './kinds/category.ts';
import { choice } from './kinds/choice.ts';
import { date } from './kinds/date.ts';
import { datetime } from './kinds/datetime.ts';
import { media } from './kinds/media.ts';
import { number } from './kinds/number.ts';
import { paragraphs } from './kinds/paragraphs.ts';
import { reference } from './kinds/reference.ts';
import { richtext } from './kinds/richtext.ts';
import { tags } from './kinds/tags.ts';
import { text } from './kinds/text.ts';
import { yesno } from './kinds/yesno.ts';
import type { FieldType, Given } from './kinds/definition.ts';
import { type Result, ok } from '../issue.ts';
import type { Field, FieldKind } from './spec.ts';
import { isBlank } from '../pattern/types.ts';

/** Every kind of field, in the order screens offer them. */
export const FIELD_TYPES: Record<FieldKind, FieldType> = {
  text,
  paragraphs,
  richtext,
  number,
  yesno,
  date,
  datetime,
  choice,
  media,
  reference,
  tags,
  category,
};

/** A field's stored value from what a folder or form gave: a list where the field holds many; null where blank. */
export function parseValue(raw: unknown, field: Field, given: Given): Result<unknown> {
  const type = FIELD_TYPES[field.kind];
  if (isBlank(raw)) return ok(null);
  if (!field.many) return type.parse(raw, field, given);
  const parts = Array.isArray(raw)
    ? raw
    : typeof raw === 'string' && type.family === 'members'
      ? raw.split(/[;,]/)
      : [raw];
  const results = parts
    .filter((part) => !isBlank(part))
    .map((part) => type.parse(part, field, given));
  const issues = results.flatMap((r) => (r.ok ? [] : r.issues));
  return issues.length > 0
    ? { ok: false, issues }
    : ok(results.flatMap((r) => (r.ok ? [r.value] : [])));
}
