import { PRESETS } from '@/core/design/presets.ts';
import type { Values } from '@/core/design/values.ts';
import type { Connection } from '../db/connection.ts';
import { idOfPath } from '../files/entry-form.ts';
import { statement } from '../store/statement.ts';
import type { StarterRow } from '../store/starters.ts';
import type { EntryPrinting } from './entry-file.ts';
import { iso } from './history-files.ts';
import { printedValues } from './printed-values.ts';
import type { FileNames, SavedFile } from './saved-file.ts';
import { yamlText } from './yaml-text.ts';

/** What new entries can begin with: a file each, below a folder for their type. */
export function* starterFiles(
  connection: Connection,
  how: EntryPrinting,
  names: FileNames,
): Generator<SavedFile> {
  const rows = statement<StarterRow>(connection, 'SELECT * FROM starter ORDER BY id').all();
  for (const { id, type: typeId, name, filled, author, saved } of rows) {
    const type = how.typeOf(typeId);
    const folder = `starters/${type?.key ?? typeId}`;
    const path = names.take(folder, id, '.yaml');
    const { fields, stored } = printedValues(type, JSON.parse(filled) as Values, how);
    const { [PRESETS]: presets, ...besides } = stored;
    const starter = {
      ...(idOfPath(path.slice(folder.length + 1, -'.yaml'.length)) === id ? {} : { id }),
      name,
      ...(author === '' ? {} : { author }),
      saved: iso(saved),
      ...(type ? {} : { typeId }),
      ...(presets ? { presets } : {}),
      ...(Object.keys(besides).length > 0 ? { stored: besides } : {}),
    };
    yield { path, content: yamlText({ starter, ...fields }) };
  }
}
