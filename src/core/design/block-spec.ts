import { z } from 'zod';

/** A node of a template. `style` names a class for the style sheet. */
export type Block =
  | { block: 'heading'; text: string; level: number; link: boolean; style?: string }
  | { block: 'text'; text: string; style?: string }
  | { block: 'richText'; field: string; style?: string }
  | { block: 'picture'; field: string; width: number; style?: string }
  | { block: 'date'; field: string; format: string; label?: string; style?: string }
  | { block: 'link'; to: string; text: string; style?: string }
  | { block: 'fieldSheet'; fields: string[]; style?: string }
  | { block: 'subjects'; field: string; label?: string; style?: string }
  | { block: 'columns'; columns: Block[][]; style?: string }
  | {
      block: 'group';
      as: 'div' | 'section' | 'aside' | 'nav' | 'header' | 'footer';
      blocks: Block[];
      label?: string;
      style?: string;
    }
  | { block: 'listing'; listing: string; limit?: number; heading?: string; style?: string }
  | { block: 'cards'; field: string; card?: string; heading?: string; style?: string }
  | { block: 'pageLinks'; style?: string }
  | { block: 'months'; from: string; until: string; label?: string; style?: string }
  | { block: 'slot'; slot: string };

const style = z
  .string()
  .regex(/^[a-z][a-z0-9-]*$/)
  .optional();
const heading = z.string().optional();
const label = z.string().optional();
const as = z.enum(['div', 'section', 'aside', 'nav', 'header', 'footer']).default('div');

export const blockSpec: z.ZodType<Block> = z.lazy(() =>
  z.discriminatedUnion('block', [
    z.strictObject({
      block: z.literal('heading'),
      text: z.string(),
      level: z.int().min(1).max(6).default(2),
      link: z.boolean().default(false),
      style,
    }),
    z.strictObject({ block: z.literal('text'), text: z.string(), style }),
    z.strictObject({ block: z.literal('richText'), field: z.string(), style }),
    z.strictObject({
      block: z.literal('picture'),
      field: z.string(),
      width: z.int().min(16).max(2400).default(800),
      style,
    }),
    z.strictObject({
      block: z.literal('date'),
      field: z.string(),
      format: z.string().default('medium'),
      label,
      style,
    }),
    z.strictObject({ block: z.literal('link'), to: z.string(), text: z.string(), style }),
    z.strictObject({ block: z.literal('fieldSheet'), fields: z.array(z.string()).min(1), style }),
    z.strictObject({ block: z.literal('subjects'), field: z.string(), label, style }),
    z.strictObject({
      block: z.literal('columns'),
      columns: z.array(z.array(blockSpec)).min(1).max(6),
      style,
    }),
    z.strictObject({ block: z.literal('group'), as, blocks: z.array(blockSpec), label, style }),
    z.strictObject({
      block: z.literal('listing'),
      listing: z.string(),
      limit: z.int().min(1).max(200).optional(),
      heading,
      style,
    }),
    z.strictObject({
      block: z.literal('cards'),
      field: z.string(),
      card: z.string().optional(),
      heading,
      style,
    }),
    z.strictObject({ block: z.literal('pageLinks'), style }),
    z.strictObject({
      block: z.literal('months'),
      from: z.string(),
      until: z.string(),
      label,
      style,
    }),
    z.strictObject({ block: z.literal('slot'), slot: z.string() }),
  ]),
);
