import type { Connection } from '../db/connection.ts';
import { statement } from '../store/statement.ts';
import { iso } from './history-files.ts';
import type { SavedFile } from './saved-file.ts';
import { yamlText } from './yaml-text.ts';

/** Where content was brought in from: a file each, with which record became which entry. */
export function* sourceFiles(connection: Connection): Generator<SavedFile> {
  const sources = statement<{
    id: string;
    name: string;
    mapping: string;
    person: string;
    at: number;
  }>(connection, 'SELECT id, name, mapping, person, at FROM source ORDER BY id').all();
  const records = statement<{ record: string; entry: string; revision: number; print: string }>(
    connection,
    'SELECT record, entry, revision, print FROM brought WHERE source = ? ORDER BY record',
  );
  for (const { id, name, mapping, person, at } of sources)
    yield {
      path: `sources/${id}.yaml`,
      content: yamlText({
        ...{ name, person, at: iso(at) },
        mapping: JSON.parse(mapping) as object,
        records: records.all(id),
      }),
    };
}
