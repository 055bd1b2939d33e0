import type { Issue } from '../issue.ts';
import type { Field } from '../design/field.ts';
import type { ContentType, Design } from '../design/spec.ts';
import type { FieldChain } from '../pattern/expression.ts';
import type { AddressRule } from './rule.ts';

/**
 * Types whose addresses build on each other in a circle, so that none could be worked out first.
 * Pages that sit within pages of their own type are the one exception: there the entries make a
 * tree.
 */
export function circularAddresses(
  design: Design,
  byType: ReadonlyMap<string, AddressRule>,
): Issue[] {
  const builtOn = new Map(
    [...byType].map(([key, { type, pattern }]) => [
      key,
      typesBuiltOn(design, type, pattern.chains, false),
    ]),
  );
  return [...builtOn.keys()].flatMap((key) => {
    const circle = wayBack(key, builtOn);
    if (!circle) return [];
    const labels = circle.map((k) => `"${byType.get(k)!.type.label}"`);
    const message =
      circle.length === 1
        ? `The address of ${labels[0]} reads the address it is to make.`
        : `The addresses of ${labels.join(', ')} build on each other in a circle.`;
    return [
      {
        code: 'circular-address',
        path: `types/${key}/address`,
        message,
        fix: 'Let one of them read a field instead of a path; a page may build on the page it sits within.',
      },
    ];
  });
}

/** Keys of the types whose paths some address reads. */
export function typesReadByAddresses(
  design: Design,
  byType: ReadonlyMap<string, AddressRule>,
): Set<string> {
  return new Set(
    [...byType.values()].flatMap(({ type, pattern }) => [
      ...typesBuiltOn(design, type, pattern.chains, true),
    ]),
  );
}

/** `tree`: whether pages that sit within pages of their own type count. */
function typesBuiltOn(
  design: Design,
  type: ContentType,
  chains: readonly FieldChain[],
  tree: boolean,
): Set<string> {
  const found = new Set<string>();
  for (const chain of chains) {
    if (!chain.readsPath) continue;
    const fields = fieldsAlong(design, type, chain);
    const last = fields.at(-1);
    if (!last) found.add(type.key);
    else
      for (const target of last.types ?? design.types.map((t) => t.key))
        if (tree || target !== type.key || !fields.every((f) => f?.sitsWithin)) found.add(target);
  }
  return found;
}

/** The references that a chain follows; each is looked for in the types that the last leads to. */
function fieldsAlong(
  { types }: Design,
  type: ContentType,
  { fields, references }: FieldChain,
): (Field | undefined)[] {
  let within: readonly ContentType[] = [type];
  return fields.slice(0, references).map((id) => {
    const field = within.flatMap((t) => t.fields).find((f) => f.id === id);
    within = types.filter(({ key }) => field?.types?.includes(key) ?? true);
    return field;
  });
}

/** The shortest way along what a type builds on that leads back to it; null where there is none. */
function wayBack(
  start: string,
  builtOn: ReadonlyMap<string, ReadonlySet<string>>,
): string[] | null {
  const ways: string[][] = [[start]];
  const seen = new Set<string>();
  for (const way of ways) {
    for (const next of builtOn.get(way.at(-1)!) ?? []) {
      if (next === start) return way;
      if (!seen.has(next)) ways.push([...way, next]);
      seen.add(next);
    }
  }
  return null;
}
