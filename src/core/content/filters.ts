import { z } from 'zod';
import { filterSpec } from '../design/listing-spec.ts';

/** What the content table is narrowed down by, and its order, as addresses and requests give it. */
export const contentFilters = z.object({
  /** Key of a type; all where left out. */
  type: z.string().max(64).optional(),
  search: z.string().max(1000).optional(),
  state: z.string().max(64).optional(),
  /** Conditions on columns by their names: see `contentColumns`. */
  where: filterSpec.optional(),
  /**
   * Name of a column, "-" before it turns it round. Where left out: what fits a search best, else
   * what was saved last.
   */
  sort: z.string().max(80).optional(),
});
/** What the content table is narrowed down by, and its order. */
export type ContentFilters = z.output<typeof contentFilters>;

/** Filters as they stand in the address bar; what cannot be read counts as left out. */
export function readFilters(search: Record<string, string | undefined>): ContentFilters {
  const given = Object.keys(contentFilters.shape).flatMap((name) => {
    const text = search[name];
    if (!text) return [];
    const value = readFilter(name as keyof ContentFilters, text);
    return value === undefined ? [] : [[name, value]];
  });
  return Object.fromEntries(given) as ContentFilters;
}

/** One filter of the address bar, whatever somebody wrote there. */
function readFilter(name: keyof ContentFilters, text: string): unknown {
  try {
    const value: unknown = name === 'where' ? JSON.parse(text) : text;
    const read = contentFilters.shape[name].safeParse(value);
    return read.success ? read.data : undefined;
  } catch {
    return undefined; // no JSON, or deeper than can be read
  }
}
