import { ChoiceSettings } from './choice.tsx';
import { ComputedSettings } from './computed.tsx';
import type { FieldSettings } from './definition.ts';
import { GroupSettings } from './group.tsx';
import { DaySettings, LengthSettings, NumberSettings } from './limits.tsx';
import { MediaSettings } from './media.tsx';
import { ReferenceSettings } from './reference.tsx';
import { RichTextSettings } from './rich-text.tsx';
import { SubjectSettings } from './subjects.tsx';

/** Settings of the kinds that have some of their own, by kind. */
export const FIELD_SETTINGS: Readonly<Record<string, FieldSettings>> = {
  text: LengthSettings,
  paragraphs: LengthSettings,
  number: NumberSettings,
  date: DaySettings,
  datetime: DaySettings,
  choice: ChoiceSettings,
  computed: ComputedSettings,
  group: GroupSettings,
  media: MediaSettings,
  reference: ReferenceSettings,
  richtext: RichTextSettings,
  tags: SubjectSettings,
  category: SubjectSettings,
};
