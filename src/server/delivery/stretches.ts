import type { ListingPlan } from '@/core/listing/plan.ts';
import type { ReadSet, StretchRead } from '@/core/forecast/read-set.ts';
import { readKey } from '@/core/forecast/read-set.ts';
import type { Instant } from '@/core/time/interval.ts';

/** A stretch of a listing as it is now. */
export interface StretchNow {
  ids: readonly string[];
  total: number;
  until: Instant | null;
}

/** What the cache of pages asks of the site to learn whether lists are as they were. */
export interface ListNow {
  read: (stretch: StretchRead, now: Instant) => StretchNow;
  /** Ids of the types whose entries decide which entries a stretch has. */
  typesOf: (stretch: StretchRead) => readonly string[];
}

/** A stretch as it was read last; `asked` where it is to be read again before it is believed. */
interface Known {
  now: StretchNow;
  asked: boolean;
}

/** So many stretches are remembered; past them all are forgotten, and read anew when asked for. */
const MOST = 20_000;

/**
 * The stretches of listings that cached pages show. What is written of a type says only that its
 * lists may have changed: each is read once again when a page that shows it is asked for.
 */
export class Stretches {
  private readonly known = new Map<string, Known>();
  /** Designs have listings of their own: their plans are told apart by numbers. */
  private readonly plans = new WeakMap<ListingPlan, number>();
  private planned = 0;
  private readonly ofType = new Map<string, Set<string>>();

  constructor(private readonly listNow: ListNow) {}

  /** Notes the stretches that a page just made shows, where all of them was asked for. */
  note({ stretches }: ReadSet): void {
    for (const [name, stretch] of stretches) {
      const { ids, total, until } = stretch;
      if (total !== null) this.know(name, stretch, { ids, total, until });
    }
  }

  /** Whether the stretches that a page shows are as they were when it was made. */
  hold({ stretches }: ReadSet, now: Instant): boolean {
    for (const [name, stretch] of stretches)
      if (!isSame(stretch, this.current(name, stretch, now))) return false;
    return true;
  }

  /** Says what changed: lists of the types in it are read again. */
  changed(keys: readonly string[]): void {
    for (const key of keys)
      for (const name of this.ofType.get(key) ?? []) {
        const known = this.known.get(name);
        if (known) known.asked = true;
      }
  }

  /** Forgets everything. */
  clear(): void {
    this.known.clear();
    this.ofType.clear();
  }

  private current(name: string, stretch: StretchRead, now: Instant): StretchNow {
    const known = this.known.get(this.of(name, stretch));
    if (known && !known.asked) return known.now;
    const fresh = this.listNow.read(stretch, now);
    this.know(name, stretch, fresh);
    return fresh;
  }

  private of(name: string, { plan }: StretchRead): string {
    let number = this.plans.get(plan);
    if (number === undefined) this.plans.set(plan, (number = this.planned += 1));
    return `${number}/${name}`;
  }

  private know(shown: string, stretch: StretchRead, now: StretchNow): void {
    if (this.known.size >= MOST) this.clear();
    const name = this.of(shown, stretch);
    this.known.set(name, { now, asked: false });
    for (const id of this.listNow.typesOf(stretch)) {
      const key = readKey.type(id);
      const names = this.ofType.get(key);
      if (names) names.add(name);
      else this.ofType.set(key, new Set([name]));
    }
  }
}

function isSame(was: StretchRead, { ids, total, until }: StretchNow): boolean {
  return (
    (was.total === null || was.total === total) &&
    was.until === until &&
    was.ids.length === ids.length &&
    was.ids.every((id, i) => id === ids[i])
  );
}
