import { type Issue, at } from '../issue.ts';
import { compareCodePoints } from '../text.ts';
import { compilePattern } from '../pattern/compile.ts';
import { referenceIds, replacedIds } from '../design/conversion.ts';
import { isDerived } from '../design/computed.ts';
import { isReference, targetOf } from '../design/field-values.ts';
import { valueForm } from '../design/value-form.ts';
import { namesIn, withRanges } from '../pattern/names.ts';
import type { Environment } from '../pattern/types.ts';
import type { Environments } from '../design/environment.ts';
import { rootOf, within } from '../design/language-spec.ts';
import type { ContentType, Design } from '../design/spec.ts';
import { checkAddressPattern, firstSegment } from './check-pattern.ts';
import type { AddressRule } from './rule.ts';
import { circularAddresses, typesReadByAddresses } from './dependencies.ts';

/** All that addresses depend on in one design. */
export interface AddressRules {
  design: Design;
  byType: Map<string, AddressRule>;
  /** Ids of reference fields that some address reads through, by type key. */
  referenceFields: Map<string, string[]>;
  /** Ids of the fields whose subjects some address reads, those that they take the place of too. */
  subjectFields: string[];
  /** Types whose paths other addresses are built on, by key. */
  builtOn: Set<string>;
  listingAddresses: Set<string>;
  frontEntry: string | null;
  /** Below which all addresses stand: "/", of a further language "/de". */
  root: string;
  /** Paths below which those of other languages stand. */
  otherRoots: readonly string[];
}

/** Compiles the address patterns of a design. */
export function compileAddressRules(
  design: Design,
  environments: Environments,
): { rules: AddressRules; issues: Issue[] } {
  const issues: Issue[] = [];
  const byType = new Map<string, AddressRule>();
  const front = design.site.front;
  const root = rootOf(design);
  const frontEntry = front && 'entry' in front ? front.entry : null;
  const otherRoots = design.languages.map(({ path }) => `/${path}`);
  const listingAddresses = addressesOfListings(design);
  const listingsWithin = new Set([...listingAddresses].map((address) => within(root, address)));
  for (const type of design.types) {
    if (type.address === undefined) continue;
    const compiled = compilePattern(type.address, environments.ofType(type), 'address');
    const form = compiled.pattern
      ? checkAddressPattern(type.address, listingsWithin, otherRoots)
      : [];
    issues.push(...at(`types/${type.key}/address`, [...compiled.issues, ...form]));
    if (compiled.pattern && form.length === 0)
      byType.set(type.key, {
        type,
        pattern: compiled.pattern,
        byIds: byIds(type.address, environments.ofType(type)),
        firstSegment: firstSegment(type.address),
      });
  }
  return {
    rules: {
      design,
      byType,
      referenceFields: referenceFields(design, byType),
      subjectFields: subjectFields(design, byType),
      builtOn: typesReadByAddresses(design, byType),
      ...{ listingAddresses, frontEntry, root, otherRoots },
    },
    issues: [...issues, ...circularAddresses(design, byType)],
  };
}

function addressesOfListings(design: Design): Set<string> {
  const { front } = design.site;
  return new Set([
    ...design.listings.flatMap(({ address }) => address ?? []),
    ...(front && 'listing' in front ? [rootOf(design)] : []),
  ]);
}

/**
 * Ids of the types whose entries may get other addresses when one design takes the place of
 * another.
 */
export function typesToDealAnew(before: AddressRules, after: AddressRules): Set<string> {
  const all = after.design.types;
  if (readBySite(before) !== readBySite(after)) return new Set(all.map((t) => t.id));
  const read = fieldsRead(before, after);
  const known = new Map(before.design.types.map((t) => [t.id, readByAddresses(before, t, read)]));
  const isAlike = (t: ContentType): boolean => known.get(t.id) === readByAddresses(after, t, read);
  return new Set(all.filter((t) => !isAlike(t)).map((t) => t.id));
}

/** Ids of the fields that address patterns read, in whichever type they stand. */
function fieldsRead(...rules: AddressRules[]): Set<string> {
  const patterns = rules.flatMap(({ byType }) => [...byType.values()]);
  return new Set(patterns.flatMap(({ pattern }) => pattern.chains.flatMap((c) => c.fields)));
}

/** A pattern with the fields that it reads named by their paths, whatever their keys are. */
function byIds(source: string, env: Environment): string {
  const uses = namesIn(source, env).filter(({ member }) => member.parts);
  return withRanges(
    source,
    uses.map(({ range, member }) => ({ range, by: member.parts!.join('|') })),
  );
}

/** What every address reads of the site. */
function readBySite(rules: AddressRules): string {
  const { byType, frontEntry, root, otherRoots } = rules;
  const { site, slugVersion } = rules.design;
  const { language, zone, name, strapline, url } = site;
  const isRead = [...byType.values()].some((rule) => /\bsite\b/.test(rule.byIds));
  const words = isRead ? [name, strapline, url] : [];
  return JSON.stringify([language, zone, slugVersion, frontEntry, root, otherRoots, ...words]);
}

/**
 * What its own addresses, and those that lead through it, read of a type: its pattern with fields
 * by their ids, and of the fields that are read what decides their values.
 */
function readByAddresses(
  { design, byType }: AddressRules,
  { key, clash, naming, fields }: ContentType,
  read: ReadonlySet<string>,
): string {
  const wanted = fields.filter((f) => read.has(f.id) || f.key === naming || f.sitsWithin);
  // What a computed field is worked out from stands in its pattern by keys.
  const all = (wanted.some(isDerived) ? fields : wanted).toSorted((a, b) =>
    compareCodePoints(a.id, b.id),
  );
  const told = all.map((field) => {
    const types = field.types?.map((t) => design.types.find((other) => other.key === t)?.id ?? t);
    const own = valueForm(field).filter(([name]) => name !== 'types');
    return [...own, ['types', types], ['names', field.key === naming]];
  });
  const computed = wanted.some(isDerived) ? fields.map((f) => f.key) : [];
  return JSON.stringify([key, byType.get(key)?.byIds, clash, told, computed]);
}

/** The fields of subjects among what address patterns read, in whichever type they stand. */
function subjectFields({ types }: Design, byType: Map<string, AddressRule>): string[] {
  const read = new Set(
    [...byType.values()].flatMap(({ pattern }) => pattern.chains.flatMap(({ fields }) => fields)),
  );
  const named = types.flatMap(({ fields }) =>
    fields.filter((f) => read.has(f.id) && targetOf(f)?.of === 'subjects'),
  );
  return named.flatMap((field) => [field.id, ...replacedIds(field)]);
}

/**
 * Any reference field of any type can be a later hop of some address pattern, so a field counts
 * by its id wherever an address pattern names that id in a chain; `within` names the tree's
 * field.
 */
function referenceFields(design: Design, byType: Map<string, AddressRule>): Map<string, string[]> {
  const named = new Set<string>();
  for (const { pattern } of byType.values())
    for (const chain of pattern.chains)
      for (const field of chain.fields.slice(0, chain.references)) named.add(field);
  return new Map(
    design.types.map((t) => [
      t.key,
      t.fields.filter((f) => isReference(f) && named.has(f.id)).flatMap(referenceIds),
    ]),
  );
}
