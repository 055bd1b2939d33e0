import { MAX_NESTING } from '@/core/rich-text/index.ts';
import { MAX_TEXT } from '@/core/text.ts';

const MAX_MARKS = 50_000;
const MAX_LINES = 20_000;
const MAX_LINKS = 10_000;

/**
 * Why a text is too much for a reader of Markdown, and where: the line from 1; null where it is
 * not.
 */
export function tooMuch(source: string): { line: number; words: string } | null {
  if (source.length > MAX_TEXT)
    return { line: 1, words: `A text has at most ${MAX_TEXT / 1024 / 1024} MB.` };
  const lines = source.split('\n');
  if (lines.length > MAX_LINES)
    return { line: MAX_LINES + 1, words: `A text has at most ${MAX_LINES} lines.` };
  let links = 0;
  let marks = 0;
  const open: number[] = []; // columns at which the content of the list items at hand begins
  for (const [i, line] of lines.entries()) {
    links += line.split('](').length + line.split('][').length - 2;
    if (links > MAX_LINKS)
      return { line: i + 1, words: `A text has at most ${MAX_LINKS} links and pictures.` };
    marks += line.split(/[*_`~[]+/).length - 1;
    if (marks > MAX_MARKS)
      return {
        line: i + 1,
        words: `A text has at most ${MAX_MARKS} stars, brackets and the like.`,
      };
    if (depthOf(line, open) > MAX_NESTING)
      return { line: i + 1, words: `Lists and quotes nest at most ${MAX_NESTING} deep.` };
  }
  return null;
}

/** How deep a line's markers nest: those of its own, on top of the list items it stands in. */
function depthOf(line: string, open: number[]): number {
  let column = 0;
  let quotes = 0;
  for (;;) {
    const rest = line.slice(column);
    const marker = /^([ \t]*)(>|[-*+](?=[ \t]|$)|\d{1,9}[.)](?=[ \t]|$))/.exec(rest);
    if (!marker) return open.length + quotes;
    column += marker[0].length;
    if (marker[2] === '>') quotes++;
    else {
      const start = column - marker[2]!.length;
      while (open.length > 0 && open.at(-1)! > start) open.pop();
      open.push(column + 1);
    }
    if (open.length + quotes > MAX_NESTING) return open.length + quotes;
  }
}
