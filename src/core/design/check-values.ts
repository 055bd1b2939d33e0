import type { Issue } from '../issue.ts';
import { isBlank } from '../pattern/types.ts';
import { didYouMean } from '../did-you-mean.ts';
import type { Field } from './field.ts';
import type { LimitWorld, Mention } from './kinds/definition.ts';
import { kindOf } from './kinds/index.ts';
import { isShown, shownWhen } from './shown.ts';
import { type Values, valuesOf } from './values.ts';

/** What is there of the rest of the site, for checking an entry's values. */
export interface ValueWorld {
  /** The content type of an entry, by key; null where there is no such entry. */
  typeOf(entry: string): string | null;
  has(mention: Exclude<Mention, { of: 'entry' }>): boolean;
  /** Keys that may have been meant. */
  candidates(mention: Mention): Iterable<string>;
}

/**
 * What keeps values from being saved: names of entries, subjects and pictures that are not there,
 * or of a type that the field does not take. The one check for forms, plans, folders and the
 * command line.
 */
export function checkMentions(
  fields: readonly Field[],
  values: Values,
  world: ValueWorld,
): Issue[] {
  return fields.flatMap((field) => [
    ...valuesOf(values, field.id).flatMap((value) =>
      kindOf(field)
        .mentions(value, field)
        .flatMap((mention) => checkMention(field, mention, world) ?? []),
    ),
    ...inItems(field, values, (fields, item) => checkMentions(fields, item, world)),
  ]);
}

/** What is wrong within the items of a value, told at the value's field. */
export function inItems<T extends Issue>(
  field: Field,
  values: Values,
  check: (fields: readonly Field[], item: Values) => T[],
): T[] {
  return valuesOf(values, field.id).flatMap((value) =>
    kindOf(field)
      .items(value, field)
      .flatMap((item) =>
        check(item.fields, item.values).map((issue) => ({ ...issue, path: field.key })),
      ),
  );
}

function checkMention(field: Field, mention: Mention, world: ValueWorld): Issue | null {
  const path = field.key;
  if (mention.of !== 'entry') {
    if (world.has(mention)) return null;
    const [what, where] =
      mention.of === 'media'
        ? ['picture', 'Add it below media/.']
        : [`subject in "${mention.set}"`, `Add it to subjects/${mention.set}.yaml.`];
    return {
      code: 'unknown-name',
      path,
      message: `There is no ${what} "${mention.key}".`,
      fix: didYouMean(mention.key, world.candidates(mention), where),
    };
  }
  const type = world.typeOf(mention.key);
  if (type === null)
    return {
      code: 'unknown-entry',
      path,
      message: `${field.label} points at "${mention.key}", and there is no such entry.`,
      fix: didYouMean(mention.key, world.candidates(mention), 'Give the id of an entry.'),
    };
  if (!field.types || field.types.includes(type)) return null;
  return {
    code: 'wrong-type',
    path,
    message: `${field.label} takes ${field.types.join(' or ')}, and "${mention.key}" is ${type}.`,
    fix: 'Point it at another entry.',
  };
}

/**
 * What keeps values from being public: required fields that are blank, too few or too many values,
 * and values beyond their field's limits. Fields that the form does not show for these values are
 * not asked for.
 */
export function checkWhole(fields: readonly Field[], values: Values, given: LimitWorld): Issue[] {
  return fields.flatMap((field) => {
    if (!isShown(shownWhen(field, fields), values)) return [];
    const all = valuesOf(values, field.id).filter((value) => !isBlank(value));
    const limits = all.flatMap((value) => kindOf(field).limits(value, field, given));
    return [
      ...(field.required && isBlank(values[field.id]) ? [blank(field)] : []),
      ...countIssues(field, all.length),
      ...inItems(field, values, (inner, item) => checkWhole(inner, item, given)),
      ...limits.map((words) => ({
        code: 'beyond-limits',
        path: field.key,
        message: `${field.label} ${words}.`,
        fix: 'Change it, or the limits of the field.',
      })),
    ];
  });
}

function blank({ key, label }: Field): Issue {
  return {
    code: 'required',
    path: key,
    message: `${label} is required, and it is blank.`,
    fix: 'Fill it in.',
  };
}

/** A field that is blank may be: how many there are at least holds once there is one. */
function countIssues({ key, label, many, minCount, maxCount }: Field, count: number): Issue[] {
  if (!many || count === 0) return [];
  const wrong =
    minCount !== undefined && count < minCount
      ? `at least ${minCount}`
      : maxCount !== undefined && count > maxCount
        ? `at most ${maxCount}`
        : null;
  if (wrong === null) return [];
  return [
    {
      code: 'wrong-count',
      path: key,
      message: `${label} holds ${wrong}, and there ${count === 1 ? 'is 1' : `are ${count}`}.`,
      fix: 'Add some or take some away.',
    },
  ];
}
