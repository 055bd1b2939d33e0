import { z } from 'zod';
import { key } from './key.ts';
import type { Instant } from '../time/interval.ts';
import type { Values } from './values-of.ts';

/** Under this id, which no field can have, a revision holds what its entry has otherwise. */
export const PRESETS = '_presets';

/** Dates that a byline can show. */
export const SHOWN_DATES = ['none', 'published', 'updated'] as const;
/** Which date a byline shows. */
export type ShownDate = (typeof SHOWN_DATES)[number];

/**
 * What entries of a type begin with: whether bylines show who wrote them, and which date; what
 * they stand in.
 */
export const typePresetsSpec = z.strictObject({
  author: z.boolean().default(false),
  date: z.enum(SHOWN_DATES).default('none'),
  /** Keys of the picks that new entries join. */
  picks: z.array(key).max(50).optional(),
  /** Whether listings show them; left out where no entry can be kept out of listings. */
  listed: z.boolean().optional(),
});

/** What an entry has otherwise than its type: what is left out is as the type has it. */
export const presetsSpec = z.strictObject({
  author: z.boolean().optional(),
  date: z.enum(SHOWN_DATES).optional(),
  /** Says something only where its type says something of it. */
  listed: z.boolean().optional(),
  /** Id of the page template that it has in place of its type's own, where its type offers that. */
  template: key.optional(),
  index: z.boolean().optional(),
  follow: z.boolean().optional(),
  sitemap: z.boolean().optional(),
});
/** All or some of what entries begin with. */
export type Presets = z.output<typeof presetsSpec>;

/** What a byline reads of an entry. */
interface Shown {
  type: { presets: z.output<typeof typePresetsSpec> };
  values: Values;
  author: string;
  published: Instant | null;
  updated: Instant | null;
}

/** What an entry has otherwise than its type, of a revision's values. */
export function ownPresets(values: Values): Presets {
  const own = values[PRESETS];
  if (own === undefined || own === null) return {};
  const read = presetsSpec.safeParse(own);
  return read.success ? read.data : {};
}

/** Whether listings show an entry, where their conditions let it in. */
export function isListed({ type, values }: Pick<Shown, 'type' | 'values'>): boolean {
  const { listed } = type.presets;
  return listed === undefined || (ownPresets(values).listed ?? listed);
}

/** Who wrote an entry, where its byline says so; null where it does not. */
export function shownAuthor({
  type,
  values,
  author,
}: Pick<Shown, 'type' | 'values' | 'author'>): string | null {
  return (ownPresets(values).author ?? type.presets.author) ? author : null;
}

/** The date that an entry's byline shows; null where it shows none. */
export function shownDate({ type, values, published, updated }: Shown): Instant | null {
  return dateShown(values, type.presets.date, { published, updated });
}

/** As `shownDate`, of a revision's values; `preset` is what its type shows. */
export function dateShown(
  values: Values,
  preset: ShownDate,
  times: Pick<Shown, 'published' | 'updated'>,
): Instant | null {
  const which = ownPresets(values).date ?? preset;
  return which === 'none' ? null : times[which];
}
