import { z } from 'zod';
import { blockShape } from '../design/block.ts';
import type { BlockKind, Holds } from './definition.ts';
import { sentence } from '../design/words.ts';

/** What a property of a block is set by. */
export type PanelControl =
  | Holds
  | 'words'
  | 'number'
  | 'switch'
  | 'choice'
  /** Blocks within the block: in one list, or in several side by side. */
  | 'blocks';

/** A property of a kind of block, as its panel shows it. */
export interface PanelProperty {
  name: string;
  label: string;
  control: PanelControl;
  /** Whether it holds several, each of them as the control says. */
  many: boolean;
  required: boolean;
  /** What it is where nothing is said; null where it is nothing. */
  otherwise: unknown;
  /** Of a choice. */
  options: readonly string[];
  /** Of a number. */
  min: number | null;
  max: number | null;
}

/** The properties of a kind of block, in their order: they follow from its form. */
export function panelOf(kind: BlockKind): PanelProperty[] {
  return Object.entries(kind.spec.shape as Record<string, z.ZodType>)
    .filter(([name]) => name !== 'block' && name !== 'id')
    .map(([name, schema]) => propertyOf(name, schema, kind.holds[name]));
}

function propertyOf(name: string, schema: z.ZodType, holds: Holds | undefined): PanelProperty {
  const label = schema.meta()?.title ?? sentence(name);
  let inner = schema;
  let otherwise: unknown = null;
  let required = true;
  while (inner instanceof z.ZodOptional || inner instanceof z.ZodDefault) {
    if (inner instanceof z.ZodDefault) otherwise = inner.def.defaultValue;
    required = false;
    inner = inner.def.innerType as z.ZodType;
  }
  const many = inner instanceof z.ZodArray && inner.element !== blockShape;
  const one = many ? ((inner as z.ZodArray).element as z.ZodType) : inner;
  const isNumber = one instanceof z.ZodNumber;
  return {
    ...{ name, label, many, required, otherwise },
    control: holds ?? controlOf(one),
    options: one instanceof z.ZodEnum ? (one.options as string[]) : [],
    min: isNumber ? one.minValue : null,
    max: isNumber ? one.maxValue : null,
  };
}

function controlOf(schema: z.ZodType): PanelControl {
  if (schema instanceof z.ZodArray) return 'blocks';
  if (schema instanceof z.ZodEnum) return 'choice';
  if (schema instanceof z.ZodBoolean) return 'switch';
  return schema instanceof z.ZodNumber ? 'number' : 'words';
}
