/** Something that another tool made: a file with front matter, a row of a table, an object. */
export interface SourceRecord {
  /** Path of its file below the folder, with "/"; of one among several with "#" and its number. */
  source: string;
  /** Line in its file, from 1. */
  line: number;
  /** What it says, by the names of keys or columns. */
  values: Record<string, unknown>;
  /** Markdown below the front matter, and the line it begins at; null where it has none. */
  body: { text: string; line: number } | null;
}

/** Keys that every record of a file has besides its own: its path, its heading, its text. */
export const OWN_KEYS = {
  path: '@path',
  heading: '@heading',
  body: '@body',
} as const;

/** A file's path as an address: without its ending, and without `index` at its end. */
export function pathOf({ source }: Pick<SourceRecord, 'source'>): string {
  const path = source.replace(/#\d+$/, '').replace(/\.[a-z0-9]+$/i, '');
  return `/${path.replace(/(^|\/)(index|readme)$/i, '')}`.replace(/\/$/, '') || '/';
}

/** The first heading of a text, where the text begins with it, and the text without it. */
export function headingOf(text: string): { heading: string | null; rest: string } {
  const found = /^\s*#[ \t]+(.+?)[ \t]*#*[ \t]*(?:\n|$)/.exec(text);
  const under = found ? null : /^\s*([^\n#>*\-\s][^\n]*)\n=+[ \t]*(?:\n|$)/.exec(text);
  const match = found ?? under;
  if (!match) return { heading: null, rest: text };
  return { heading: match[1]!.replace(/[*_`]/g, '').trim(), rest: text.slice(match[0].length) };
}

/** A value by the name of its key, those of `OWN_KEYS` included; undefined where there is none. */
export function valueAt(record: SourceRecord, key: string): unknown {
  if (key === OWN_KEYS.path) return pathOf(record);
  if (key === OWN_KEYS.body) return record.body?.text;
  if (key === OWN_KEYS.heading) return headingOf(record.body?.text ?? '').heading ?? undefined;
  return Object.hasOwn(record.values, key) ? record.values[key] : undefined;
}
