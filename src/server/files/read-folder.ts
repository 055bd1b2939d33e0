import { readFileSync, readdirSync, statSync } from 'node:fs';
import { join, relative, sep } from 'node:path';
import type { Issue } from '@/core/issue.ts';
import { compareCodePoints } from '@/core/text.ts';

/** Largest text file read, in bytes. */
const MAX_TEXT = 256 * 1024 * 1024;

/** The files below a folder by their path in it (with "/"), in the order of those paths. */
export function listFiles(folder: string): string[] {
  return readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((f) => f.isFile() && !f.name.startsWith('.'))
    .map((f) => relative(folder, join(f.parentPath, f.name)).split(sep).join('/'))
    .sort(compareCodePoints);
}

/** Reads a text file as UTF-8; an issue where it is too large, not UTF-8 or unreadable. */
export function readText(folder: string, file: string): { text: string | null; issues: Issue[] } {
  const path = join(folder, file);
  try {
    if (statSync(path).size > MAX_TEXT)
      return fail(file, `The file is larger than ${MAX_TEXT / 1024 / 1024} MB.`, 'Split it.');
    return {
      text: new TextDecoder('utf-8', { fatal: true }).decode(readFileSync(path)),
      issues: [],
    };
  } catch (error) {
    if (error instanceof TypeError)
      return fail(file, 'The file is not UTF-8 text.', 'Save it as UTF-8.');
    return fail(
      file,
      `The file cannot be read: ${(error as NodeJS.ErrnoException).code ?? 'unknown reason'}.`,
      'Check its permissions.',
    );
  }
}

function fail(path: string, message: string, fix: string): { text: null; issues: Issue[] } {
  return { text: null, issues: [{ code: 'unreadable-file', path, line: 1, message, fix }] };
}
