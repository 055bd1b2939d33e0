import type { Design } from '@/core/design/spec.ts';
import type { Issue } from '@/core/issue.ts';
import { BEGINNING } from '@/core/time/interval.ts';
import type { SubjectToLoad } from './read-design.ts';
import type { SavedHistory } from './read-history.ts';
import { overlapping } from './stretches.ts';

/** The subjects that were there once, by the keys that their sets have now. */
export function subjectsBefore(
  { subjectSets }: Design,
  history: SavedHistory | null,
): { set: string; key: string }[] {
  const keys = new Map(subjectSets.map(({ key, id }) => [id, key]));
  return (history?.subjects ?? []).map(({ set, key }) => ({ set: keys.get(set) ?? set, key }));
}

/** What a history says of subjects that cannot have been: one stood as two at once, or backwards. */
export function wrongSubjects(
  { subjectSets }: Design,
  subjects: readonly SubjectToLoad[],
  { subjects: before, subjectsSince }: SavedHistory,
): Issue[] {
  const ids = new Map(subjectSets.map(({ key, id }) => [key, id]));
  const since = new Map(subjectsSince.map(({ set, key, from }) => [`${set}/${key}`, from]));
  const now = subjects.map(({ set, key }) => {
    const name = `${ids.get(set) ?? set}/${key}`;
    return { name, from: since.get(name) ?? BEGINNING, to: null };
  });
  const all = [
    ...now,
    ...before.map(({ set, key, from, to }) => ({ name: `${set}/${key}`, from, to })),
  ];
  return overlapping(all).map((name) => ({
    code: 'wrong-history',
    path: 'history.yaml',
    line: 1,
    message: `The subject ${name} stood otherwise at one time than it can have.`,
    fix: 'Save the site again; or take the lines of this subject out of history.yaml.',
  }));
}
