import { LRUCache } from 'lru-cache';
import type { ListingPlan } from '@/core/listing/plan.ts';
import { type Instant, Validity } from '@/core/time/interval.ts';

/** What was read of a list, with the stretch of time over which it holds. */
export interface Remembered<T> {
  value: T;
  validity: Validity;
}

/** A stretch of a list, and how many it has in all. */
export interface ListStretch {
  ids: string[];
  total: number;
}

const MAX_BYTES = 16 * 1024 * 1024;

/**
 * Lists as they were read last, until the next write or the instant at which they may change;
 * least recently used first out.
 */
export class ListMemory {
  private readonly lists = new LRUCache<string, Remembered<unknown>>({ maxSize: MAX_BYTES });
  private readonly numbers = new WeakMap<ListingPlan, number>();
  private next = 0;

  /** The stretch as of an instant: as remembered, else read and remembered. */
  list(
    plan: ListingPlan,
    at: Instant,
    stretch: string,
    read: (validity: Validity) => ListStretch,
  ): Remembered<ListStretch> {
    const bytes = ({ ids }: ListStretch): number => ids.reduce((sum, id) => sum + 2 * id.length, 0);
    return this.recall(plan, at, stretch, read, bytes);
  }

  /** Anything else that is read of a list, by a name of its own, likewise. */
  recall<T>(
    plan: ListingPlan,
    at: Instant,
    name: string,
    read: (validity: Validity) => T,
    bytes?: (value: T) => number,
  ): Remembered<T> {
    return this.remember(`${this.numberOf(plan)}/${name}`, at, read, bytes);
  }

  /** Anything that lists are read with. */
  remember<T>(
    name: string,
    at: Instant,
    read: (validity: Validity) => T,
    bytes: (value: T) => number = () => 0,
  ): Remembered<T> {
    const known = this.lists.get(name) as Remembered<T> | undefined;
    if (
      known &&
      known.validity.at <= at &&
      (known.validity.until === null || at < known.validity.until)
    )
      return known;
    const validity = new Validity(at);
    const value = read(validity);
    const made = { value, validity };
    this.lists.set(name, made, { size: 200 + 2 * name.length + bytes(value) });
    return made;
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

/** What is remembered; since and until when it holds is told. */
export function told<T>({ value, validity: own }: Remembered<T>, validity: Validity): T {
  validity.tell(own.until);
  validity.tell(own.since);
  return value;
}
