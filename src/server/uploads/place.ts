import { join } from 'node:path';
import type { Issue, Result } from '@/core/issue.ts';
import { ok, refused } from '@/core/issue.ts';

/** Longest path of a file in a site folder, in UTF-8 bytes, and how deep it may lie. */
const MAX_PATH = 1024;
const MAX_DEPTH = 50;

/**
 * Where a file named by a browser or an archive goes below a folder: never outside it. null for
 * names that start with a dot, which are passed over at any depth.
 */
export function placeIn(folder: string, name: string): Result<string | null> {
  const segments = name.split('/');
  const climbs = segments.some((segment) => segment === '..' || segment === '');
  if (climbs || /[\0\\]|^[a-z]:/i.test(name))
    return refused(unsafe(name, 'leads out of its folder, or is not the name of a file'));
  if (segments.length > MAX_DEPTH || Buffer.byteLength(name) > MAX_PATH)
    return refused(unsafe(name, `is longer than ${MAX_PATH} bytes or deeper than ${MAX_DEPTH}`));
  if (segments.some((segment) => segment.startsWith('.'))) return ok(null);
  return ok(join(folder, ...segments));
}

function unsafe(name: string, what: string): Issue {
  const shown = name.length > 80 ? `${name.slice(0, 80)}…` : name;
  return {
    code: 'unsafe-name',
    path: shown,
    message: `The name "${shown}" ${what}.`,
    fix: 'Name it by letters, digits and hyphens, below the folder of the site.',
  };
}
