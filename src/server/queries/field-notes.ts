import { isReference } from '@/core/design/field-values.ts';
import type { Field } from '@/core/design/field.ts';
import type { Instant } from '@/core/time/interval.ts';
import { namesAtTop } from '../store/at-top.ts';
import { statement } from '../store/statement.ts';
import type { SiteView } from './site-view.ts';

/** Something that somebody has to know of a field, and where it can be changed. */
export interface FieldNote {
  words: string;
  /** The field of the type in which that is set, by id. */
  setting?: string;
  /** The type of which an entry can be written, by key, and what it is called. */
  write?: { key: string; label: string };
}

const NAMED = 3;

/** What keeps a reference from being left blank, or from being filled. */
export function notesOf(
  view: SiteView,
  field: Field,
  fields: readonly Field[],
  { at, entry }: { at: Instant; entry: string | null },
): FieldNote[] {
  if (!isReference(field)) return [];
  return [...topNote(view, field, fields, { at, entry }), ...nothingToLeadTo(view, field, at)];
}

/** Who is at the top, where only so many may be. */
function topNote(
  view: SiteView,
  field: Field,
  fields: readonly Field[],
  { at, entry }: { at: Instant; entry: string | null },
): FieldNote[] {
  const { atTop } = field;
  const type = [...(view.at(at)?.site.types.values() ?? [])].find((t) => t.fields === fields);
  if (atTop === undefined || !type) return [];
  const names = namesAtTop(view.connection, type, field, { except: entry, most: atTop });
  if (names.length < atTop) return [];
  const shown = names.slice(0, NAMED).map((name) => `“${name}”`);
  const more = names.length > NAMED ? ' …' : '';
  const there =
    atTop === 0
      ? `Each ${type.label} sits within another one`
      : `${atTop} may be at the top, and ${names.length === 1 ? 'is' : 'are'}: ${shown.join(', ')}${more}`;
  return [{ words: `${there}. Choose what it sits within.`, setting: field.id }];
}

/** Types that a reference leads to and of which there is nothing yet. */
function nothingToLeadTo(view: SiteView, field: Field, at: Instant): FieldNote[] {
  const site = view.at(at)?.site;
  const types = (field.types ?? []).flatMap((key) => site?.typesByKey.get(key) ?? []);
  const any = statement(
    view.connection,
    'SELECT 1 FROM entry WHERE type = ? AND deleted IS NULL LIMIT 1',
  );
  if (types.length === 0 || types.some(({ id }) => any.get(id))) return [];
  const { key, label } = types[0]!;
  return [{ words: `There is no ${label} yet.`, write: { key, label } }];
}
