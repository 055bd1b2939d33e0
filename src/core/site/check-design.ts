import type { Issue } from '../issue.ts';
import { nearest } from '../text.ts';
import type { ContentType, Design, Field } from '../design/spec.ts';

/** What is wrong with a design beyond its shape: doubled keys, and names that lead nowhere. */
export function checkDesign(design: Design): Issue[] {
  return [
    ...doubled(
      design.types.map((t) => t.key),
      'types',
    ),
    ...doubled(
      design.listings.map((l) => l.key),
      'listings',
    ),
    ...doubledIds(design.types, 'types'),
    ...doubledIds(design.listings, 'listings'),
    ...doubled(
      design.templates.map((t) => t.key),
      'templates',
    ),
    ...doubled(
      design.subjectSets.map((s) => s.key),
      'subjects',
    ),
    ...doubled(
      design.listings.flatMap((l) => l.address ?? []),
      'listings',
      'address',
    ),
    ...design.types.flatMap((t) => checkType(t, design)),
  ];
}

function doubled(keys: string[], path: string, what = 'key'): Issue[] {
  const again = new Set(keys.filter((k, i) => keys.indexOf(k) !== i));
  return [...again].map((k) => ({
    code: 'doubled-key',
    path: `${path}/${k}`,
    message: `The ${what} "${k}" is used twice.`,
    fix: `Give each its own ${what}.`,
  }));
}

/** Parts of different keys that share an id. */
function doubledIds(parts: { id: string; key: string }[], path: string): Issue[] {
  return parts.flatMap(({ id, key }, i) => {
    const first = parts.slice(0, i).find((p) => p.id === id && p.key !== key);
    return first
      ? [
          {
            code: 'doubled-id',
            path: `${path}/${key}/id`,
            message: `The id "${id}" is also that of "${first.key}".`,
            fix: 'Give each its own id, or leave it out.',
          },
        ]
      : [];
  });
}

function checkType(type: ContentType, design: Design): Issue[] {
  const path = `types/${type.key}`;
  const keys = type.fields.map((f) => f.key);
  const issues = [
    ...doubled(keys, `${path}/fields`),
    ...doubled(
      type.fields.map((f) => f.id),
      `${path}/fields`,
      'id',
    ),
  ];
  for (const [property, name] of [
    ['naming', type.naming],
    ['summary', type.summary],
  ] as const) {
    if (name !== undefined && !keys.includes(name))
      issues.push(
        unknown(`${path}/${property}`, `${type.label} has no field "${name}".`, name, keys),
      );
  }
  const within = type.fields.filter((f) => f.sitsWithin);
  if (within.length > 1)
    issues.push({
      code: 'several-within',
      path: `${path}/fields/${within[1]!.key}`,
      message: 'Only one reference of a type makes the tree of pages.',
      fix: 'Leave sitsWithin on one of them.',
    });
  if (
    typeof type.retired === 'object' &&
    'listing' in type.retired &&
    !design.listings.some((l) => l.key === (type.retired as { listing: string }).listing)
  ) {
    issues.push(
      unknown(
        `${path}/retired`,
        `There is no listing "${type.retired.listing}".`,
        type.retired.listing,
        design.listings.map((l) => l.key),
      ),
    );
  }
  const { retired } = type;
  const over =
    typeof retired === 'object' && 'listing' in retired
      ? design.listings.find((l) => l.key === retired.listing)
      : undefined;
  const isFront =
    design.site.front && 'listing' in design.site.front && design.site.front.listing === over?.key;
  if (over && over.address === undefined && !isFront)
    issues.push({
      code: 'no-address',
      path: `${path}/retired`,
      message: `The listing "${over.key}" has no address, so nothing can lead there.`,
      fix: 'Give it one, or name another listing.',
    });
  return [
    ...issues,
    ...type.fields.flatMap((f) => checkField(f, `${path}/fields/${f.key}`, design)),
  ];
}

function checkField(field: Field, path: string, design: Design): Issue[] {
  const issues: Issue[] = [];
  if (field.kind === 'choice' && !field.options?.length)
    issues.push({
      code: 'options-missing',
      path,
      message: `${field.label} is a choice without options.`,
      fix: 'List its options.',
    });
  if (field.sitsWithin && (field.kind !== 'reference' || field.many))
    issues.push({
      code: 'wrong-within',
      path,
      message: 'Only a single reference can make the tree of pages.',
      fix: 'Make the field a reference that holds one entry.',
    });
  const types = design.types.map((t) => t.key);
  for (const type of field.types ?? [])
    if (!types.includes(type))
      issues.push(unknown(path, `There is no content type "${type}".`, type, types));
  if (field.kind !== 'tags' && field.kind !== 'category') return issues;
  const set = design.subjectSets.find((s) => s.key === field.set);
  const wanted = field.kind === 'tags' ? 'tags' : 'tree';
  if (!set)
    issues.push(
      unknown(
        path,
        field.set === undefined
          ? `${field.label} names no subject set.`
          : `There is no subject set "${field.set}".`,
        field.set ?? '',
        design.subjectSets.map((s) => s.key),
      ),
    );
  else if (set.kind !== wanted)
    issues.push({
      code: 'wrong-set',
      path,
      message: `"${set.key}" is a set of kind ${set.kind}; ${field.label} wants ${wanted}.`,
      fix: `Name a set of kind ${wanted}.`,
    });
  return issues;
}

function unknown(path: string, message: string, name: string, known: string[]): Issue {
  const near = nearest(name, known);
  return {
    code: 'unknown-name',
    path,
    message,
    fix: near
      ? `Did you mean "${near}"?`
      : known.length > 0
        ? `There are: ${known.slice(0, 10).join(', ')}.`
        : 'Add it first.',
  };
}
