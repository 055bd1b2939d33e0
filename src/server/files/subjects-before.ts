import type { Design } from '@/core/design/spec.ts';
import type { SavedHistory } from './read-history.ts';

/** The subjects that were there once, by the keys that their sets have now. */
export function subjectsBefore(
  { subjectSets }: Design,
  history: SavedHistory | null,
): { set: string; key: string }[] {
  const keys = new Map(subjectSets.map(({ key, id }) => [id, key]));
  return (history?.subjects ?? []).map(({ set, key }) => ({ set: keys.get(set) ?? set, key }));
}
