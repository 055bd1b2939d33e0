import { readFile, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { parse as csvStream } from 'csv-parse';
import { parse as parseToml } from 'smol-toml';
import type { Issue } from '@/core/issue.ts';
import type { SourceRecord } from '@/core/intake/record.ts';
import { MAX_JSON_DEPTH, jsonDepth } from '@/core/json-depth.ts';
import { textStream } from './text-stream.ts';
import { readYaml } from './yaml-file.ts';

/** A record, or why something of a file is none. */
export type RecordRead = { record: SourceRecord } | { issue: Issue };

const MOST_BYTES = 64 * 1024 * 1024;
/** Formats of files that records are read from, by their endings. */
const READERS: Record<string, (folder: string, file: string) => AsyncGenerator<RecordRead>> = {
  md: markdown,
  markdown,
  mdx: markdown,
  csv: table,
  tsv: table,
  json: data,
  yaml: data,
  yml: data,
  ndjson: lines,
  jsonl: lines,
};

/** Whether records are read from files that are called so. */
export function holdsRecords(file: string): boolean {
  return endingOf(file) in READERS;
}

/**
 * Reads what other tools made, file after file, one record at a time: Markdown with front matter in
 * YAML, TOML or JSON; tables; lists of objects. A table of any length takes no more room than a row.
 */
export async function* readRecords(
  folder: string,
  files: readonly string[],
): AsyncGenerator<RecordRead> {
  for (const file of files) {
    const read = READERS[endingOf(file)];
    if (read) yield* read(folder, file);
  }
}

function endingOf(file: string): string {
  return /\.([a-z]+)$/i.exec(file)?.[1]?.toLowerCase() ?? '';
}

async function* table(folder: string, file: string): AsyncGenerator<RecordRead> {
  const { stream, delimiter, tell } = await textStream(join(folder, file));
  const rows = stream.pipe(
    csvStream({
      ...{ delimiter, bom: true, info: true, trim: true, skip_empty_lines: true },
      ...{ relax_column_count: true, relax_quotes: true, max_record_size: 4 * 1024 * 1024 },
    }),
  );
  try {
    yield* rowsOf(file, rows as AsyncIterable<Row>);
    const told = tell();
    if (told !== null) yield { issue: notRead(file, 1, told, 'Save it as UTF-8 to be sure.') };
  } catch (error) {
    const { lines: line = 1 } = error as { lines?: number };
    const why = (error as Error).message.replace(/ on line \d+.*/, '');
    yield { issue: notRead(file, line, `This is not a table: ${why}.`, PUT_QUOTES) };
  }
}

interface Row {
  record: string[];
  info: { lines: number };
}

async function* rowsOf(file: string, rows: AsyncIterable<Row>): AsyncGenerator<RecordRead> {
  let names: string[] | null = null;
  let n = 0;
  for await (const { record: cells, info } of rows) {
    if (names === null) {
      names = cells;
      const issue = wrongHead(file, names);
      if (issue) return yield { issue };
      continue;
    }
    n += 1;
    const line = info.lines;
    if (cells.length > names.length) {
      const words = `has ${cells.length} cells, and the first line names ${names.length} columns`;
      yield { issue: notRead(file, line, `The row ${words}.`, PUT_QUOTES) };
      continue;
    }
    const source = `${file}#${String(n).padStart(6, '0')}`;
    const filled = names.flatMap((name, i) => (cells[i] ? [[name, cells[i]] as const] : []));
    yield { record: { source, line, values: Object.fromEntries(filled), body: null } };
  }
}

const PUT_QUOTES = 'Put quotes around cells that hold commas, and double quotes within them.';

/** Why the first line of a table names no columns; null where it does. */
function wrongHead(file: string, names: readonly string[]): Issue | null {
  const again = names.find((name, i) => name !== '' && names.indexOf(name) !== i);
  if (again !== undefined)
    return notRead(file, 1, `The column “${again}” stands twice.`, 'Rename one of them.');
  if (names.every((name) => name === ''))
    return notRead(file, 1, 'The first line names no columns.', 'Put their names into it.');
  return null;
}

async function* markdown(folder: string, file: string): AsyncGenerator<RecordRead> {
  const { text, issue } = await wholeText(folder, file);
  if (text === null) return yield { issue: issue! };
  const front = frontMatter(file, text);
  if ('issue' in front) return yield front;
  const { values, rest, line } = front;
  if (!isObject(values)) return yield { issue: noFields(file, 1) };
  yield { record: { source: file, line: 1, values, body: { text: rest, line } } };
}

type Front = { values: unknown; rest: string; line: number } | { issue: Issue };

/** What stands in front of a text: YAML between `---`, TOML between `+++`, or a JSON object. */
function frontMatter(file: string, text: string): Front {
  const fence = /^(---|\+\+\+)[ \t]*\r?\n/.exec(text);
  if (fence) {
    const mark = fence[1] === '---' ? '(?:---|\\.\\.\\.)' : '\\+\\+\\+';
    const close = new RegExp(`^${mark}[ \\t]*(?:\\r?\\n|$)`, 'm');
    const inner = text.slice(fence[0].length);
    const end = close.exec(inner);
    if (!end)
      return {
        issue: notRead(
          file,
          1,
          `The front matter does not end: there is no second “${fence[1]}”.`,
          'End it.',
        ),
      };
    const source = inner.slice(0, end.index);
    const line = 2 + source.split('\n').length;
    const rest = inner.slice(end.index + end[0].length);
    if (fence[1] === '+++') return toml(file, source, { rest, line });
    const { yaml, issues } = readYaml(file, source, 2);
    return yaml ? { values: yaml.value ?? {}, rest, line } : { issue: issues[0]! };
  }
  const object = /^\{[ \t]*\r?\n[\s\S]*?\n\}[ \t]*(?:\r?\n|$)/.exec(text);
  if (!object) return { values: {}, rest: text, line: 1 };
  try {
    const line = 1 + object[0].split('\n').length - 1;
    return { values: JSON.parse(object[0]), rest: text.slice(object[0].length), line };
  } catch {
    return { values: {}, rest: text, line: 1 };
  }
}

function toml(file: string, source: string, after: { rest: string; line: number }): Front {
  try {
    return { values: plainDates(parseToml(source)), ...after };
  } catch (error) {
    const { line = 1, message } = error as Error & { line?: number };
    const why = message.split('\n')[0]!.replace(/^Invalid TOML document: /, '');
    return { issue: notRead(file, line + 1, `The front matter is not TOML: ${why}.`, 'Mend it.') };
  }
}

/** Dates as texts: TOML has a type for them. */
function plainDates(value: unknown): unknown {
  if (value instanceof Date) return value.toISOString();
  if (Array.isArray(value)) return value.map(plainDates);
  if (!isObject(value)) return value;
  return Object.fromEntries(Object.entries(value).map(([key, inner]) => [key, plainDates(inner)]));
}

async function* data(folder: string, file: string): AsyncGenerator<RecordRead> {
  const { text, issue } = await wholeText(folder, file);
  if (text === null) return yield { issue: issue! };
  const { yaml, issues } = readYaml(file, text);
  if (!yaml) return yield { issue: issues[0]! };
  const found = recordsIn(yaml.value);
  if (!found) return yield { issue: noFields(file, 1) };
  for (const [i, values] of found.entries()) {
    const source = found.length === 1 ? file : `${file}#${String(i + 1).padStart(6, '0')}`;
    if (isObject(values)) yield { record: { source, line: 1, values, body: null } };
    else yield { issue: noFields(file, 1) };
  }
}

/** The objects of a file: a list of them, the one list within it, or what it is itself. */
function recordsIn(value: unknown): unknown[] | null {
  if (Array.isArray(value)) return value;
  if (!isObject(value)) return null;
  const lists = Object.values(value).filter(
    (inner) => Array.isArray(inner) && inner.length > 0 && inner.every(isObject),
  ) as unknown[][];
  return lists.length === 1 ? lists[0]! : [value];
}

/** One JSON object in each line. */
async function* lines(folder: string, file: string): AsyncGenerator<RecordRead> {
  const { text, issue } = await wholeText(folder, file);
  if (text === null) return yield { issue: issue! };
  for (const [i, line] of text.split('\n').entries()) {
    if (line.trim() === '') continue;
    const values = jsonOf(line);
    if (!isObject(values)) yield { issue: noFields(file, i + 1) };
    else {
      const source = `${file}#${String(i + 1).padStart(6, '0')}`;
      yield { record: { source, line: i + 1, values, body: null } };
    }
  }
}

function jsonOf(text: string): unknown {
  try {
    return jsonDepth(text) > MAX_JSON_DEPTH ? null : JSON.parse(text);
  } catch {
    return null;
  }
}

async function wholeText(
  folder: string,
  file: string,
): Promise<{ text: string | null; issue: Issue | null }> {
  const path = join(folder, file);
  if ((await stat(path)).size > MOST_BYTES) {
    const issue = notRead(
      file,
      1,
      'The file is larger than 64 MB.',
      'Split it, or make a table of it.',
    );
    return { text: null, issue };
  }
  try {
    return {
      text: new TextDecoder('utf-8', { fatal: true }).decode(await readFile(path)),
      issue: null,
    };
  } catch {
    return {
      text: null,
      issue: notRead(file, 1, 'The file is not UTF-8 text.', 'Save it as UTF-8.'),
    };
  }
}

function isObject(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

function noFields(file: string, line: number): Issue {
  return notRead(file, line, 'There are no keys with values here.', 'A record is an object.');
}

function notRead(path: string, line: number, message: string, fix: string): Issue {
  return { code: 'not-read', path, line, message, fix };
}
