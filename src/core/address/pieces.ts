import type { TracedPart } from '../pattern/compile.ts';
import { slugRun, trimHyphens } from '../pattern/slug.ts';

/**
 * A piece of a path, with the expression it came from; null for what stands in the pattern or was
 * added.
 */
export interface PathPiece {
  text: string;
  expression: string | null;
}

/** A path cut into the pieces it was made of, in order: together they are the path. */
export function pathPieces(
  path: string,
  parts: readonly TracedPart[],
  language: string,
): PathPiece[] {
  const pieces: PathPiece[] = [];
  let pos = 0;
  const take = (end: number, expression: string | null): void => {
    if (end > pos) pieces.push({ text: path.slice(pos, end), expression });
    pos = Math.max(pos, end);
  };
  for (const part of parts) {
    if (part.kind === 'left-out' || part.text === '') continue;
    const text = part.kind === 'value' ? trimHyphens(slugRun(part.text, language)) : part.text;
    const at = text === '' ? -1 : path.indexOf(text, pos);
    if (at < 0) continue;
    take(at, null);
    take(at + text.length, part.kind === 'literal' ? null : (part.expression ?? null));
  }
  take(path.length, null);
  return pieces;
}
