import { LRUCache } from 'lru-cache';
import type { ListingPlan } from '@/core/listing/plan.ts';
import { type Instant, Validity } from '@/core/time/interval.ts';

/** A stretch of a list, with the stretch of time over which it holds. */
export interface RememberedList {
  ids: string[];
  total: number;
  validity: Validity;
}

const MAX_BYTES = 16 * 1024 * 1024;

/**
 * Lists as they were read last, until the next write or the instant at which they may change;
 * least recently used first out.
 */
export class ListMemory {
  private readonly lists = new LRUCache<string, RememberedList>({
    maxSize: MAX_BYTES,
    sizeCalculation: ({ ids }) => 200 + ids.reduce((sum, id) => sum + 2 * id.length, 0),
  });
  private readonly numbers = new WeakMap<ListingPlan, number>();
  private next = 0;

  /** The stretch as of an instant: as remembered, else read and remembered. */
  list(
    plan: ListingPlan,
    at: Instant,
    stretch: string,
    read: (validity: Validity) => { ids: string[]; total: number },
  ): RememberedList {
    const key = `${this.numberOf(plan)}/${stretch}`;
    const known = this.lists.get(key);
    if (
      known &&
      known.validity.at <= at &&
      (known.validity.until === null || at < known.validity.until)
    )
      return known;
    const validity = new Validity(at);
    const list = { ...read(validity), validity };
    this.lists.set(key, list);
    return list;
  }

  /** Forgets all lists: something was written. */
  clear(): void {
    this.lists.clear();
  }

  private numberOf(plan: ListingPlan): number {
    let number = this.numbers.get(plan);
    if (number === undefined) this.numbers.set(plan, (number = this.next++));
    return number;
  }
}
