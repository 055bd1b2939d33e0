import { slugText } from '../pattern/slug.ts';
import type { ContentType, Design } from '../design/spec.ts';
import type { Part } from './parts.ts';
import type { Step } from './steps.ts';

/** How a type is called that is made like another one. */
export interface DuplicateNames {
  id: string;
  key: string;
  label: string;
  plural: string;
}

/**
 * A step that adds a type like another: its fields, rules and settings. Templates read one type, so
 * that the new one begins with the automatic ones; its pages stand below a segment of its own where
 * the other's do; what leads to its own type leads to the new one.
 */
export function duplicateStep(design: Design, like: ContentType, names: DuplicateNames): Step {
  const { template: _t, card: _c, address, fields, ...rest } = like;
  const part = {
    ...rest,
    ...names,
    fields: fields.map((field) => ({
      ...field,
      ...(field.types
        ? { types: field.types.map((key) => (key === like.key ? names.key : key)) }
        : {}),
    })),
    ...(address === undefined ? {} : { address: addressLike(address, names, design) }),
  };
  return {
    do: 'add',
    within: '',
    list: 'types',
    after: like.id,
    part: part as unknown as { id: string } & Part,
  };
}

function addressLike(address: string, { plural, key }: DuplicateNames, { site }: Design): string {
  const segment = slugText(plural, site.language) || key;
  return address.replace(/^\/[a-z0-9-]+(?=\/)/, `/${segment}`);
}
