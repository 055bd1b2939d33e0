import { type Converting, valuesBefore } from '@/core/design/conversion.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { Values } from '@/core/design/values.ts';
import type { Connection } from '../db/connection.ts';
import { statement } from './statement.ts';
import { readValues } from './stored-values.ts';

/**
 * What a new revision keeps of the newest one besides its form's values, by field id, as stored:
 * the values of fields that the type does not have any more, and of those that others took the
 * place of, brought up to date. So a change of the type that is taken back shows them again.
 */
export function carriedValues(
  connection: Connection,
  entry: string,
  type: ContentType,
  values: Values,
  site: Converting,
): Values {
  const json = statement<string>(
    connection,
    'SELECT "values" FROM revision WHERE entry = ? ORDER BY number DESC LIMIT 1',
  )
    .pluck()
    .get(entry);
  const own = new Set(type.fields.map(({ id }) => id));
  const kept = Object.entries(json === undefined ? {} : (JSON.parse(json) as Values)).filter(
    ([id, value]) => !own.has(id) && !Object.hasOwn(values, id) && value !== null,
  );
  const before = readValues(json ?? '{}', site.language);
  return { ...Object.fromEntries(kept), ...valuesBefore(type.fields, values, before, site) };
}
