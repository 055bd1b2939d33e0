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
/** What is to be done to many entries: the name, and what it takes. */
export const bulkDo = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('publish'), ...publish.input.shape }),
  z.strictObject({ do: z.literal('retire'), ...retire.input.shape }),
  z.strictObject({ do: z.literal('setValue'), ...setValue.input.shape }),
  z.strictObject({ do: z.literal('addSubject'), ...addSubject.input.shape }),
  z.strictObject({ do: z.literal('takeSubject'), ...takeSubject.input.shape }),
  z.strictObject({ do: z.literal('give'), ...give.input.shape }),
  z.strictObject({ do: z.literal('remove'), ...remove.input.shape }),
]);
