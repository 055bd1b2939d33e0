import type { Field } from '../design/field.ts';
import { textFormOf } from '../design/text-form.ts';
import { type RichNode, withinForm } from '../rich-text/index.ts';
import type { RenderScope } from './context.ts';

/** What a field's text holds, and may hold, of the entry that is read; null where it is blank. */
export function storedText(field: Field, { own }: RenderScope): RichNode | null {
  const stored = own?.values[field.id] as RichNode | null | undefined;
  if (!stored) return null;
  const form = textFormOf(field);
  return form.open ? stored : withinForm(stored, form).doc;
}
