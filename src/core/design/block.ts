import { z } from 'zod';

/** A node of a template. What else it has is said by its kind, in `template/blocks`. */
export interface Block {
  /** Names one of the kinds of block. */
  block: string;
  /** Stays when the block is moved. */
  id?: string | undefined;
  [property: string]: unknown;
}

/** What every block has, whatever its kind. */
export const blockShape: z.ZodType<Block> = z.looseObject({
  block: z.string().min(1),
  id: z.string().max(64).optional(),
});
