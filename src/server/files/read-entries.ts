import { parse as parseCsv } from 'csv-parse/sync';
import type { Issue } from '@/core/issue.ts';
import { type RawEntry, entryForm, idOfPath } from './entry-form.ts';
import { readText } from './read-folder.ts';
import { type YamlFile, readYaml } from './yaml-file.ts';
import { zodIssues } from './read-as.ts';

/**
 * Reads every entry of a site folder as its files give it, one after the other; values are not
 * looked at yet. Gives what is wrong with the files.
 */
export function readEntries(
  folder: string,
  files: string[],
  take: (entry: RawEntry) => void,
): Issue[] {
  return files
    .filter((f) => f.startsWith('entries/'))
    .flatMap((file) => {
      const { entries, issues } = readFile(folder, file);
      entries.forEach(take);
      return issues;
    });
}

type Read = { entries: RawEntry[]; issues: Issue[] };

function readFile(folder: string, file: string): Read {
  const extension = /\.([a-z]+)$/i.exec(file)?.[1]?.toLowerCase() ?? '';
  if (!['md', 'csv', 'json', 'yaml', 'yml'].includes(extension)) {
    return {
      entries: [],
      issues: [
        {
          code: 'unknown-file',
          path: file,
          line: 1,
          message: `Entries are read from .md, .csv, .json and .yaml files, and this is .${extension}.`,
          fix: 'Rename or remove it; pictures belong in media/.',
        },
      ],
    };
  }
  const { text, issues } = readText(folder, file);
  if (text === null) return { entries: [], issues };
  if (extension === 'md') return readMarkdown(file, text);
  return extension === 'csv' ? readTable(file, text) : readData(file, text);
}

/** `entries/variety/early/pea.md` → type `variety`, id `variety/early/pea`. */
function identity(file: string): { type: string; id: string } {
  const path = file.slice('entries/'.length).replace(/\.[a-z]+$/i, '');
  return { type: path.split('/')[0]!, id: idOfPath(path) };
}

function readMarkdown(file: string, text: string): Read {
  const lines = text.split(/\r?\n/);
  const isMark = (line: string): boolean => /^---[ \t]*$/.test(line);
  const end = isMark(lines[0]!) ? lines.findIndex((line, i) => i > 0 && isMark(line)) : -1;
  if (end < 0)
    return {
      entries: [],
      issues: [
        {
          code: 'front-matter',
          path: file,
          line: 1,
          message:
            'A Markdown entry starts with front matter between two lines "---", and this one does not, or does not end it.',
          fix: 'Start the file with "---", the fields, and "---" on a line of its own.',
        },
      ],
    };
  const read = readYaml(file, lines.slice(1, end).join('\n'), 2);
  if (!read.yaml) return { entries: [], issues: read.issues };
  const body = { text: lines.slice(end + 1).join('\n'), line: end + 2 };
  return entryOf(read.yaml, read.yaml.value ?? {}, [], identity(file), body);
}

function readData(file: string, text: string): Read {
  const { yaml, issues } = readYaml(file, text);
  if (!yaml) return { entries: [], issues };
  const { type, id } = identity(file);
  if (!Array.isArray(yaml.value)) return entryOf(yaml, yaml.value, [], { type, id }, null);
  const reads = yaml.value.map((value, i) =>
    entryOf(yaml, value, [i], { type, id: `${id}#${String(i + 1).padStart(6, '0')}` }, null),
  );
  return { entries: reads.flatMap((r) => r.entries), issues: reads.flatMap((r) => r.issues) };
}

function entryOf(
  yaml: YamlFile,
  value: unknown,
  at: number[],
  { type, id }: { type: string; id: string },
  body: RawEntry['body'],
): Read {
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    return { entries: [], issues: [noFields(yaml.file, yaml.lineOf(at))] };
  const { entry: rawForm = {}, ...fields } = value as Record<string, unknown>;
  const parsed = entryForm.safeParse(rawForm ?? {});
  if (!parsed.success)
    return {
      entries: [],
      issues: zodIssues(parsed.error, {
        ...yaml,
        lineOf: (path) => yaml.lineOf([...at, 'entry', ...path]),
      }),
    };
  return {
    entries: [
      {
        file: yaml.file,
        lineOf: (path) => yaml.lineOf([...at, ...path]),
        defaultId: id,
        type: parsed.data.type ?? type,
        form: parsed.data,
        fields,
        body,
      },
    ],
    issues: [],
  };
}

function noFields(path: string, line: number): Issue {
  const message = 'An entry is written as fields with their values.';
  return { code: 'wrong-form', path, line, message, fix: 'Write "title: …" and so on.' };
}

function readTable(file: string, text: string): Read {
  let rows: { record: Record<string, string>; info: { lines: number } }[];
  try {
    rows = parseCsv(text, {
      columns: (names: string[]) => once(names),
      bom: true,
      info: true,
      skip_empty_lines: true,
      trim: true,
    }) as never;
  } catch (error) {
    const { lines } = error as { lines?: number };
    return {
      entries: [],
      issues: [
        {
          code: 'malformed-csv',
          path: file,
          line: lines ?? 1,
          message: `This is not CSV: ${(error as Error).message.replace(/ on line \d+.*/, '')}.`,
          fix: 'Give every row as many cells as the first line, and put quotes around cells with commas.',
        },
      ],
    };
  }
  const { type, id } = identity(file);
  const reads = rows.map(({ record, info }, i) =>
    rowOf(file, info.lines, record, type, `${id}#${String(i + 1).padStart(6, '0')}`),
  );
  return { entries: reads.flatMap((r) => r.entries), issues: reads.flatMap((r) => r.issues) };
}

/** @throws Error where a column stands twice */
function once(names: string[]): string[] {
  const again = names.find((name, i) => name !== '' && names.indexOf(name) !== i);
  if (again !== undefined) throw new Error(`the column "${again}" stands twice`);
  return names;
}

function rowOf(
  file: string,
  line: number,
  record: Record<string, string>,
  type: string,
  id: string,
): Read {
  const form: Record<string, unknown> = {};
  const fields: Record<string, unknown> = {};
  for (const [name, cell] of Object.entries(record)) {
    if (cell === '') continue;
    if (!name.startsWith('entry.')) fields[name] = cell;
    else form[name.slice('entry.'.length)] = name === 'entry.live' ? cell.split(';') : cell;
  }
  const parsed = entryForm.safeParse(form);
  if (!parsed.success)
    return {
      entries: [],
      issues: zodIssues(parsed.error, { file, value: form, lineOf: () => line }),
    };
  return {
    entries: [
      {
        file,
        lineOf: () => line,
        defaultId: id,
        type: parsed.data.type ?? type,
        form: parsed.data,
        fields,
        body: null,
      },
    ],
    issues: [],
  };
}
