import type { Issue } from '../issue.ts';
import { unknownName } from '../did-you-mean.ts';
import { doubledBlockIds } from '../design/block-ids.ts';
import type { DesignNames } from '../design/field.ts';
import { kindOf } from '../design/kinds/index.ts';
import type { ContentType, Design } from '../design/spec.ts';

/** What is wrong with a design beyond its shape: doubled keys, and names that lead nowhere. */
export function checkDesign(design: Design): Issue[] {
  const names = { types: design.types.map((t) => t.key), sets: design.subjectSets };
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
    ...design.templates.flatMap(({ key, blocks, slots }) =>
      doubledBlockIds([blocks, slots]).map((id) => ({
        code: 'doubled-id',
        path: `templates/${key}/blocks`,
        message: `Two blocks have the id "${id}".`,
        fix: 'Give each its own id, or leave it out.',
      })),
    ),
    ...design.types.flatMap((t) => checkType(t, design, names)),
  ];
}

function doubled(keys: string[], path: string, what = 'key'): Issue[] {
  const seen = new Set<string>();
  const again = new Set(keys.filter((k) => seen.size === seen.add(k).size));
  return [...again].map((k) => ({
    code: 'doubled-key',
    path: `${path}/${k}`,
    message: `The ${what} "${k}" is used twice.`,
    fix: `Give each its own ${what}.`,
  }));
}

/** Parts of different keys that share an id. */
function doubledIds(parts: { id: string; key: string }[], path: string): Issue[] {
  const firstKeys = new Map<string, string>();
  return parts.flatMap(({ id, key }) => {
    const first = firstKeys.get(id) ?? key;
    firstKeys.set(id, first);
    if (first === key) return [];
    return [
      {
        code: 'doubled-id',
        path: `${path}/${key}/id`,
        message: `The id "${id}" is also that of "${first}".`,
        fix: 'Give each its own id, or leave it out.',
      },
    ];
  });
}

function checkType(type: ContentType, design: Design, names: DesignNames): Issue[] {
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
        unknownName(`${path}/${property}`, `${type.label} has no field "${name}".`, name, keys),
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
      unknownName(
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
    ...type.fields.flatMap((f) => kindOf(f).check(f, `${path}/fields/${f.key}`, names)),
  ];
}
