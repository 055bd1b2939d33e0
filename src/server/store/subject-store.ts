import type { Connection } from '../db/connection.ts';
import { subject } from '../db/schema.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { Subject } from '@/core/design/values.ts';
import { statement } from './statement.ts';

/** What is read of subjects; sets go by the keys that a design gives them. */
export type Subjects = Pick<SubjectStore, 'get' | 'all' | 'keysWithin'>;

/** All subjects, by the ids of their sets, read once and again whenever their generation has moved. */
export class SubjectStore {
  private bySet = new Map<string, Map<string, Subject>>();
  private within = new Map<string, string[]>();
  private generation = -1;

  constructor(private readonly connection: Connection) {}

  /** The subjects by the keys that their sets have in a design. */
  under({ setIds }: Pick<CompiledSite, 'setIds'>): Subjects {
    if ([...setIds].every(([key, id]) => key === id)) return this;
    const idOf = (set: string): string => setIds.get(set) ?? '';
    const named = <S extends Subject | null>(set: string, found: S): S =>
      found && { ...found, set };
    return {
      get: (set, key) => named(set, this.get(idOf(set), key)),
      all: (set) => this.all(idOf(set)).map((subject) => named(set, subject)),
      keysWithin: (set, key) => this.keysWithin(idOf(set), key),
    };
  }

  /** A subject; null where there is none. */
  get(set: string, key: string): Subject | null {
    this.refresh();
    return this.bySet.get(set)?.get(key) ?? null;
  }

  /** The subjects of a set in their order. */
  all(set: string): Subject[] {
    this.refresh();
    return [...(this.bySet.get(set)?.values() ?? [])];
  }

  /** A category's key and the keys of all below it. */
  keysWithin(set: string, key: string): string[] {
    this.refresh();
    const cacheKey = `${set}\n${key}`;
    let keys = this.within.get(cacheKey);
    if (!keys) {
      const found = new Set([key]);
      for (const k of found)
        for (const s of this.bySet.get(set)?.values() ?? []) if (s.parent === k) found.add(s.key);
      this.within.set(cacheKey, (keys = [...found]));
    }
    return keys;
  }

  private refresh(): void {
    const now =
      statement<number>(
        this.connection,
        `SELECT generation FROM site_change WHERE scope = 'subjects'`,
      )
        .pluck()
        .get() ?? 0;
    if (now === this.generation) return;
    this.generation = now;
    this.within.clear();
    this.bySet = new Map();
    const rows = this.connection.tables
      .select()
      .from(subject)
      .orderBy(subject.set, subject.position);
    for (const { position: _, ...found } of rows.all()) {
      if (!this.bySet.has(found.set)) this.bySet.set(found.set, new Map());
      this.bySet.get(found.set)!.set(found.key, found);
    }
  }
}
