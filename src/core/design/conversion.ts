import { isBlank } from '../pattern/types.ts';
import { paragraphsOf } from '../rich-text/index.ts';
import type { Field, FieldBefore } from './field.ts';
import { isDerived, withComputed, withComputedBefore } from './computed.ts';
import { eachItem, withInner } from './fields-within.ts';
import { kindOf } from './kinds/index.ts';
import { isReference } from './field-values.ts';
import { type Values, valuesOf } from './values.ts';

/** How values of one kind are read as values of another. */
export interface Converting {
  zone: string;
  language: string;
}

/** What a value is in another field, and what of it has no place there. */
export interface Converted {
  /** A list where the field holds several; null where nothing is left. */
  value: unknown;
  lost: unknown[];
}

type Side = Pick<Field, 'kind' | 'many' | 'options'>;

/**
 * The values of an entry as its type, as it is now, reads them: a field that takes the place of
 * another has that one's values where it has none of its own. What is stored stays; the same
 * values are given back where no field has taken another's place.
 */
export function valuesAs(fields: readonly Field[], stored: Values, how: Converting): Values {
  const known = READ.get(stored);
  if (known?.fields === fields && known.how === how) return known.values;
  const values = readAs(fields, stored, how);
  READ.set(stored, { fields, how, values });
  return values;
}

/** What stored values were read as last: those of one revision are asked for again and again. */
const READ = new WeakMap<Values, { fields: readonly Field[]; how: Converting; values: Values }>();

function readAs(fields: readonly Field[], stored: Values, how: Converting): Values {
  const values = withComputedBefore(fields, stored, how);
  let read = values;
  for (const field of fields) {
    if (isDerived(field) || !field.replaces || Object.hasOwn(values, field.id)) continue;
    if (read === values) read = { ...values };
    read[field.id] = convert(
      valueBefore(field.replaces, values, how),
      sideOf(field.replaces),
      field,
      how,
    ).value;
  }
  const within = inItems(fields, read, (inner, item) => valuesAs(inner, item, how));
  return withComputed(fields, within, how);
}

const CHANGED = new WeakMap<readonly Field[], Field[]>();

/** The groups in which a field has taken another's place. */
function changedGroups(fields: readonly Field[]): Field[] {
  let found = CHANGED.get(fields);
  if (!found)
    CHANGED.set(
      fields,
      (found = fields.filter((f) => withInner(f.fields ?? []).some((inner) => inner.replaces))),
    );
  return found;
}

/** Values with something done to the items of groups in which a field has taken another's place. */
function inItems(
  fields: readonly Field[],
  values: Values,
  act: (fields: readonly Field[], item: Values) => Values,
): Values {
  const read = changedGroups(fields).flatMap((field) =>
    isBlank(values[field.id])
      ? []
      : [[field.id, eachItem(values[field.id], (item) => act(field.fields!, item))]],
  );
  return read.length === 0 ? values : { ...values, ...Object.fromEntries(read) };
}

function valueBefore(before: FieldBefore, values: Values, how: Converting): unknown {
  if (Object.hasOwn(values, before.field) || !before.replaces) return values[before.field] ?? null;
  const earlier = valueBefore(before.replaces, values, how);
  return convert(earlier, sideOf(before.replaces), sideOf(before), how).value;
}

/** What a field was, as a field that values are converted from and to. */
function sideOf({ kind, many, labels }: FieldBefore): Side {
  const options = Object.entries(labels ?? {}).map(([id, label]) => ({ id, key: id, label }));
  return { kind, many, options };
}

/** A field's value, one or a list, as a value of another field. */
export function convert(value: unknown, from: Side, to: Side, how: Converting): Converted {
  const lost: unknown[] = [];
  const converted: unknown[] = [];
  for (const one of valuesOf({ value }, 'value')) {
    const found = convertOne(one, from, to, how);
    if (found === null || (!to.many && converted.length > 0)) lost.push(one);
    else converted.push(found);
  }
  const all = converted.length > 0 ? converted : null;
  return { value: to.many ? all : (converted[0] ?? null), lost };
}

function convertOne(value: unknown, from: Side, to: Side, how: Converting): unknown {
  if (from.kind === to.kind && from.kind !== 'choice') return value;
  const text = kindOf(from).asText(value, from, how.zone);
  const words = text === null ? null : kindOf(to).fromText(text, how.language);
  if (words === null) return null;
  const given = { now: 0, zone: how.zone, richText: paragraphsOf };
  const parsed = kindOf(to).parse(words, to as Field, given);
  return parsed.ok ? parsed.value : null;
}

/**
 * What fields had before another took their place, brought up to date with a new value, by field
 * id: so that a change of kind that is taken back shows what was written since. Nothing where the
 * new value has no place there, or where what is stored already reads as the new value.
 */
export function valuesBefore(
  fields: readonly Field[],
  values: Values,
  stored: Values,
  how: Converting,
): Values {
  const back: Values = {};
  for (const field of fields) {
    let [after, value]: [Side, unknown] = [field, values[field.id] ?? null];
    for (let before = field.replaces; before; before = before.replaces) {
      if (isDerived(field) || isDerived(before)) break;
      const side = sideOf(before);
      const known = convert(stored[before.field] ?? null, side, after, how).value;
      const { value: own, lost } = convert(value, after, side, how);
      if (lost.length > 0 || JSON.stringify(known) === JSON.stringify(value)) break;
      back[before.field] = own;
      [after, value] = [side, own];
    }
  }
  return back;
}

/**
 * Values whose groups' items have what their fields had before another took their place, brought up
 * to date.
 */
export function withItemsBefore(fields: readonly Field[], values: Values, how: Converting): Values {
  return inItems(fields, values, (inner, item) => {
    const deep = withItemsBefore(inner, item, how);
    return { ...deep, ...valuesBefore(inner, deep, deep, how) };
  });
}

/** The ids of the fields that a field has taken the place of, the last one first. */
export function replacedIds(field: Field): string[] {
  const ids: string[] = [];
  for (let before = field.replaces; before; before = before.replaces) ids.push(before.field);
  return ids;
}

/** The ids under which the references of a field may stand: its own, and those of before. */
export function referenceIds(field: Field): string[] {
  const ids = isReference(field) ? [field.id] : [];
  for (let before = field.replaces; before; before = before.replaces)
    if (isReference(before as unknown as Field)) ids.push(before.field);
  return ids;
}
