/** Half-open range of UTF-16 code units in a text. */
export interface TextRange {
  start: number;
  end: number;
}

/**
 * Something a person can cause and mend. `code` is stable; `message` says what and why in plain
 * words.
 */
export interface Issue {
  code: string;
  /** Where in the site: `types/variety/seo/title`, say; or a file of a site folder. */
  path?: string;
  /** Line in that file, from 1. */
  line?: number;
  /** Place within the pattern or text at `path`. */
  range?: TextRange;
  message: string;
  /** What to do about it, where known: a sentence. */
  fix?: string;
  /** Text to put at `range` instead, where a single replacement would mend it. */
  replacement?: string;
  /** Both values, in words, where somebody else set another meanwhile. */
  values?: { yours: string; theirs: string };
}

/** Either a value, or what stands in its way; never both. */
export type Result<T> = { ok: true; value: T } | { ok: false; issues: Issue[] };

/** A successful result. */
export function ok<T>(value: T): Result<T> {
  return { ok: true, value };
}

/** A refused result. */
export function refused(...issues: Issue[]): { ok: false; issues: Issue[] } {
  return { ok: false, issues };
}

/** The same issues, told from a place further out. */
export function at(path: string, issues: Issue[]): Issue[] {
  return issues.map((issue) => ({ ...issue, path: issue.path ? `${path}/${issue.path}` : path }));
}
