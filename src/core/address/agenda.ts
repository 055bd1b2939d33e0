import type { Instant } from '../time/interval.ts';
import type { TimelineEvents } from './model.ts';

/** Who is to be looked at when, in the order of time; some are found on the way. */
export class Agenda {
  /** A heap by instant, the earliest first, each instant once. */
  private readonly heap: Instant[] = [];
  private readonly entries = new Map<Instant, Set<string>>();

  constructor(events: TimelineEvents) {
    for (const [at, ids] of events) for (const id of ids) this.add(at, id);
  }

  /** Has an entry looked at, at an instant. */
  add(at: Instant, entry: string): void {
    const known = this.entries.get(at);
    if (known) return void known.add(entry);
    this.entries.set(at, new Set([entry]));
    const { heap } = this;
    let i = heap.push(at) - 1;
    for (let up = (i - 1) >> 1; i > 0 && heap[up]! > at; i = up, up = (i - 1) >> 1)
      heap[i] = heap[up]!;
    heap[i] = at;
  }

  /** The next instant, with whoever is to be looked at then; null where nothing is left. */
  take(): { at: Instant; ids: ReadonlySet<string> } | null {
    const { heap } = this;
    const [at] = heap;
    if (at === undefined) return null;
    const last = heap.pop()!;
    if (heap.length > 0) this.sink(last);
    const ids = this.entries.get(at)!;
    this.entries.delete(at);
    return { at, ids };
  }

  private sink(at: Instant): void {
    const { heap } = this;
    let i = 0;
    for (;;) {
      let down = 2 * i + 1;
      if (down + 1 < heap.length && heap[down + 1]! < heap[down]!) down++;
      if (down >= heap.length || heap[down]! >= at) break;
      heap[i] = heap[down]!;
      i = down;
    }
    heap[i] = at;
  }
}
