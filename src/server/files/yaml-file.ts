import {
  type Document,
  LineCounter,
  type Node,
  isAlias,
  isCollection,
  isNode,
  isPair,
  parseDocument,
  visit,
} from 'yaml';
import type { Issue } from '@/core/issue.ts';

/** A YAML or JSON file: its value, and the line of any place in it. */
export interface YamlFile {
  file: string;
  value: unknown;
  /**
   * The line (from 1) of a place given as keys and indexes; that of its nearest known parent
   * otherwise.
   */
  lineOf(path: readonly (string | number)[]): number;
}

/** Reads YAML 1.2 (JSON included). `firstLine` is the line of the text's first line in its file. */
export function readYaml(
  file: string,
  text: string,
  firstLine = 1,
): { yaml: YamlFile | null; issues: Issue[] } {
  const deep = deepLine(text);
  if (deep !== null) return { yaml: null, issues: [tooDeep(file, deep + firstLine - 1)] };
  const { document, lines } = parsed(text);
  const lineAt = (offset: number): number => lines.linePos(offset).line + firstLine - 1;
  const issues = document.errors.map((e): Issue => ({
    code: 'malformed-yaml',
    path: file,
    line: lineAt(e.pos[0]),
    message: `This is not YAML: ${e.message.split('\n')[0]}.`,
    fix: 'Put texts with ":" or "#" in quotes, and indent with spaces.',
  }));
  if (issues.length > 0) return { yaml: null, issues };
  keepAsWritten(document);
  const read = valueOf(document);
  if ('problem' in read) {
    const line = read.offset === null ? firstLine : lineAt(read.offset);
    return { yaml: null, issues: [unreadable(file, line, read.problem)] };
  }
  return {
    // Few are asked for a line: the document is let go, and read again for those.
    yaml: { file, value: read.value, lineOf: (path) => lineOf(text, path, firstLine) },
    issues: [],
  };
}

interface Parsed {
  document: Document.Parsed;
  lines: LineCounter;
}

/** The document that was asked for a line last. */
const LAST: Parsed & { text: string } = { text: '', ...parsed('') };

function parsed(text: string): Parsed {
  const lines = new LineCounter();
  const document = parseDocument(text, {
    lineCounter: lines,
    prettyErrors: false,
    uniqueKeys: true,
    merge: false,
  });
  return { document, lines };
}

/** The plain value of a document, or why it has none and where. */
function valueOf(
  document: Document,
): { value: unknown } | { problem: string; offset: number | null } {
  try {
    checkShape(document);
    return { value: document.toJS({ maxAliasCount: 1000 }) };
  } catch (error) {
    const offset = error instanceof WrongShape ? error.offset : null;
    return { problem: (error as Error).message, offset };
  }
}

function unreadable(path: string, line: number, problem: string): Issue {
  return {
    code: 'malformed-yaml',
    path,
    line,
    message: `This YAML cannot be read: ${problem}.`,
    fix: 'Write values out in place of aliases, and nest less.',
  };
}

const MAX_DEPTH = 100;

class WrongShape extends Error {
  constructor(
    message: string,
    readonly offset: number,
  ) {
    super(message);
  }
}

/**
 * The line at which a text nests deeper than 100, told by its brackets and indentation; null
 * where none does.
 */
function deepLine(text: string): number | null {
  let depth = 0;
  let line = 1;
  let indent = 0;
  let atStart = true;
  for (let i = 0; i < text.length; i++) {
    const c = text[i]!;
    if (c === '\n') {
      line++;
      [indent, atStart] = [0, true];
    } else if (atStart && (c === ' ' || c === '-' || c === '?')) {
      if (++indent > 20 * MAX_DEPTH) return line;
    } else {
      atStart = false;
      if (c === '[' || c === '{') depth++;
      else if ((c === ']' || c === '}') && depth > 0) depth--;
      if (depth > 20 * MAX_DEPTH) return line;
    }
  }
  return null;
}

function tooDeep(path: string, line: number): Issue {
  return {
    code: 'too-deep',
    path,
    line,
    message: `A document nests at most ${MAX_DEPTH} deep.`,
    fix: 'Nest less.',
  };
}

/** @throws WrongShape where values nest too deep, or an alias stands within what it names */
function checkShape(document: Document): void {
  const within: unknown[] = [];
  const walk = (node: unknown, depth: number): void => {
    if (isPair(node)) {
      walk(node.key, depth);
      walk(node.value, depth);
      return;
    }
    const offset = isNode(node) ? (node.range?.[0] ?? 0) : 0;
    if (depth > MAX_DEPTH) throw new WrongShape(`it nests more than ${MAX_DEPTH} deep`, offset);
    if (isAlias(node)) {
      const target: Node | undefined = node.resolve(document);
      if (within.includes(target))
        throw new WrongShape(`the alias "*${node.source}" stands within what it names`, offset);
      walk(target, depth);
    } else if (isCollection(node)) {
      within.push(node);
      for (const item of node.items) walk(item, depth + 1);
      within.pop();
    }
  };
  walk(document.contents, 0);
}

/**
 * "007" and "1.0" stay as they are written, for texts; fields that take numbers read them as
 * such.
 */
function keepAsWritten(document: Document): void {
  visit(document, {
    Scalar(_, node) {
      const { source, value } = node;
      if (
        typeof value === 'number' &&
        source !== undefined &&
        /^[+-]?\d+(\.\d+)?$/.test(source) &&
        String(value) !== source
      )
        node.value = source;
    },
  });
}

function lineOf(text: string, path: readonly (string | number)[], firstLine: number): number {
  if (LAST.text !== text) Object.assign(LAST, { text, ...parsed(text) });
  const { document, lines } = LAST;
  for (let length = path.length; length > 0; length--) {
    const node = document.getIn(path.slice(0, length), true);
    if (isNode(node) && node.range) return lines.linePos(node.range[0]).line + firstLine - 1;
  }
  return firstLine;
}
