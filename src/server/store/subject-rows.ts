import type { WordsByTag } from '@/core/design/subject-words.ts';

/** What is read of a subject as it stood. */
export const SUBJECT_COLUMNS =
  'key, name, slug, description, picture, parent, merged, languages' as const;

/** The same as it is stored. */
export interface SubjectRow {
  key: string;
  name: string;
  slug: string;
  description: string;
  picture: string | null;
  parent: string | null;
  merged: string | null;
  /** JSON; null where no further language says anything of it. */
  languages: string | null;
}

/** A stored subject with what further languages say of it. */
export function subjectOf<Row extends Pick<SubjectRow, 'languages'>>(
  row: Row,
): Omit<Row, 'languages'> & { languages: WordsByTag } {
  const { languages } = row;
  return { ...row, languages: languages === null ? {} : (JSON.parse(languages) as WordsByTag) };
}

/** A subject as it is stored. */
export function subjectRow<State extends { languages: WordsByTag }>(
  state: State,
): Omit<State, 'languages'> & { languages: string | null } {
  const { languages } = state;
  const isSaid = Object.keys(languages).length > 0;
  return { ...state, languages: isSaid ? JSON.stringify(languages) : null };
}
