import { isDerived } from '@/core/design/computed.ts';
import type { ControlName } from '@/core/design/controls.ts';
import type { Field } from '@/core/design/field.ts';
import type { Values } from '@/core/design/values.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { ShownWhen } from '@/core/design/shown.ts';
import type { FieldNote } from './field-notes.ts';
import type { Option } from './offers.ts';
import type { SiteView } from './site-view.ts';
import type { TextOffer } from './text-offer.ts';

/** A field with what its control needs. */
export type FormField = Pick<
  Field,
  | 'id'
  | 'key'
  | 'label'
  | 'required'
  | 'many'
  | 'section'
  | 'half'
  | 'hidden'
  | 'formats'
  | 'maxKilobytes'
> & {
  shownWhen: ShownWhen | null;
  control: ControlName;
  /** What limits its values, as controls show it. */
  limits: Pick<Field, 'maxLength' | 'min' | 'max' | 'decimals' | 'unit'>;
  help: string | null;
  /** The fields of a group, and what a new one of it starts with. */
  fields?: FormField[];
  starts?: Values;
  /** What is offered at once. */
  options: Option[];
  /** Types whose entries are searched for, null for all; undefined where it holds no entries. */
  entryTypes?: string[] | null;
  /** Types of which a new entry can be made in place: ids, and the ids of their naming fields. */
  makes?: { type: string; label: string; naming: string }[];
  /** The id of the subject set that its values are of, and the language they are compared in. */
  subjects?: { set: string; language: string };
  /** What a rich text may hold. */
  text?: TextOffer;
  /** What keeps it from being left blank, or from being filled, and where that is changed. */
  notes: FieldNote[];
  /** Names of the entries it points at, by id. */
  names: Record<string, string>;
};

/** Which entries a reference may lead to, and which can be made in place. */
export function entriesOf(
  view: SiteView,
  types: readonly string[] | null,
  at: Instant,
): Pick<FormField, 'entryTypes' | 'makes'> {
  const byKey = view.at(at)?.site.typesByKey;
  const makes = (types ?? []).flatMap((key) => {
    const type = byKey?.get(key);
    const naming = type?.fields.find((f) => f.key === type.naming);
    if (!type || type.single || !naming || isDerived(naming)) return [];
    return [{ type: type.id, label: type.label, naming: naming.id }];
  });
  return { entryTypes: types && [...types], makes };
}
