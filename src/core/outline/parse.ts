import type { TextRange } from '../issue.ts';

/** Something named in an outline, with what stands in brackets after it. */
export interface Named {
  name: string;
  /** What the brackets hold, in pieces between commas; empty where there are none. */
  said: string[];
  /** The fields of a group, behind a colon in the brackets: `rowers (group: name, seat)`. */
  fields: Named[];
  /** Where it stands in the text, brackets included. */
  range: TextRange;
}

/** A line of an outline: a type and its fields. */
export interface OutlineLine extends Named {
  /** The whole line. */
  line: TextRange;
}

/**
 * Takes an outline apart: a type a line, as `Variety: title, sow from (date), saved by (→ Grower)`.
 * Fields may also stand below, indented or with a dash each. Nothing is refused; blank lines are
 * passed over.
 */
export function parseOutline(text: string): OutlineLine[] {
  const lines: OutlineLine[] = [];
  let from = 0;
  for (const line of text.split('\n')) {
    const range = { start: from, end: from + line.length };
    from = range.end + 1;
    if (line.trim() === '') continue;
    const mark = /^\s*(?:[-*•]\s+|\d+[.)]\s+)?/.exec(line)![0];
    const rest = { start: range.start + mark.length, end: range.end };
    const isBelow = mark !== '' && lines.length > 0 && outside(text, rest, ':').length === 0;
    if (isBelow) lines.at(-1)!.fields.push(...fieldsIn(text, rest));
    else lines.push(lineOf(text, rest));
  }
  return lines;
}

function fieldsIn(text: string, range: TextRange): Named[] {
  return pieces(text, range)
    .map((piece) => namedAt(text, piece))
    .filter(({ name }) => name !== '');
}

function lineOf(text: string, line: TextRange): OutlineLine {
  const colon = outside(text, line, ':')[0] ?? line.end;
  return {
    ...namedAt(text, { start: line.start, end: colon }),
    line,
    fields: fieldsIn(text, { start: Math.min(colon + 1, line.end), end: line.end }),
  };
}

/** A name and what is said of it in brackets behind it. */
function namedAt(text: string, range: TextRange): Named {
  const part = text.slice(range.start, range.end);
  const open = part.indexOf('(');
  const name = (open < 0 ? part : part.slice(0, open)).trim();
  const lead = part.length - part.trimStart().length;
  const trimmed = { start: range.start + lead, end: range.start + part.trimEnd().length };
  if (open < 0) return { name, said: [], fields: [], range: trimmed };
  const close = part.lastIndexOf(')');
  const inner = part.slice(open + 1, close > open ? close : undefined);
  const [group, kind] = GROUP.exec(inner) ?? [];
  const said = (kind ?? inner)
    .split(',')
    .map((piece) => piece.trim())
    .filter((piece) => piece !== '');
  const start = range.start + open + 1;
  const within = { start: start + (group?.length ?? 0), end: start + inner.length };
  return { name, said, fields: group === undefined ? [] : fieldsIn(text, within), range: trimmed };
}

/** What is said of a group before its fields: "group:", "several groups:". */
const GROUP = /^([^:(]*\bgroups?\b[^:(]*):/i;

/** The stretches between commas that stand in no brackets. */
function pieces(text: string, range: TextRange): TextRange[] {
  const commas = outside(text, range, ',');
  return [...commas, range.end].map((end, i) => ({
    start: i === 0 ? range.start : commas[i - 1]! + 1,
    end,
  }));
}

/** Where a character stands outside of brackets. */
function outside(text: string, { start, end }: TextRange, wanted: string): number[] {
  const found: number[] = [];
  let depth = 0;
  for (let i = start; i < end; i++) {
    if (text[i] === '(') depth += 1;
    else if (text[i] === ')') depth = Math.max(0, depth - 1);
    else if (depth === 0 && text[i] === wanted) found.push(i);
  }
  return found;
}
