import type { z } from 'zod';
import type { Issue } from '@/core/issue.ts';
import { readText } from './read-folder.ts';
import { type YamlFile, readYaml } from './yaml-file.ts';

/** A file's value, and its places; both null where the file has another form. */
export type ReadAs<T> =
  { value: T; yaml: YamlFile; issues: [] } | { value: null; yaml: null; issues: Issue[] };

/** Reads a YAML or JSON file of a form; what is wrong is named by file and line. */
export function readAs<T>(folder: string, file: string, schema: z.ZodType<T>): ReadAs<T> {
  const wrong = (issues: Issue[]): ReadAs<T> => ({ value: null, yaml: null, issues });
  const { text, issues } = readText(folder, file);
  if (text === null) return wrong(issues);
  const read = readYaml(file, text);
  if (!read.yaml) return wrong(read.issues);
  const parsed = schema.safeParse(read.yaml.value);
  if (!parsed.success) return wrong(zodIssues(parsed.error, read.yaml));
  return { value: parsed.data, yaml: read.yaml, issues: [] };
}

/** A schema's complaints with file and line. */
export function zodIssues(error: z.ZodError, yaml: YamlFile): Issue[] {
  return error.issues.map((issue) => {
    const inner = issue.code === 'invalid_union' ? issue.errors.flat()[0] : undefined;
    const path = [...issue.path, ...(inner?.path ?? [])] as (string | number)[];
    const where = path.length > 0 ? `${path.join('.')}: ` : '';
    return {
      code: 'wrong-form',
      path: yaml.file,
      line: yaml.lineOf(path),
      message: `${where}${inner?.message ?? issue.message}.`.replace('..', '.'),
      fix: 'docs/site-folder.md and schemas/ give the form.',
    };
  });
}
