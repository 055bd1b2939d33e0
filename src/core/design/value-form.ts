import type { Field } from './field.ts';

/** What is set of a field for forms, lists and readers alone, or names it. */
type FormAlone = Exclude<
  keyof Field,
  | ('id' | 'kind' | 'many' | 'replaces' | 'translated' | 'decimals' | 'unit')
  | ('options' | 'fields' | 'pattern' | 'types' | 'sitsWithin' | 'set')
>;

/** All of them: one that is missing, or is too many, is no value of this type. */
const FORM_ALONE: Readonly<Record<FormAlone, true>> = {
  ...{ key: true, label: true, help: true, required: true, unique: true, column: true },
  ...{ default: true, minCount: true, maxCount: true, section: true, half: true },
  ...{ control: true, hidden: true, shownIf: true, formats: true, maxKilobytes: true },
  ...{ minLength: true, maxLength: true, min: true, max: true, earliest: true, latest: true },
  ...{ otherSide: true, otherKey: true, atTop: true, topHeading: true, form: true, position: true },
};

/** What decides the values of a field, and the words for them. */
export function valueForm(field: Field): [string, unknown][] {
  return Object.entries(field).filter(([name]) => !Object.hasOwn(FORM_ALONE, name));
}
