import { z } from 'zod';
import { templateSpec } from '../design/spec.ts';
import { BLOCKS } from './blocks/index.ts';

/**
 * The form of a template's file with every kind of block spelt out: for JSON Schemas and editors.
 */
export function templateFileSpec(): z.ZodType {
  const block: z.ZodType = z.lazy(() =>
    z.discriminatedUnion('block', BLOCKS.map((kind) => kind.spec) as never),
  );
  const shape = (templateSpec.in as z.ZodObject).shape;
  return z.strictObject({
    ...shape,
    blocks: z.array(block),
    slots: z.record(z.string(), z.array(block)).optional(),
  });
}
