import { z } from 'zod';
import { give } from './give.ts';
import { publish, retire } from './publish.ts';
import { remove } from './remove.ts';
import { addSubject, setValue, takeSubject } from './set-value.ts';

/** Everything that can be done to many entries, by name. */
export const BULK_DEEDS = {
  publish,
  retire,
  setValue,
  addSubject,
  takeSubject,
  give,
  remove,
} as const;
/** The name of something that can be done to many entries. */
export type BulkDeedName = keyof typeof BULK_DEEDS;

const named = <N extends BulkDeedName>(name: N) =>
  z.strictObject({ do: z.literal(name), ...BULK_DEEDS[name].input.shape });

/** What is to be done to many entries: the name, and what it takes. */
export const bulkDo = z.discriminatedUnion('do', [
  named('publish'),
  named('retire'),
  named('setValue'),
  named('addSubject'),
  named('takeSubject'),
  named('give'),
  named('remove'),
]);
/** What is to be done to many entries. */
export type BulkDo = z.output<typeof bulkDo>;
