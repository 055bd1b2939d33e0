import { richTextSchema } from '@/core/rich-text/index.ts';
import { z } from 'zod';
import { designSchemas } from './read-design.ts';
import { starterFile } from './read-starters.ts';

/** The JSON Schemas that are shipped, by name: of the files of a design, starters, rich text. */
export function shippedSchemas(): Record<string, unknown> {
  const starter = z.toJSONSchema(starterFile, { io: 'input', unrepresentable: 'any' });
  return { ...designSchemas(), starter, 'rich-text': richTextSchema() };
}
