import { z } from 'zod';
import { BLOCK_CHOICES, MARK_CHOICES } from '../rich-text/index.ts';
import { STYLED, type StyledSort, namedLookSpec } from '../style/named-look.ts';
import { key } from './key.ts';
import { NARROWED } from './roles.ts';
import { sentence } from './words.ts';

const choices = (all: readonly { type: string }[]): z.ZodType<string[] | undefined> =>
  z.array(z.enum(all.map(({ type }) => type))).optional();

/**
 * What rich texts may hold, under a name that fields choose it by; of what is left out all may
 * stand.
 */
export const textFormSpec = z
  .strictObject({
    id: key.optional(),
    key,
    label: z.string().optional(),
    /** Types of marks, and of blocks and pictures. */
    marks: choices(MARK_CHOICES),
    blocks: choices(BLOCK_CHOICES),
    /** Levels of headings. */
    levels: z.array(z.int().min(1).max(6)).optional(),
    /** Keys of the content types whose values may stand in the text. */
    parts: z.array(key).max(50).optional(),
    /** Keys of the styles that may be used. */
    styles: z.array(key).max(50).optional(),
    /** By role, the key of a form that narrows this one: those may put in what both let in. */
    roles: z.partialRecord(z.enum(NARROWED), key).optional(),
  })
  .transform(({ id, key: own, label: name, ...rest }) => ({
    id: id ?? own,
    key: own,
    label: name ?? sentence(own),
    ...rest,
  }));
/** A form of texts as a design has it. */
export type TextFormSpec = z.output<typeof textFormSpec>;

const SORTS = Object.keys(STYLED) as [StyledSort, ...StyledSort[]];

/** A style by name, which the style sheet draws as `.style-KEY`. */
export const styleSpec = z
  .strictObject({
    id: key.optional(),
    key,
    label: z.string().optional(),
    /** What it is for. */
    on: z.enum(SORTS),
    /** What it looks like; the style sheet's own rules may say more. */
    look: namedLookSpec.optional(),
  })
  .transform(({ id, key: own, label: name, on, look }) => ({
    id: id ?? own,
    key: own,
    label: name ?? sentence(own),
    on,
    ...(look ? { look } : {}),
  }));
