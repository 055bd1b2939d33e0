import type { Member, Scope } from '../pattern/types.ts';
import type { Field } from './field.ts';
import { kindOf } from './kinds/index.ts';
import type { EntryView } from './values.ts';

/** What fields are read from: an entry, or anything else with values by field id. */
type Owner = Pick<EntryView, 'values'>;

/** The member of a field whose values stand for themselves. */
export function plainMember(field: Field): Member {
  const { id, many } = field;
  const single = kindOf(field).valueType(field);
  if (many)
    return { type: () => ({ ...single, many }), read: reader(id, many, (v) => v), field: id };
  const isPlainText = single.kind === 'text';
  return { type: () => single, read: plainReader(id), isPlainText, field: id };
}

/** Reads a single stored value as it is. */
function plainReader(id: string): Member['read'] {
  return (owner) => {
    const value = (owner as Owner).values[id];
    return (Array.isArray(value) ? value[0] : value) ?? null;
  };
}

/** Reads what stored values, one or many, stand for. */
export function reader(
  id: string,
  many: boolean,
  read: (value: unknown, scope: Scope) => unknown,
): Member['read'] {
  const single = (value: unknown, scope: Scope): unknown =>
    value === null || value === undefined ? null : (read(value, scope) ?? null);
  if (!many) {
    return (owner, scope) => {
      const value = (owner as Owner).values[id];
      return single(Array.isArray(value) ? value[0] : value, scope);
    };
  }
  return (owner, scope) => {
    const value = (owner as Owner).values[id];
    return (Array.isArray(value) ? value : value === undefined ? [] : [value])
      .map((v) => single(v, scope))
      .filter((v) => v !== null);
  };
}
