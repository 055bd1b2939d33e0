import { z } from 'zod';
import { presetsSpec } from '@/core/design/presets.ts';
import type { Issue } from '@/core/issue.ts';
import { idOfPath } from './entry-form.ts';
import { readAs } from './read-as.ts';

/** What stands under `starter:` in a file of a starter: everything that is not a field. */
const starterForm = z.strictObject({
  id: z
    .string()
    .regex(/^[A-Za-z0-9][A-Za-z0-9._-]*$/)
    .max(64)
    .optional(),
  name: z.string().trim().min(1).max(200),
  /** Who saved it last, and when; an instant. */
  author: z.string().max(200).default(''),
  saved: z.string().optional(),
  /** Id of a type that the design of the folder does not have any more. */
  typeId: z.string().max(64).optional(),
  /** What it has otherwise than its type presets. */
  presets: presetsSpec.optional(),
  /** Values by field id, as they are stored. */
  stored: z.record(z.string().max(64), z.json()).default({}),
});

/** A file of a starter: `starter`, and fields by their keys. */
export const starterFile = z.looseObject({ starter: starterForm });

/** A starter as its file gives it. */
export interface RawStarter {
  file: string;
  lineOf(path: readonly (string | number)[]): number;
  id: string;
  /** Key of the type: the folder that the file stands in. */
  type: string;
  form: z.output<typeof starterForm>;
  fields: Record<string, unknown>;
}

/** Reads every starter of a site folder; gives what is wrong with the files. */
export function readStarters(
  folder: string,
  files: readonly string[],
  take: (starter: RawStarter) => void,
): Issue[] {
  return files
    .filter((f) => f.startsWith('starters/'))
    .flatMap((file) => {
      const read = readAs(folder, file, starterFile);
      if (!read.yaml) return read.issues;
      const { starter: form, ...fields } = read.value;
      const [, type = '', ...name] = file.replace(/\.[a-z]+$/i, '').split('/');
      const id = form.id ?? idOfPath(name.join('-')).slice(0, 64);
      take({ file, lineOf: (path) => read.yaml.lineOf(path), id, type, form, fields });
      return [];
    });
}
