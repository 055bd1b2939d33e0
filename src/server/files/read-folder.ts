import { readFileSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import type { Issue } from '@/core/issue.ts';
import { compareCodePoints } from '@/core/text.ts';

/** Largest text file read, in bytes. */
const MAX_TEXT = 64 * 1024 * 1024;

/**
 * The files below a folder by their path in it (with "/"), in the order of those paths; and what
 * is neither file nor folder.
 */
export function listFiles(folder: string): { files: string[]; issues: Issue[] } {
  const files: string[] = [];
  const issues: Issue[] = [];
  const walk = (place: string): void => {
    const path = join(folder, place);
    for (const entry of readdirSync(path, { withFileTypes: true })) {
      if (entry.name.startsWith('.')) continue;
      const name = place === '' ? entry.name : `${place}/${entry.name}`;
      if (entry.isDirectory()) walk(name);
      else if (entry.isFile()) files.push(name);
      else issues.push(neither(name, entry.isSymbolicLink()));
    }
  };
  walk('');
  return { files: files.sort(compareCodePoints), issues };
}

function neither(path: string, isLink: boolean): Issue {
  return {
    code: 'unknown-file',
    path,
    line: 1,
    message: isLink
      ? 'This is a symbolic link, and a site folder holds files only.'
      : 'This is no file.',
    fix: isLink ? 'Put the file itself here.' : 'Take it out of the folder.',
  };
}

/** The file of YAML, of which JSON is a part, that a folder has under a name; else undefined. */
export function dataFile(files: readonly string[], name: string): string | undefined {
  return ['yaml', 'yml', 'json'].map((end) => `${name}.${end}`).find((f) => files.includes(f));
}

/** Reads a text file as UTF-8; an issue where it is too large, not UTF-8 or unreadable. */
export function readText(folder: string, file: string): { text: string | null; issues: Issue[] } {
  const path = join(folder, file);
  try {
    if (statSync(path).size > MAX_TEXT)
      return fail(file, `The file is larger than ${MAX_TEXT / 1024 / 1024} MB.`, 'Split it.');
    return {
      // The decoder passes over a byte-order mark at the beginning.
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
