import type { EntryView, Values } from '@/core/design/values.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { Instant, Interval } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { ListMemory } from './list-memory.ts';
import { type MediaVersion, versionsOf, versionsOfAll } from './media.ts';
import { personName } from './persons.ts';
import { statement } from './statement.ts';
import { readShown } from './stored-values.ts';

const MOST_KEPT = 20_000;
const NONE: ReadonlyMap<string, ReadEntry> = new Map();

/** What is shown of an entry: the revisions of its words and of the rest, and the language. */
interface ShownValues {
  id: string;
  revision: number;
  shared: number;
  /** BCP 47. */
  language: string;
}

/** What stands under an id, and over which stretch of time it is so. */
export interface ReadEntry extends Interval {
  /** Null where nothing is to be seen. */
  entry: EntryView | null;
  /** Where what was read of it begins and ends; null for what does not. */
  bounds: readonly (Instant | null)[];
}

const keyOf = ({ id, revision, shared, language }: ShownValues): string =>
  `${id}\n${revision}\n${shared}\n${language}`;

/**
 * What does not change between two writes: values of revisions, pictures, and entries and lists
 * while they hold; shared by all readers of a connection.
 */
export class RowCache {
  private readonly revisions = new Map<string, Values>();
  private readonly pictures = new Map<string, MediaVersion[]>();
  private readonly persons = new Map<string, string>();
  private entries = new WeakMap<CompiledSite, Map<string, ReadEntry>>();
  readonly lists = new ListMemory();

  /** The values of what is shown; none where they are not there. */
  values(connection: Connection, shown: ShownValues): Values {
    return kept(this.revisions, keyOf(shown), () => {
      const read = statement<string>(
        connection,
        'SELECT "values" FROM revision WHERE entry = ? AND number = ?',
      ).pluck();
      const { id, revision, shared, language } = shown;
      const words = read.get(id, revision) ?? '{}';
      return readShown(
        words,
        shared === revision ? words : (read.get(id, shared) ?? '{}'),
        language,
      );
    });
  }

  /** Reads the values of what is shown that are not known yet, all in one step. */
  readValues(connection: Connection, shown: readonly ShownValues[]): void {
    const unknown = shown.filter((one) => !this.revisions.has(keyOf(one)));
    if (unknown.length < 2) return;
    const sql = `SELECT w.key AS place, r."values" AS words, s."values" AS rest
      FROM json_each(?) AS w
      JOIN revision AS r ON r.entry = w.value ->> 0 AND r.number = w.value ->> 1
      LEFT JOIN revision AS s ON s.entry = w.value ->> 0 AND s.number = w.value ->> 2
        AND w.value ->> 1 <> w.value ->> 2`;
    const wanted = unknown.map(({ id, revision, shared }) => [id, revision, shared]);
    type Row = { place: number; words: string; rest: string | null };
    const rows = statement<Row>(connection, sql).all(JSON.stringify(wanted));
    for (const { place, words, rest } of rows) {
      const one = unknown[place]!;
      put(this.revisions, keyOf(one), readShown(words, rest ?? words, one.language));
    }
  }

  /** What is known of a site's entries, by their ids. */
  entriesOf(site: CompiledSite): ReadonlyMap<string, ReadEntry> {
    return this.entries.get(site) ?? NONE;
  }

  /** Notes how entries were read. */
  keepEntries(site: CompiledSite, read: readonly (readonly [string, ReadEntry])[]): void {
    let known = this.entries.get(site);
    if (!known) this.entries.set(site, (known = new Map()));
    if (known.size + read.length > MOST_KEPT) known.clear();
    if (read.length <= MOST_KEPT) for (const [id, one] of read) known.set(id, one);
  }

  /** Reads all that media were and are that are not known yet, all in one step. */
  readMedia(connection: Connection, ids: readonly string[]): void {
    const unknown = [...new Set(ids)].filter((id) => !this.pictures.has(id));
    if (unknown.length < 2) return;
    for (const [id, versions] of versionsOfAll(connection, unknown))
      put(this.pictures, id, versions);
  }

  /** All that a medium was and is, in the order of time. */
  media(connection: Connection, id: string): readonly MediaVersion[] {
    return kept(this.pictures, id, () => versionsOf(connection, id));
  }

  /** What a person is called. */
  person(connection: Connection, id: string): string {
    return kept(this.persons, id, () => personName(connection, id));
  }

  /** Forgets everything: something was written. */
  clear(): void {
    this.entries = new WeakMap();
    this.persons.clear();
    this.revisions.clear();
    this.pictures.clear();
    this.lists.clear();
  }
}

function kept<T>(known: Map<string, T>, key: string, read: () => T): T {
  const found = known.get(key);
  if (found !== undefined) return found;
  const value = read();
  put(known, key, value);
  return value;
}

function put<T>(known: Map<string, T>, key: string, value: T): void {
  if (known.size >= MOST_KEPT) known.clear();
  known.set(key, value);
}
