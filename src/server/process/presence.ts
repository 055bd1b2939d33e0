/** Somebody who has a screen open. */
export interface Present {
  name: string;
  /** Since when, ms UTC. */
  since: number;
  /** Whether they have written something that is not saved. */
  writing: boolean;
}

interface Seen extends Present {
  person: string;
  last: number;
}

/** Who was not heard of for so long has left, ms. */
const GONE_AFTER_MS = 20_000;
/** Windows beyond so many on one thing are not kept in mind. */
const MOST = 100;

/** Who has what open, by the windows they have it open in. */
export class Presence {
  private readonly seen = new Map<string, Map<string, Seen>>();

  /** Notes that a window has something open; gives who else has. */
  note(
    about: string,
    window: string,
    who: { person: string; name: string; writing: boolean },
    now: number,
  ): (Present & { self: boolean })[] {
    const all = this.seen.get(about) ?? new Map<string, Seen>();
    for (const [id, { last }] of all) if (now - last > GONE_AFTER_MS) all.delete(id);
    const since = all.get(window)?.since ?? now;
    if (all.size < MOST || all.has(window)) all.set(window, { ...who, since, last: now });
    this.seen.set(about, all);
    this.sweep(now);
    return [...all]
      .filter(([id]) => id !== window)
      .map(([, { name, person, since: from, writing }]) => ({
        ...{ name, since: from, writing, self: person === who.person },
      }));
  }

  /** Notes that a window was closed, or shows something else. */
  leave(about: string, window: string): void {
    this.seen.get(about)?.delete(window);
  }

  private sweep(now: number): void {
    for (const [about, all] of this.seen)
      if ([...all.values()].every(({ last }) => now - last > GONE_AFTER_MS))
        this.seen.delete(about);
  }
}
