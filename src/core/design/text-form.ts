import type { TextForm } from '../rich-text/index.ts';
import type { StyledSort } from '../style/named-look.ts';
import type { Field } from './field.ts';
import { withInner } from './fields-within.ts';
import type { Role } from './roles.ts';

/** A content type whose values stand in texts. */
export interface PartType {
  id: string;
  key: string;
  label: string;
  fields: Field[];
  address?: string | undefined;
  single?: boolean | undefined;
}

/** A named style of the site. */
interface NamedStyle {
  id: string;
  key: string;
  label: string;
  on: Exclude<StyledSort, 'block'>;
}

/** What of a design decides what its texts may hold. */
interface TextDesign {
  types: readonly PartType[];
  styles: readonly (Omit<NamedStyle, 'on'> & { on: StyledSort })[];
  textForms: readonly {
    key: string;
    marks?: string[] | undefined;
    blocks?: string[] | undefined;
    levels?: number[] | undefined;
    parts?: string[] | undefined;
    styles?: string[] | undefined;
    roles?: Partial<Record<Role, string>> | undefined;
  }[];
}

/** What the texts of a field may hold, with the types and styles themselves. */
export interface FieldTextForm extends TextForm {
  /** All types that are parts of others and all styles of texts, those it may hold among them. */
  allParts: readonly PartType[];
  allStyles: readonly NamedStyle[];
  /** True where its field says nothing, so that all may stand. */
  open: boolean;
  /** What those of a role may put in, where that is less. */
  narrower: Partial<Record<Role, TextForm>>;
}

const NOTHING_SAID: FieldTextForm = {
  ...{ marks: null, blocks: null, levels: null },
  ...{ parts: new Set(), styles: new Set(), allParts: [], allStyles: [] },
  open: true,
  narrower: {},
};

/**
 * What the texts of a field may hold follows from the design that the field is of, which parts in
 * parts make a circle of: so it is kept beside the fields, not in them.
 */
const forms = new WeakMap<Field, FieldTextForm>();

/**
 * What texts of a field may hold, or what those of a role may put into them; all marks and blocks
 * where its design is not known.
 */
export function textFormOf(field: Field, role?: Role): FieldTextForm {
  const form = forms.get(field) ?? NOTHING_SAID;
  const narrower = role && form.narrower[role];
  return narrower ? { ...form, ...narrower } : form;
}

/** Whether the values of a type can be parts of texts: it makes no pages, and has several. */
export function isPart({ address, single }: Pick<PartType, 'address' | 'single'>): boolean {
  return address === undefined && !single;
}

/** Makes known what the rich texts of a design may hold. */
export function noteTextForms({ types, textForms, styles: named }: TextDesign): void {
  const allParts = types.filter(isPart);
  const styles = named.filter((style): style is NamedStyle => style.on !== 'block');
  const ids = <T extends { id: string; key: string }>(all: readonly T[], keys?: string[]) =>
    new Set(all.flatMap(({ id, key }) => (!keys || keys.includes(key) ? [id] : [])));
  const byKey = new Map(
    textForms.map(({ key, marks, blocks, levels, parts, styles: own }): [string, TextForm] => [
      key,
      {
        marks: marks ? new Set(marks) : null,
        blocks: blocks ? new Set(blocks) : null,
        levels: levels ? new Set(levels) : null,
        parts: ids(allParts, parts),
        styles: ids(styles, own),
      },
    ]),
  );
  const known = { allParts, allStyles: styles };
  const ofFields = new Map(
    textForms.map(({ key, roles = {} }): [string, FieldTextForm] => {
      const form = byKey.get(key)!;
      const narrower = Object.entries(roles).flatMap(([role, name]) => {
        const other = byKey.get(name);
        return other ? [[role, inBoth(form, other)] as const] : [];
      });
      return [
        key,
        { ...form, ...known, open: false, narrower: Object.fromEntries(narrower) as object },
      ];
    }),
  );
  const all = {
    ...{ marks: null, blocks: null, levels: null },
    ...{ parts: ids(allParts), styles: ids(styles), ...known, open: true, narrower: {} },
  };
  for (const type of types)
    for (const field of withInner(type.fields))
      if (field.kind === 'richtext') forms.set(field, ofFields.get(field.form ?? '') ?? all);
}

/** What two forms both let in. */
function inBoth(a: TextForm, b: TextForm): TextForm {
  const both = <T>(one: ReadonlySet<T>, other: ReadonlySet<T>): Set<T> =>
    new Set([...one].filter((name) => other.has(name)));
  const said = <T>(one: ReadonlySet<T> | null, other: ReadonlySet<T> | null) =>
    one && other ? both(one, other) : (one ?? other);
  return {
    marks: said(a.marks, b.marks),
    blocks: said(a.blocks, b.blocks),
    levels: said(a.levels, b.levels),
    parts: both(a.parts, b.parts),
    styles: both(a.styles, b.styles),
  };
}
