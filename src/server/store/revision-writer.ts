import type { Connection } from '../db/connection.ts';
import type { ContentType } from '@/core/design/spec.ts';
import { isReference } from '@/core/design/field-values.ts';
import { searchKey } from '@/core/text.ts';
import { nameOf, valuesOf } from '@/core/design/values.ts';
import type { Revision } from '@/core/publication/model.ts';
import { writeValues } from './stored-values.ts';
import { statement } from './statement.ts';

/** Writes revisions in a language, each the newest of its entry, with the references they hold. */
export function revisionWriter(
  connection: Connection,
  language: string,
): (entry: string, type: ContentType, revision: Revision) => void {
  const insert = statement(
    connection,
    'INSERT INTO revision (entry, number, saved, author, "values", name, search) VALUES (?, ?, ?, ?, ?, ?, ?)',
  );
  const newest = statement(connection, 'UPDATE entry SET newest = ?, unpublished = 1 WHERE id = ?');
  const edge = statement(
    connection,
    'INSERT OR IGNORE INTO reference_edge (target, field, entry, revision) VALUES (?, ?, ?, ?)',
  );
  return (entry, type, { number, saved, author, values }) => {
    const name = nameOf({ id: entry, type, values });
    insert.run(
      entry,
      number,
      saved,
      author,
      writeValues(type, values, language),
      name,
      searchKey(name),
    );
    newest.run(number, entry);
    for (const field of type.fields) {
      if (isReference(field))
        for (const target of valuesOf(values, field.id))
          edge.run(String(target), field.id, entry, number);
    }
  };
}
