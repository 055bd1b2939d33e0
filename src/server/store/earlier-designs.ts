import type { Field } from '@/core/design/field.ts';
import { withInner } from '@/core/design/fields-within.ts';
import type { ContentType, Design } from '@/core/design/spec.ts';
import type { Connection } from '../db/connection.ts';
import { readName } from './index-columns.ts';
import { statement } from './statement.ts';

/**
 * Types of earlier designs of whose entries nothing is derived: what was derived while they were
 * there stays. `noted`: what the keys of `meta` begin with that say so.
 */
export function goneTypes(
  connection: Connection,
  types: ReadonlyMap<string, ContentType>,
  noted: 'index' | 'newest',
  /** Id of a further language, that they were read in. */
  language?: string,
): ContentType[] {
  const made = statement(connection, 'SELECT 1 FROM meta WHERE key = ?');
  const found = new Map<string, ContentType>();
  for (const spec of designSpecs(connection)) {
    if (language !== undefined && !spec.languages?.some(({ id }) => id === language)) continue;
    for (const own of spec.types) {
      const type = language === undefined ? own : { ...own, edition: language };
      if (!types.has(type.id) && !made.get(`${noted}:${readName(type)}`)) found.set(type.id, type);
    }
  }
  return [...found.values()];
}

/** A design as it is stored; those of before have no languages. */
type Stored = Omit<Design, 'languages'> & Partial<Pick<Design, 'languages'>>;

/** All designs that were released, in their order. */
function designSpecs({ driver }: Connection): Stored[] {
  const specs = driver.prepare('SELECT spec FROM design_version ORDER BY starts, id').pluck().all();
  return (specs as string[]).map((spec) => JSON.parse(spec) as Stored);
}

/** Fields that released designs gave a type and that it has no more, as they were last. */
export function earlierFields(connection: Connection, type: ContentType): Field[] {
  const now = new Set(type.fields.map((f) => f.id));
  const found = new Map<string, Field>();
  for (const { types } of designSpecs(connection))
    for (const { id, fields } of types)
      if (id === type.id) for (const f of fields) if (!now.has(f.id)) found.set(f.id, f);
  return [...found.values()];
}

/** Ids that released designs ever gave fields of a type, those within groups included. */
export function fieldIdsEver(connection: Connection, type: string): string[] {
  const all = designSpecs(connection).flatMap(({ types }) =>
    types.filter(({ id }) => id === type).flatMap(({ fields }) => withInner(fields)),
  );
  return [...new Set(all.map(({ id }) => id))];
}
