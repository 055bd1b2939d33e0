import { isDerived, readsOwnAlone } from '../design/computed.ts';
import type { Environments } from '../design/environment.ts';
import type { Field } from '../design/field.ts';
import type { ContentType, Design } from '../design/spec.ts';
import { type Issue, at } from '../issue.ts';
import { compilePattern } from '../pattern/compile.ts';
import { namesIn } from '../pattern/names.ts';

/**
 * What is wrong with computed fields: their patterns, and that one reads another, so that what one
 * is worked out from always comes to an end.
 */
export function checkComputed(design: Design, environments: Environments): Issue[] {
  const derived = new Set(
    design.types.flatMap(({ id, fields }) =>
      fields.filter(isDerived).map((field) => `types/${id}/fields/${field.id}`),
    ),
  );
  if (derived.size === 0) return [];
  return design.types.flatMap((type) =>
    type.fields
      .filter(isDerived)
      .flatMap((field) => [
        ...checkPattern(field, type, environments, derived),
        ...checkNaming(field, type),
      ]),
  );
}

function checkPattern(
  { key, label, pattern = '' }: Field,
  type: ContentType,
  environments: Environments,
  derived: ReadonlySet<string>,
): Issue[] {
  const path = `types/${type.key}/fields/${key}/pattern`;
  const env = environments.ofType(type);
  const { issues } = compilePattern(pattern, env, 'metadata');
  const other = namesIn(pattern, env).find(({ member: { parts } }) =>
    parts?.some((part) => derived.has(part)),
  );
  if (!other) return at(path, issues);
  return [
    ...at(path, issues),
    {
      code: 'reads-computed',
      path,
      range: other.range,
      message: `${label} reads "${other.name}", which is computed itself.`,
      fix: 'Write what that one is computed from.',
    },
  ];
}

/** Names are stored, so they are made of the entry's own fields. */
function checkNaming(field: Field, { key, naming, fields }: ContentType): Issue[] {
  if (field.key !== naming || readsOwnAlone(field, fields)) return [];
  return [
    {
      code: 'wrong-naming',
      path: `types/${key}/naming`,
      message: `${field.label} cannot name entries: it reads more than the entry itself.`,
      fix: 'Let it read fields of this type that hold no other entry, subject or picture.',
    },
  ];
}
