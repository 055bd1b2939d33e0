import type { ItemOffers } from '@/core/template/offers.ts';
import type { TemplateOutcome } from '@/server/queries/template-outcome.ts';
import type { OutlineLine } from '@/core/template/block-tree.ts';

/** What the nearest repetition around a block offers; null where it stands in none. */
export function itemsAround(
  lines: readonly OutlineLine[],
  line: OutlineLine,
  items: TemplateOutcome['items'],
): ItemOffers | null {
  const [holder] = line.list.split('/');
  const outer = lines.find(({ block }) => block?.id === holder);
  if (!outer) return null;
  return items[holder!] ?? itemsAround(lines, outer, items);
}

/** What the repetitions around a block are of, the outermost first. */
export function repeatedAround(lines: readonly OutlineLine[], line: OutlineLine): string[] {
  const [holder] = line.list.split('/');
  const outer = lines.find(({ block }) => block?.id === holder);
  if (!outer) return [];
  const over = outer.block?.block === 'repeat' ? outer.block['over'] : undefined;
  const own = typeof over === 'string' ? [over] : [];
  return [...repeatedAround(lines, outer), ...own];
}
