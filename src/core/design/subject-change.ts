import { z } from 'zod';
import { type Issue, type Result, ok, refused } from '../issue.ts';
import { nameOfLanguage } from './language-spec.ts';
import type { SubjectVersion } from './subject-history.ts';
import { SLUG, wordsByTag } from './subject-words.ts';

/** A subject as it stands: a version without its bounds. */
export type SubjectState = Omit<SubjectVersion, 'from' | 'to'>;

const key = z.string().min(1).max(100);
const keys = z.array(key).min(1).max(10_000);

/** What can be done to the subjects of a set; each takes hold at once. */
export const subjectChange = z.discriminatedUnion('do', [
  z.strictObject({
    do: z.literal('set'),
    key,
    name: z.string().trim().min(1).max(200).optional(),
    slug: z.string().max(120).optional(),
    description: z.string().max(10_000).optional(),
    picture: z.string().max(200).nullable().optional(),
    /** What every further language says of it. */
    languages: wordsByTag.optional(),
  }),
  z.strictObject({
    do: z.literal('move'),
    key,
    /** Key of the one it is to stand below; null at the top. */
    parent: key.nullable(),
    /** Key of the one it is to stand before; null at the end. */
    before: key.nullable(),
  }),
  z.strictObject({ do: z.literal('merge'), keys, into: key }),
  z.strictObject({ do: z.literal('delete'), keys }),
]);
/** One of them. */
export type SubjectChange = z.output<typeof subjectChange>;

/** The subjects of a set as they stand, by key, in their order; merged ones among them. */
export type SubjectStates = ReadonlyMap<string, SubjectState>;

/** What a change leaves of those it touches: how each stands then, null where it is gone. */
export type SubjectsAfter = Map<string, SubjectState | null>;

/** As deep as pages may sit within each other. */
const DEEPEST = 50;

/** Does a change; gives those that stand otherwise then, or what keeps it from being done. */
export function changeSubjects(
  states: SubjectStates,
  change: SubjectChange,
): Result<SubjectsAfter> {
  const unknown = namesIn(change).find((name) => !isThere(states.get(name)));
  if (unknown !== undefined)
    return refused({
      code: 'unknown-subject',
      message: `There is no "${unknown.slice(0, 60)}" in it any more.`,
      fix: 'Reload the page.',
    });
  const after = changed(states, change);
  const issues = checkSubjects(states, after);
  return issues.length > 0 ? refused(...issues) : ok(after);
}

function isThere(state: SubjectState | undefined): state is SubjectState {
  return state !== undefined && state.merged === null;
}

/** The keys that a change speaks of. */
function namesIn(change: SubjectChange): string[] {
  switch (change.do) {
    case 'set':
      return [change.key];
    case 'move':
      return [change.key, change.parent, change.before].filter((name) => name !== null);
    case 'merge':
      return [...change.keys, change.into];
    case 'delete':
      return change.keys;
  }
}

function changed(states: SubjectStates, change: SubjectChange): SubjectsAfter {
  switch (change.do) {
    case 'set': {
      const { do: _, ...given } = change;
      return new Map([[change.key, { ...states.get(change.key)!, ...given }]]);
    }
    case 'move':
      return new Map([[change.key, { ...states.get(change.key)!, parent: change.parent }]]);
    case 'merge': {
      const { into } = change;
      const merged = new Set(change.keys.filter((name) => name !== into));
      const after: SubjectsAfter = new Map();
      for (const name of merged) after.set(name, mergedInto(into, states.get(name)!));
      for (const state of states.values())
        if (!merged.has(state.key) && isThere(state) && merged.has(state.parent ?? ''))
          after.set(state.key, { ...state, parent: into });
      return after;
    }
    case 'delete':
      return deleted(states, new Set(change.keys));
  }
}

/** A key that counts as another from now on; what it was called says what is meant by its name. */
export function mergedInto(
  into: string,
  { key: own, name }: Pick<SubjectState, 'key' | 'name'>,
): SubjectState {
  const rest = { slug: '', description: '', picture: null, parent: null, languages: {} };
  return { key: own, name, ...rest, merged: into };
}

/** Those below what goes stand below what that stood below. */
function deleted(states: SubjectStates, going: ReadonlySet<string>): SubjectsAfter {
  const above = (parent: string | null): string | null => {
    let next = parent;
    for (let i = 0; next !== null && going.has(next) && i < DEEPEST; i++)
      next = states.get(next)?.parent ?? null;
    return next;
  };
  const after: SubjectsAfter = new Map([...going].map((name) => [name, null]));
  for (const state of states.values())
    if (!going.has(state.key) && isThere(state) && going.has(state.parent ?? ''))
      after.set(state.key, { ...state, parent: above(state.parent) });
  return after;
}

