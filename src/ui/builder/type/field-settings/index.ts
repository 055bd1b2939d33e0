import { ChoiceSettings } from './choice.tsx';
import type { FieldSettings } from './definition.ts';
import { ReferenceSettings } from './reference.tsx';
import { RichTextSettings } from './rich-text.tsx';
import { SubjectSettings } from './subjects.tsx';

/** Settings of the kinds that have some of their own, by kind. */
export const FIELD_SETTINGS: Readonly<Record<string, FieldSettings>> = {
  choice: ChoiceSettings,
  reference: ReferenceSettings,
  richtext: RichTextSettings,
  tags: SubjectSettings,
  category: SubjectSettings,
};
