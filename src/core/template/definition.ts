import { z } from 'zod';
import type { Block } from '../design/block.ts';
import type { BlockCompiler, Render } from './context.ts';

/** Names a class for the style sheet. */
const style = z
  .string()
  .regex(/^[a-z][a-z0-9-]*$/, 'A style is small letters, digits and hyphens.')
  .optional();
/** Words before what a block shows. */
export const label = z.string().optional();
/** Words above what a block shows. */
export const heading = z.string().optional();

type Given<S extends z.ZodRawShape> = z.output<z.ZodObject<S>> & { style?: string | undefined };

/**
 * What a property of a block names: by a pattern, the inside of its braces, or the key of
 * something.
 */
export type Holds =
  | 'pattern'
  | 'expression'
  | 'field'
  | 'inner'
  | 'listing'
  | 'picks'
  | 'template'
  | 'entry'
  | 'filter';

/** One kind of block, with everything that belongs to it. */
export interface BlockKind {
  block: string;
  /** As screens name it. */
  label: string;
  /** What it shows, in a sentence. */
  doc: string;
  /** Set where it stands in frames alone, or in menus: which take nothing else. */
  in?: 'frame' | 'menu';
  /** Set where pages do better with it by the script of pages. */
  scripted?: true;
  /** The stored form, defaults filled in on reading. */
  spec: z.ZodObject;
  /** Which of its properties name something else of the site, alone or in a list. */
  holds: Readonly<Record<string, Holds>>;
  compile: (block: never, c: BlockCompiler) => Render;
  /** What a block makes of the entry that the tests draw. */
  example: { block: Block; html: string };
}

/** A kind of block from its own properties; `block`, `id` and `style` are every block's. */
export function defineBlock<S extends z.ZodRawShape>(kind: {
  block: string;
  label: string;
  doc: string;
  in?: 'frame' | 'menu';
  scripted?: true;
  spec: S;
  holds?: Partial<Record<keyof S, Holds>>;
  compile: (block: Given<S>, c: BlockCompiler) => Render;
  example: BlockKind['example'];
}): BlockKind {
  const shape: z.ZodRawShape = {
    block: z.literal(kind.block),
    id: z.string().max(64).optional(),
    ...kind.spec,
    ...(kind.in === 'menu' ? {} : { style }),
  };
  const spec = z.strictObject(shape);
  const holds = (kind.holds ?? {}) as BlockKind['holds'];
  return { ...kind, spec, holds, compile: kind.compile as BlockKind['compile'] };
}
