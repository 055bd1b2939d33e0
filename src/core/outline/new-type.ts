import { isReserved } from '../address/path.ts';
import type { Part } from '../design-edit/parts.ts';
import { typeSpec } from '../design/spec.ts';
import { pluralOf, slugOf } from './names.ts';

/** A type with nothing but a name, and an address made of it: to be gone on with. */
export function newType({
  id,
  key,
  label,
  language,
}: {
  id: string;
  key: string;
  label: string;
  language: string;
}): Part & { id: string } {
  const plural = pluralOf(label, language);
  const segment = slugOf(plural, language) || key;
  const address = `/${isReserved(`/${segment}`) ? `${segment}-pages` : segment}/{title}`;
  const fields = [{ key: 'title', kind: 'text', required: true }];
  return typeSpec.parse({ id, key, label, plural, address, fields }) as unknown as Part & {
    id: string;
  };
}
