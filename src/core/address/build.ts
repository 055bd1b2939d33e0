import type { TracedPart } from '../pattern/compile.ts';
import { slugRun, trimHyphens } from '../pattern/slug.ts';

/** A path, or the expression that left a segment blank. */
export type BuiltPath = { ok: true; path: string } | { ok: false; blank: string };

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
  let current: Segment = { text: '', absentPath: false, expression: null };
  const next = (): void => {
    segments.push(current);
    current = { text: '', absentPath: false, expression: null };
  };
  for (const part of parts) {
    if (part.kind === 'left-out') continue;
    if (part.kind === 'value') {
      const slug = slugRun(part.text, language);
      current.text += trimHyphens(slug) === '' && part.text.trim() !== '' ? fallback : slug;
      current.expression = part.expression ?? null;
      continue;
    }
    if (part.kind === 'path' && part.text === '') current.absentPath = true;
    const pieces = (
      part.kind === 'path' && current.text === '' ? part.text.replace(/^\//, '') : part.text
    ).split('/');
    pieces.forEach((piece, i) => {
      if (i > 0) next();
      current.text += piece;
    });
  }
  next();
  return joinSegments(segments);
}

function joinSegments(segments: Segment[]): BuiltPath {
  const kept: string[] = [];
  for (const [i, segment] of segments.entries()) {
    const text = trimHyphens(segment.text);
    const outer = (i === 0 || i === segments.length - 1) && segment.expression === null;
    if (text !== '') kept.push(text);
    else if (!segment.absentPath && !outer) return { ok: false, blank: segment.expression ?? '/' };
  }
  if (kept.length === 0)
    return { ok: false, blank: segments.find((s) => s.expression !== null)?.expression ?? '/' };
  return { ok: true, path: `/${kept.join('/')}` };
}
