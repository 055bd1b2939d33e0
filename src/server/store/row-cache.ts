import type { Values } from '@/core/design/values.ts';
import type { Connection } from '../db/connection.ts';
import { ListMemory } from './list-memory.ts';
import { type MediaVersion, versionsOf, versionsOfAll } from './media.ts';
import { personName } from './persons.ts';
import { statement } from './statement.ts';
import { readValues } from './stored-values.ts';

const MOST_KEPT = 20_000;

/**
 * What does not change between two writes: values of revisions, pictures, and lists while they
 * hold; shared by all readers of a connection.
 */
export class RowCache {
  private readonly revisions = new Map<string, Values>();
  private readonly pictures = new Map<string, MediaVersion[]>();
  private readonly persons = new Map<string, string>();
  readonly lists = new ListMemory();

  /** The values of a revision in a language; none where it is not there. */
  values(connection: Connection, entry: string, revision: number, language: string): Values {
    return kept(this.revisions, `${entry}\n${revision}\n${language}`, () => {
      const json = statement<string>(
        connection,
        'SELECT "values" FROM revision WHERE entry = ? AND number = ?',
      )
        .pluck()
        .get(entry, revision);
      return readValues(json ?? '{}', language);
    });
  }

  /** Reads the values of revisions that are not known yet, all in one step. */
  readValues(
    connection: Connection,
    revisions: readonly { id: string; revision: number }[],
    language: string,
  ): void {
    const keyOf = (id: string, number: number): string => `${id}\n${number}\n${language}`;
    const unknown = revisions.filter((r) => !this.revisions.has(keyOf(r.id, r.revision)));
    if (unknown.length < 2) return;
    const sql = `SELECT r.entry AS id, r.number AS revision, r."values" AS json
      FROM json_each(?) AS w JOIN revision AS r
        ON r.entry = w.value ->> 0 AND r.number = w.value ->> 1`;
    const wanted = JSON.stringify(unknown.map(({ id, revision }) => [id, revision]));
    type Row = { id: string; revision: number; json: string };
    for (const { id, revision, json } of statement<Row>(connection, sql).all(wanted))
      put(this.revisions, keyOf(id, revision), readValues(json, language));
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
