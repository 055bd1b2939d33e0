import type { Instant } from '@/core/time/interval.ts';

/** How something stood over a stretch of time; without an end where `to` is null. */
export interface NamedStretch {
  name: string;
  from: Instant;
  to: Instant | null;
}

/** The names of what stood in two ways at once, or ended before it began; sorts the stretches. */
export function overlapping(all: NamedStretch[]): string[] {
  all.sort((a, b) => (a.name === b.name ? a.from - b.from : a.name < b.name ? -1 : 1));
  return all.flatMap(({ name, from, to }, i) => {
    const next = all[i + 1];
    const overlaps = next?.name === name && (to === null || to > next.from);
    return overlaps || (to !== null && to <= from) ? [name] : [];
  });
}
