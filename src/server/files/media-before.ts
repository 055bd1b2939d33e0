import type { Issue } from '@/core/issue.ts';
import type { SavedHistory } from './read-history.ts';
import { type MediaFiles, type ReadMedia, aboutOf } from './read-media.ts';
import { overlapping } from './stretches.ts';

/**
 * All media as a saved site has them: those of now since when they are so, and what was before
 * them. What history.yaml says of files that are not there is an issue each.
 */
export function mediaOverTime(
  { media, byPath }: MediaFiles,
  { media: before, mediaSince }: SavedHistory,
): { media: ReadMedia[]; issues: Issue[] } {
  const since = new Map(mediaSince.map((line) => [line.id, line]));
  const all = media.map((now) => {
    const { from = now.from, author = null } = since.get(now.id) ?? {};
    return { ...now, from, author };
  });
  const issues: Issue[] = [];
  for (const { id, from, to, author, file, ...about } of before) {
    const found = byPath.get(file);
    if (!found) issues.push(wrong(`The file "${file}" of the medium "${id}" is not there.`));
    else {
      const { path: source, ...kept } = found;
      all.push({ id, ...kept, ...aboutOf(about), source, from, to, author });
    }
  }
  const stretches = all.map(({ id, from, to }) => ({ name: id, from, to }));
  for (const name of overlapping(stretches))
    issues.push(wrong(`The medium "${name}" was otherwise at one time than it can have been.`));
  return { media: all, issues };
}

function wrong(message: string): Issue {
  return {
    code: 'wrong-history',
    path: 'history.yaml',
    line: 1,
    message,
    fix: 'Save the site again; or take the lines of this medium out of history.yaml.',
  };
}