/** What is wrong with subjects as they would stand: their slugs, and what they stand below. */
export function checkSubjects(states: SubjectStates, after: SubjectsAfter): Issue[] {
  const now = (name: string): SubjectState | undefined =>
    after.has(name) ? (after.get(name) ?? undefined) : states.get(name);
  const slugs = slugsOf(states, after);
  return [...after.values()].flatMap((state) => {
    if (!state || state.merged !== null) return [];
    const was = states.get(state.key);
    const isNew = was?.slug !== state.slug || was.parent !== state.parent || was.merged !== null;
    return [
      ...(SLUG.test(state.slug) ? [] : [wrongSlug(state.slug, 'slug')]),
      ...Object.entries(state.languages).flatMap(([tag, { slug }]) =>
        slug === undefined || SLUG.test(slug) ? [] : [wrongSlug(slug, `languages.${tag}.slug`)],
      ),
      ...(isNew && slugs.get(slugName(state))! > 1 ? [sameSlug(state)] : []),
      ...checkPlace(state, now),
    ];
  });
}

const slugName = ({ parent, slug }: SubjectState): string => JSON.stringify([parent, slug]);

/** How many there are of each slug below one parent. */
function slugsOf(states: SubjectStates, after: SubjectsAfter): Map<string, number> {
  const counts = new Map<string, number>();
  const all = new Map([...states, ...after]);
  for (const state of all.values())
    if (state && isThere(state))
      counts.set(slugName(state), (counts.get(slugName(state)) ?? 0) + 1);
  return counts;
}

function checkPlace(state: SubjectState, now: (name: string) => SubjectState | undefined): Issue[] {
  let above = state.parent;
  for (let depth = 0; above !== null; depth++) {
    if (above === state.key)
      return [
        {
          code: 'under-itself',
          path: 'parent',
          message: `${state.name} would stand below itself.`,
          fix: 'Choose one that does not stand below it.',
        },
      ];
    const found: SubjectState | undefined = now(above);
    if (!isThere(found))
      return [
        {
          code: 'unknown-subject',
          path: 'parent',
          message: `What ${state.name} would stand below is not there.`,
          fix: 'Choose another one, or put it at the top.',
        },
      ];
    if (depth >= DEEPEST)
      return [
        {
          code: 'too-deep',
          path: 'parent',
          message: `${state.name} would stand more than ${DEEPEST} deep.`,
          fix: 'Put it higher up.',
        },
      ];
    above = found.parent;
  }
  return [];
}

function wrongSlug(slug: string, path: string): Issue {
  return {
    code: 'wrong-slug',
    path,
    message: `“${slug.slice(0, 60)}” is no word for addresses.`,
    fix: 'Use small letters, digits and single hyphens between them.',
  };
}

function sameSlug({ name, slug }: SubjectState): Issue {
  return {
    code: 'slug-taken',
    path: 'slug',
    message: `${name} would be “${slug}” in addresses, and another one beside it is so.`,
    fix: 'Choose another word, or merge the two.',
  };
}

/** What a change does, as a sentence; `nameOf`: names of others. */
export function describeChange(
  states: SubjectStates,
  after: SubjectsAfter,
  nameOf: (key: string) => string | undefined = (key) => states.get(key)?.name,
): string {
  const name = (of: string): string => nameOf(of) ?? after.get(of)?.name ?? of;
  const going = [...after].filter(([own, state]) => goes(states.get(own), state));
  if (going.length > 0) {
    const [own, state] = going[0]!;
    const who = going.length === 1 ? states.get(own)!.name : `${going.length} subjects`;
    const into = state?.merged ?? null;
    return into === null ? `${who} deleted` : `${who} merged into ${name(into)}`;
  }
  const sentences = [...after].flatMap(([own, state]) =>
    state ? (oneSentence(states.get(own), state, name) ?? []) : [],
  );
  if (sentences.length > 3) return `${sentences.length} subjects changed`;
  return sentences.join('; ') || 'Nothing changed';
}

/** Whether a subject stood for itself and does not any more. */
function goes(was: SubjectState | undefined, state: SubjectState | null): boolean {
  return isThere(was) && (state === null || state.merged !== null);
}

function oneSentence(
  was: SubjectState | undefined,
  state: SubjectState,
  name: (key: string) => string,
): string | null {
  if (!was) return `${state.name} added`;
  if (was.merged !== null) return `${state.name} is one of its own again`;
  if (was.name !== state.name) return `${was.name} renamed to ${state.name}`;
  if (was.parent !== state.parent)
    return state.parent === null
      ? `${state.name} moved to the top`
      : `${state.name} moved below ${name(state.parent)}`;
  if (was.slug !== state.slug)
    return `${state.name}: “${state.slug}” in addresses, was “${was.slug}”`;
  if (was.picture !== state.picture) return `${state.name}: another picture`;
  if (was.description !== state.description) return `${state.name}: another description`;
  const tags = new Set([...Object.keys(was.languages), ...Object.keys(state.languages)]);
  const saidIn = ({ languages }: SubjectState, tag: string): string =>
    JSON.stringify(languages[tag] ?? {});
  const others = [...tags].filter((tag) => saidIn(was, tag) !== saidIn(state, tag));
  if (others.length === 0) return null;
  return `${state.name}: other words in ${others.map(nameOfLanguage).join(', ')}`;
}
