import type { Issue } from '../issue.ts';
import { isBlank } from '../pattern/types.ts';
import { didYouMean } from '../did-you-mean.ts';
import type { Field } from './field.ts';
import { mentionsOf } from './field-values.ts';
import type { Mention } from './kinds/definition.ts';
import type { Values } from './values.ts';

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
  return fields.flatMap((field) =>
    mentionsOf(values, field).flatMap((mention) => checkMention(field, mention, world) ?? []),
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

/** What keeps values from being public: required fields that are blank. */
export function checkRequired(fields: readonly Field[], values: Values): Issue[] {
  return fields
    .filter((field) => field.required && isBlank(values[field.id]))
    .map((field) => ({
      code: 'required',
      path: field.key,
      message: `${field.label} is required, and it is blank.`,
      fix: 'Fill it in.',
    }));
}
