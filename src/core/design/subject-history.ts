import { BEGINNING, type Instant, type Interval, type Validity, covers } from '../time/interval.ts';
import type { SpokenSubject } from './subject-words.ts';

/** A subject as it stood over a stretch of time; those of one key do not overlap. */
export interface SubjectVersion extends Omit<SpokenSubject, 'set'>, Interval {
  /** Key of the subject that it is one with; null where it stands for itself. */
  merged: string | null;
}

/** A subject set as of an instant. */
export interface SubjectsNow {
  /** What a key stands for, one that was merged into another included; null where nothing is. */
  get(key: string): SpokenSubject | null;
  /** All that stand for themselves, in their order. */
  all(): SpokenSubject[];
  /** Every key that counts as a subject: its own, those merged into it, and all below it. */
  keysWithin(key: string): string[];
  /** Keys that something stood for, and nothing does any more. */
  gone(): string[];
}

/** Pages this many deep below each other, and chains of merged ones, end there. */
const DEEPEST = 50;
/** So many stretches are kept put together: a set of ten thousand is large. */
const MOST_STATES = 8;

/**
 * All that a subject set was and is. Any instant can be asked about; what is asked of one stretch
 * between two changes is put together once.
 */
export class SubjectHistory {
  private readonly byKey = new Map<string, SubjectVersion[]>();
  /** Instants at which something changes, ascending. */
  readonly changes: Instant[];
  /** Those at which other keys count as one, or less do. */
  private readonly shapes: Instant[];
  private readonly states = new Map<number, SetState>();

  /** `versions`: in the order of their places. */
  constructor(
    private readonly set: string,
    versions: readonly SubjectVersion[],
  ) {
    for (const version of versions) {
      const known = this.byKey.get(version.key);
      if (known) known.push(version);
      else this.byKey.set(version.key, [version]);
    }
    this.changes = sorted(versions.flatMap(({ from, to }) => [from, to]));
    const named = new Set(versions.flatMap(({ parent, merged }) => [parent, merged]));
    this.shapes = sorted([...this.byKey].flatMap(([key, own]) => shapesOf(own, named.has(key))));
  }

  /** The set as of an instant. */
  at(at: Instant): SubjectsNow {
    const place = placeOf(this.changes, at);
    let state = this.states.get(place);
    if (state) return state;
    if (this.states.size >= MOST_STATES) this.states.clear();
    this.states.set(place, (state = new SetState(this.set, this.byKey, at)));
    return state;
  }

  /** Tells since when, and until when, a key has stood for what it stands for. */
  tell(key: string, validity: Validity): void {
    let next: string | null = key;
    for (let i = 0; next !== null && i < DEEPEST; i++) {
      const own: SubjectVersion[] = this.byKey.get(next) ?? [];
      for (const { from, to } of own) for (const bound of [from, to]) validity.tell(bound);
      next = own.find((version) => covers(version, validity.at))?.merged ?? null;
    }
  }

  /** Tells since when, and until when, the same keys have counted as each other. */
  tellShape(validity: Validity): void {
    tellAround(this.shapes, validity);
  }

  /** Tells since when, and until when, all of them have been what they are. */
  tellAll(validity: Validity): void {
    tellAround(this.changes, validity);
  }
}

function tellAround(instants: readonly Instant[], validity: Validity): void {
  const place = placeOf(instants, validity.at);
  validity.tell(instants[place - 1] ?? null);
  validity.tell(instants[place] ?? null);
}

/** How many of some ascending instants are at or before one. */
function placeOf(instants: readonly Instant[], at: Instant): number {
  let [low, high] = [0, instants.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (instants[middle]! <= at) low = middle + 1;
    else high = middle;
  }
  return low;
}

function sorted(instants: readonly (Instant | null)[]): Instant[] {
  const all = instants.filter((at) => at !== null && at !== BEGINNING);
  return [...new Set(all as Instant[])].sort((a, b) => a - b);
}

/** When a subject began or ceased to count as others, or went. */
function shapesOf(versions: readonly SubjectVersion[], isNamed: boolean): (Instant | null)[] {
  const own = versions.toSorted((a, b) => a.from - b.from);
  return own.flatMap((version, i) => {
    const before = own[i - 1];
    const joins = before?.to === version.from;
    // One at the top that nobody had, or names, so far changes nothing of the others.
    const begins = joins
      ? before.parent !== version.parent || before.merged !== version.merged
      : version.parent !== null || version.merged !== null || i > 0 || isNamed;
    const ends = own[i + 1]?.from !== version.to;
    return [begins ? version.from : null, ends ? version.to : null];
  });
}

class SetState implements SubjectsNow {
  private readonly subjects = new Map<string, SpokenSubject>();
  private readonly merged = new Map<string, string>();
  private readonly below = new Map<string, string[]>();
  private readonly dead: string[] = [];
  private readonly within = new Map<string, string[]>();

  constructor(set: string, byKey: ReadonlyMap<string, readonly SubjectVersion[]>, at: Instant) {
    const under = (above: string, key: string): void => {
      const known = this.below.get(above);
      if (known) known.push(key);
      else this.below.set(above, [key]);
    };
    for (const [key, versions] of byKey) {
      const version = versions.find((v) => covers(v, at));
      if (!version) {
        if (versions.some(({ from }) => from <= at)) this.dead.push(key);
        continue;
      }
      const { name, slug, description, picture, parent, merged, languages } = version;
      if (merged === null)
        this.subjects.set(key, {
          ...{ set, key, name, slug, description, picture, parent },
          languages,
        });
      else this.merged.set(key, merged);
      const above = merged ?? parent;
      if (above !== null) under(above, key);
    }
  }

  get(key: string): SpokenSubject | null {
    let next = key;
    for (let i = 0; i < DEEPEST; i++) {
      const into = this.merged.get(next);
      if (into === undefined) return this.subjects.get(next) ?? null;
      next = into;
    }
    return null;
  }

  all(): SpokenSubject[] {
    return [...this.subjects.values()];
  }

  keysWithin(key: string): string[] {
    let keys = this.within.get(key);
    if (!keys) {
      const found = new Set<string>();
      const stands = this.get(key)?.key;
      if (stands !== undefined) found.add(stands);
      for (const k of found) for (const b of this.below.get(k) ?? []) found.add(b);
      this.within.set(key, (keys = [...found]));
    }
    return keys;
  }

  gone(): string[] {
    const lost = [...this.merged.keys()].filter((key) => this.get(key) === null);
    return [...this.dead, ...lost];
  }
}
