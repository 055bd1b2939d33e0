import type { Clock } from '@/server/queries/clock.ts';
import type { PickStretch } from '@/server/queries/picks.ts';
import { instantWords } from '../format.ts';

type When = Pick<Clock, 'at' | 'zone' | 'now'>;

/** When an entry stands in picks: "since 3 Nov, 08:00, until 12 Dec, 08:00"; '' for always. */
export function stretchWords({ from, to }: Omit<PickStretch, 'id' | 'isIn'>, clock: When): string {
  const words = (at: number): string => instantWords(at, clock.zone, clock.now);
  const start = from === null ? '' : `${from <= clock.at ? 'since' : 'from'} ${words(from)}`;
  const end = to === null ? '' : `until ${words(to)}`;
  return [start, end].filter(Boolean).join(', ');
}
