import { z } from 'zod';
import { FORMAT_NAMES } from '../design/media-formats.ts';

/** What media are looked for. */
export const mediaFilters = z.object({
  words: z.string().max(200).default(''),
  /** Of these formats only. */
  formats: z.array(z.enum(FORMAT_NAMES)).max(20).nullable().default(null),
  /** At most so many kilobytes of 1,000 bytes. */
  maxKilobytes: z.int().min(1).nullable().default(null),
  /** Those that need something: an alternative text, or a use. */
  lacking: z.enum(['alt', 'use']).nullable().default(null),
  sort: z.enum(['newest', 'name', 'largest']).default('newest'),
});
/** What media are looked for. */
export type MediaFilters = z.output<typeof mediaFilters>;
