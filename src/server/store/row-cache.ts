import type { Values } from '@/core/design/values.ts';
import type { Connection } from '../db/connection.ts';
import { ListMemory } from './list-memory.ts';
import { type MediaVersion, versionsOf } from './media.ts';
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
  if (known.size >= MOST_KEPT) known.clear();
  known.set(key, value);
  return value;
}
