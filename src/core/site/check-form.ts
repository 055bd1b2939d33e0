import type { Issue } from '../issue.ts';
import { unknownName } from '../did-you-mean.ts';
import { isDerived } from '../design/computed.ts';
import { isReference, parseValue } from '../design/field-values.ts';
import type { Field } from '../design/field.ts';
import { kindOf } from '../design/kinds/index.ts';
import { ordered } from '../design/kinds/limits.ts';
import type { Design } from '../design/spec.ts';
import { paragraphsOf } from '../rich-text/index.ts';

/** What is wrong with how forms have fields: their defaults, their controls, when they are shown. */
export function checkForm(fields: readonly Field[], design: Design, path: string): Issue[] {
  return fields.flatMap((field) => {
    const own = `${path}/fields/${field.key}`;
    const inner = checkForm(field.fields ?? [], design, own);
    return [...checkField(field, fields, design, own), ...inner];
  });
}

function checkField(field: Field, fields: readonly Field[], design: Design, path: string): Issue[] {
  return [
    ...checkDefault(field, design, path),
    ...checkControl(field, path),
    ...checkUnique(field, path),
    ...checkShown(field, fields, path),
    ...ordered(field, path, [field.minCount, field.maxCount]),
  ];
}

function checkDefault(field: Field, { site }: Design, path: string): Issue[] {
  const { default: raw, required, hidden, label } = field;
  if (raw === undefined)
    return required && hidden
      ? [
          {
            code: 'hidden-required',
            path,
            message: `${label} is required, and no form shows it.`,
            fix: 'Give it a default, or let the form show it.',
          },
        ]
      : [];
  const read = parseValue(raw, field, { now: 0, zone: site.zone, richText: paragraphsOf });
  return read.ok ? [] : read.issues.map((issue) => ({ ...issue, path: `${path}/default` }));
}

function checkControl(field: Field, path: string): Issue[] {
  const { control, label } = field;
  const kind = kindOf(field);
  const fitting = [kind.control, ...kind.otherControls(field)];
  if (control === undefined || fitting.includes(control)) return [];
  return [
    {
      code: 'wrong-control',
      path: `${path}/control`,
      message: `${label} cannot be edited with "${control}" as it is set.`,
      fix: `There are: ${fitting.join(', ')}.`,
    },
  ];
}

/** Families of kinds whose values can be told apart at a glance. */
const COMPARED = ['text', 'number', 'day', 'instant'];

/** Whether a field may be one of which no two entries have the same value. */
export function canBeUnique(field: Field): boolean {
  if (isReference(field)) return true;
  return !field.many && !isDerived(field) && COMPARED.includes(kindOf(field).family);
}

function checkUnique(field: Field, path: string): Issue[] {
  if (!field.unique || canBeUnique(field)) return [];
  return [
    {
      code: 'wrong-unique',
      path: `${path}/unique`,
      message: `${field.label} cannot be unique: a reference can, or one text, number, day or instant.`,
      fix: 'Take the mark away.',
    },
  ];
}

function checkShown(
  { key, label, shownIf }: Field,
  fields: readonly Field[],
  path: string,
): Issue[] {
  if (!shownIf) return [];
  const place = `${path}/shownIf`;
  const keys = fields.map((f) => f.key).filter((k) => k !== key);
  const other = fields.find((f) => f.key === shownIf.field && f.key !== key);
  if (!other) {
    const message = `${label} is shown by "${shownIf.field}", and that is no other field beside it.`;
    return [unknownName(place, message, shownIf.field, keys)];
  }
  const { is } = shownIf;
  if (is === undefined || !other.options || other.options.some((o) => o.key === is)) return [];
  const message = `${other.label} has no option "${is}".`;
  return [
    unknownName(
      place,
      message,
      String(is),
      other.options.map((o) => o.key),
    ),
  ];
}
