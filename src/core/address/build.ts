import type { TracedPart } from '../pattern/compile.ts';
import { slugRun, trimHyphens } from '../pattern/slug.ts';
import { MAX_PATH_BYTES } from './path.ts';

/** A path, or what stands in its way. */
export type BuiltPath =
  | {
      ok: true;
      path: string;
      /** The expression of whose value transliteration left nothing; null where there is none. */
      nothingLeft: string | null;
    }
  /**
   * `blank`: an expression left a segment blank; `too-long`: the path has more bytes than one may
   * have.
   */
  | { ok: false; why: 'blank' | 'too-long'; expression: string };

/** Longest segment that values stand in, in characters. */
/** The most characters of a segment that is made from values. */
export const MAX_SEGMENT = 120;

interface Segment {
  text: string;
  /** Only an absent path stands in it: the segment goes without a word. */
  absentPath: boolean;
  expression: string | null;
}

/** What a value becomes where transliteration leaves nothing of it. */
export function fallbackSlug(typeKey: string, entryId: string, language: string): string {
  return trimHyphens(slugRun(`${typeKey}-${[...entryId].slice(0, 6).join('')}`, language));
}

/** Puts the pieces of an address pattern's result together as a path in normal form. */
export function buildPath(parts: TracedPart[], language: string, fallback: string): BuiltPath {
  const segments: Segment[] = [];
  let nothingLeft: string | null = null;
  let current: Segment = { text: '', absentPath: false, expression: null };
  const next = (): void => {
    segments.push(current);
    current = { text: '', absentPath: false, expression: null };
  };
  for (const part of parts) {
    if (part.kind === 'left-out') continue;
    if (part.kind === 'value') {
      const slug = slugRun(part.text, language);
      const nothing = trimHyphens(slug) === '' && part.text.trim() !== '';
      if (nothing) nothingLeft = part.expression ?? '';
      current.text += nothing ? fallback : slug;
      current.expression = part.expression ?? null;
      continue;
    }
    if (part.kind === 'path' && part.text === '') current.absentPath = true;
    const keepsSlash = part.kind !== 'path' || current.text !== '';
    const pieces = (keepsSlash ? part.text : part.text.replace(/^\//, '')).split('/');
    pieces.forEach((piece, i) => {
      if (i > 0) next();
      current.text += piece;
    });
  }
  next();
  return joinSegments(segments, nothingLeft);
}

function joinSegments(segments: Segment[], nothingLeft: string | null): BuiltPath {
  const kept: string[] = [];
  const named = segments.find((s) => s.expression !== null)?.expression ?? '/';
  for (const [i, segment] of segments.entries()) {
    const text = cut(trimHyphens(segment.text), segment.expression !== null);
    const outer = (i === 0 || i === segments.length - 1) && segment.expression === null;
    if (text !== '') kept.push(text);
    else if (!segment.absentPath && !outer)
      return { ok: false, why: 'blank', expression: segment.expression ?? '/' };
  }
  if (kept.length === 0) return { ok: false, why: 'blank', expression: named };
  const path = `/${kept.join('/')}`;
  return path.length > MAX_PATH_BYTES
    ? { ok: false, why: 'too-long', expression: named }
    : { ok: true, path, nothingLeft };
}

/** A segment made from values, cut at a hyphen where it is too long. */
function cut(text: string, fromValues: boolean): string {
  if (!fromValues || text.length <= MAX_SEGMENT) return text;
  if (text[MAX_SEGMENT] === '-') return text.slice(0, MAX_SEGMENT);
  const at = text.lastIndexOf('-', MAX_SEGMENT);
  return at > 0 ? text.slice(0, at) : text.slice(0, MAX_SEGMENT);
}
