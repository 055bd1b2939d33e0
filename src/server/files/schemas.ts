import { richTextSchema } from '@/core/rich-text/index.ts';
import { designSchemas } from './read-design.ts';

/** The JSON Schemas that are shipped, by name: of the files of a design, and of rich text. */
export function shippedSchemas(): Record<string, unknown> {
  return { ...designSchemas(), 'rich-text': richTextSchema() };
}
