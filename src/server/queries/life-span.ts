import type { Instant } from '@/core/time/interval.ts';

/** A stretch of an entry's life; planned where it starts ahead of now. */
export interface LifeSpan {
  from: Instant;
  to: Instant | null;
  revision: number;
}
