import { LineCounter, parseDocument, isNode, visit, type Document } from 'yaml';
import type { Issue } from '@/core/issue.ts';

/** A YAML or JSON file: its value, and the line of any place in it. */
export interface YamlFile {
  file: string;
  value: unknown;
  /** The line (from 1) of a place given as keys and indexes; that of its nearest known parent otherwise. */
  lineOf(path: readonly (string | number)[]): number;
}

/** Reads YAML 1.2 (JSON included). `firstLine` is the line of the text's first line in its file. */
export function readYaml(
  file: string,
  text: string,
  firstLine = 1,
): { yaml: YamlFile | null; issues: Issue[] } {
  const lines = new LineCounter();
  const document = parseDocument(text, {
    lineCounter: lines,
    prettyErrors: false,
    uniqueKeys: true,
    merge: false,
  });
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
  let value: unknown;
  try {
    value = document.toJS({ maxAliasCount: 100 });
  } catch (error) {
    return {
      yaml: null,
      issues: [
        {
          code: 'malformed-yaml',
          path: file,
          line: firstLine,
          message: `This YAML cannot be read: ${(error as Error).message}.`,
          fix: 'Write values out in place of aliases.',
        },
      ],
    };
  }
  return {
    yaml: { file, value, lineOf: (path) => lineOf(document, path, lineAt, firstLine) },
    issues: [],
  };
}

/** "007" and "1.0" stay as they are written, for texts; fields that take numbers read them as such. */
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

function lineOf(
  document: Document,
  path: readonly (string | number)[],
  lineAt: (offset: number) => number,
  firstLine: number,
): number {
  for (let length = path.length; length > 0; length--) {
    const node = document.getIn(path.slice(0, length), true);
    if (isNode(node) && node.range) return lineAt(node.range[0]);
  }
  return firstLine;
}
