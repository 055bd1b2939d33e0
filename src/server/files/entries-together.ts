import { valuesAs } from '@/core/design/conversion.ts';
import type { Design } from '@/core/design/spec.ts';
import { valuesOf } from '@/core/design/values.ts';
import { isBlank } from '@/core/pattern/types.ts';
import type { Told } from './entry-timing.ts';
import type { EntryToLoad } from './to-load.ts';

/** How deep pages may sit within each other. */
const MAX_DEPTH = 50;

/** What the entries of a folder may not do together; each is looked at once. */
export class EntriesTogether {
  /** Which file has each value that may be there once, by type, field and value. */
  private readonly unique = new Map<string, string>();
  /** How many entries sit within nothing, by the type's id. */
  private readonly tops = new Map<string, number>();

  constructor(
    private readonly design: Design,
    private readonly ids: ReadonlyMap<string, EntryToLoad>,
  ) {}

  /** Tells what an entry may not be beside those looked at before. */
  check(entry: EntryToLoad, told: Told): void {
    this.checkDepth(entry, told);
    this.checkUnique(entry, told);
    this.checkTop(entry, told);
  }

  /** Of entries that are there no two have the same where that is said. */
  private checkUnique({ type, revisions, deleted, raw }: EntryToLoad, told: Told): void {
    const newest = revisions.at(-1);
    const unique = type.fields.filter((f) => f.unique);
    if (!newest || unique.length === 0 || deleted !== null) return;
    const values = valuesAs(type.fields, newest.values, this.design.site);
    for (const field of unique) {
      for (const value of new Set(valuesOf(values, field.id))) {
        const key = JSON.stringify([type.id, field.id, value]);
        const first = this.unique.get(key);
        this.unique.set(key, first ?? raw.file);
        if (first === undefined) continue;
        const message = `${field.label} is unique, and ${first} has the same.`;
        told([field.key], 'not-unique', message, 'Give it another value.');
      }
    }
  }

  /** No more sit within nothing than may. */
  private checkTop({ type, revisions, deleted }: EntryToLoad, told: Told): void {
    const field = type.fields.find((f) => f.sitsWithin && f.atTop !== undefined);
    const newest = revisions.at(-1);
    if (!field || !newest || deleted !== null || !isBlank(newest.values[field.id])) return;
    const count = (this.tops.get(type.id) ?? 0) + 1;
    this.tops.set(type.id, count);
    if (count <= field.atTop!) return;
    const message = `${field.atTop} of ${type.plural} may be at the top, and this is one more.`;
    told([field.key], 'crowded-top', message, 'Let it sit within another one, or allow more.');
  }

  private checkDepth({ id, type, revisions }: EntryToLoad, told: Told): void {
    const parentOf = (of: string): string | undefined => {
      const found = this.ids.get(of);
      const field = found?.type.fields.find((f) => f.sitsWithin);
      return field && (found!.revisions.at(-1)?.values[field.id] as string | undefined);
    };
    const field = type.fields.find((f) => f.sitsWithin);
    if (!field || revisions.length === 0) return;
    let at = parentOf(id);
    for (let depth = 1; at && at !== id; depth++) {
      if (depth > MAX_DEPTH) {
        const message = `Pages sit within each other at most ${MAX_DEPTH} deep.`;
        return told([field.key], 'too-deep', message, 'Let it sit within another page.');
      }
      at = parentOf(at);
    }
  }
}
