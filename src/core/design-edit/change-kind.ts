import type { Field, FieldBefore } from '../design/field.ts';
import { kindOf } from '../design/kinds/index.ts';

/** What a field is to hold. */
export interface Wanted {
  kind: string;
  many: boolean;
}

/** What all kinds have, whatever else theirs is. */
const COMMON = [
  ...(['key', 'label', 'help', 'required', 'column'] as const),
  ...(['section', 'half', 'hidden', 'shownIf'] as const),
] as const;

/**
 * A field that is to hold something else: it takes the place of the one that is there, under
 * another id, so that what is stored stays. Asked for what it held before, it is that field again.
 *
 * @param stored The field as the design has it; undefined for one that nothing is stored under.
 */
export function withKind(
  field: Field,
  stored: Field | undefined,
  { kind, many: asked }: Wanted,
  newId: () => string,
): Field {
  const wanted = kindOf({ kind });
  const many = wanted.alwaysMany || (asked && !wanted.derived);
  const common = Object.fromEntries(
    COMMON.flatMap((name) => (field[name] === undefined ? [] : [[name, field[name]]])),
  );
  const translated = kind === field.kind ? field.translated : wanted.translated;
  if (stored && kind === stored.kind && many === stored.many)
    return { ...stored, ...common } as Field;
  const own = Object.fromEntries(
    Object.keys(wanted.properties).flatMap((name) => {
      const value = (field as unknown as Record<string, unknown>)[name];
      return value === undefined ? [] : [[name, value]];
    }),
  );
  const next = { ...common, ...own, kind, many, translated } as Omit<Field, 'id'>;
  if (!stored) return { ...next, id: field.id };
  const id = field.id === stored.id ? newId() : field.id;
  return { ...next, id, replaces: beforeOf(stored) };
}

function beforeOf({ id, kind, many, options, pattern, replaces }: Field): FieldBefore {
  return {
    field: id,
    kind,
    many,
    ...(options === undefined
      ? {}
      : { labels: Object.fromEntries(options.map((o) => [o.id, o.label])) }),
    ...(pattern === undefined ? {} : { pattern }),
    ...(replaces === undefined ? {} : { replaces }),
  };
}
