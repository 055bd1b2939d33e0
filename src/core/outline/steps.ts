import { isReserved } from '../address/path.ts';
import type { Part } from '../design-edit/parts.ts';
import { setKindOf } from '../design/kinds/subjects.ts';
import type { Step } from '../design-edit/steps.ts';
import { freeKey, slugOf, typeKeyOf } from './names.ts';
import type { OutlineField, OutlineType, OutlineWorld } from './read.ts';

/** Gives a new part an id: its key where nothing had that so far. */
export type IdFor = (path: string, key: string) => string;

/** One edit's steps that make what an outline says: subject sets, types, fields of those there. */
export function outlineSteps(
  types: readonly OutlineType[],
  design: OutlineWorld,
  idFor: IdFor,
): Step[] {
  const sets = newSets(types, design);
  const last = { types: design.types.at(-1)?.id, subjectSets: design.subjectSets.at(-1)?.id };
  const add = (list: 'types' | 'subjectSets', part: Part): Step => {
    const after = last[list] ?? null;
    last[list] = part.id!;
    return { do: 'add', within: '', list, after, part: part as { id: string } & Part };
  };
  return [
    ...sets.map(({ key, label, kind }) =>
      add('subjectSets', { id: idFor(`subjectSets/${key}`, key), key, label, kind }),
    ),
    ...types.flatMap((type) =>
      type.known
        ? addFields(type, design, idFor)
        : [add('types', typePart(type, design, idFor) as unknown as Part)],
    ),
  ];
}

function addFields(type: OutlineType, design: OutlineWorld, idFor: IdFor): Step[] {
  const { id, fields } = type.known!;
  let after = fields.at(-1)?.id ?? null;
  return type.fields.map((field): Step => {
    const part = fieldPart(field, design, idFor(`types/${id}/fields/${field.key}`, field.key));
    const step: Step = { do: 'add', within: `types/${id}`, list: 'fields', after, part };
    after = part.id;
    return step;
  });
}

function typePart(type: OutlineType, design: OutlineWorld, idFor: IdFor): object {
  const { key, label, plural, fields, makesPages, isSingle } = type;
  const naming = fields.find(({ kind }) => kind === 'text')!;
  const summary = fields.find(({ kind }) => kind === 'paragraphs');
  return {
    id: idFor(`types/${key}`, key),
    key,
    label,
    plural,
    fields: fields.map((field) => fieldPart(field, design, field.key)),
    naming: naming.key,
    ...(summary ? { summary: summary.key } : {}),
    ...(isSingle ? { single: true } : {}),
    ...(makesPages ? { address: addressOf(type, naming, design.site.language) } : {}),
  };
}

/** Where the pages of a type stand: below its name, or below the page that they sit within. */
export function addressOf(
  { plural, key, fields }: OutlineType,
  naming: OutlineField,
  language: string,
): string {
  if (fields.some(({ sitsWithin }) => sitsWithin)) return `[{within.path}]/{${naming.key}}`;
  const segment = slugOf(plural, language) || key;
  return `/${isReserved(`/${segment}`) ? `${segment}-pages` : segment}/{${naming.key}}`;
}

function fieldPart(field: OutlineField, design: OutlineWorld, id: string): { id: string } & Part {
  const { key, label, kind, many, required, sitsWithin, types, options, set, fields } = field;
  const { language } = design.site;
  const keys = new Set<string>();
  return {
    id,
    key,
    label,
    kind,
    ...(many ? { many } : {}),
    ...(required ? { required } : {}),
    ...(types.length > 0 ? { types } : {}),
    ...(sitsWithin ? { sitsWithin } : {}),
    ...(set === '' ? {} : { set: setKeyOf(field, design) }),
    ...(kind === 'group' ? { fields: fields.map((f) => fieldPart(f, design, f.key)) } : {}),
    ...(options.length === 0
      ? {}
      : {
          options: options.map((option) => {
            const own = freeKey(typeKeyOf(option, language), keys);
            keys.add(own);
            return { id: own, key: own, label: option };
          }),
        }),
  };
}

/** The key of the set that a field of tags or a category takes from: one of that name and kind. */
export function setKeyOf({ set, kind }: OutlineField, { subjectSets, site }: OutlineWorld): string {
  const wanted = setKindOf(kind);
  const key = typeKeyOf(set, site.language);
  const other = subjectSets.find((s) => s.key === key && s.kind !== wanted);
  return other ? `${key}-${wanted}` : key;
}

/** The fields of a group, however deep. */
function innerOf({ fields }: OutlineField): OutlineField[] {
  return fields.flatMap((field) => [field, ...innerOf(field)]);
}

function newSets(
  types: readonly OutlineType[],
  design: OutlineWorld,
): { key: string; label: string; kind: 'tags' | 'tree' }[] {
  const found = new Map<string, { key: string; label: string; kind: 'tags' | 'tree' }>();
  const all = types.flatMap(({ fields }) => fields).flatMap((f) => [f, ...innerOf(f)]);
  for (const field of all) {
    if (field.set === '') continue;
    const key = setKeyOf(field, design);
    if (design.subjectSets.some((s) => s.key === key)) continue;
    found.set(key, { key, label: field.set, kind: setKindOf(field.kind) });
  }
  return [...found.values()];
}
