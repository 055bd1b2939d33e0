import type { Issue } from '@/core/issue.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { Connection } from '../../db/connection.ts';
import { topsInUse } from '../../store/at-top.ts';
import { fieldsWithDoubles } from '../../store/unique-values.ts';
import { statement } from '../../store/statement.ts';

/** Types that go although there are entries of them. */
export function typesInUse(
  connection: Connection,
  before: CompiledSite,
  after: CompiledSite,
): Issue[] {
  const count = statement<number>(
    connection,
    'SELECT count(*) FROM entry WHERE type = ? AND deleted IS NULL',
  ).pluck();
  const gone = [...before.types.values()].filter(({ id }) => !after.types.has(id));
  return gone.flatMap((type: ContentType) => {
    const entries = count.get(type.id)!;
    if (entries === 0) return [];
    return [
      {
        code: 'type-in-use',
        path: `types/${type.key}`,
        message: `There ${entries === 1 ? 'is 1 entry' : `are ${entries} entries`} of the type ${type.label}, which would go.`,
        fix: 'Delete them first.',
      },
    ];
  });
}

/** Fields that are to have no value twice from now on, and have. */
export function doublesInUse(
  connection: Connection,
  before: CompiledSite,
  after: CompiledSite,
): Issue[] {
  return [...after.types.values()].flatMap((type) => {
    const already = before.types.get(type.id)?.fields ?? [];
    const fields = type.fields.filter(
      ({ id, unique }) => unique && !already.some((f) => f.id === id && f.unique),
    );
    return fieldsWithDoubles(connection, type, fields, after.design.site);
  });
}

/** Types of which more sit within nothing than may from now on. */
export function crowdedTops(
  connection: Connection,
  before: CompiledSite,
  after: CompiledSite,
): Issue[] {
  return [...after.types.values()].flatMap((type) =>
    topsInUse(connection, type, before.types.get(type.id)),
  );
}

/** Types that are to have one entry, and have more. */
export function singlesInUse(
  connection: Connection,
  before: CompiledSite,
  after: CompiledSite,
): Issue[] {
  const count = statement<number>(
    connection,
    'SELECT count(*) FROM entry WHERE type = ? AND deleted IS NULL',
  ).pluck();
  return [...after.types.values()].flatMap(({ id, key, label, single }) => {
    const entries = single && !before.types.get(id)?.single ? count.get(id)! : 0;
    if (entries < 2) return [];
    return [
      {
        code: 'single-type',
        path: `types/${key}`,
        message: `There are ${entries} entries of the type ${label}, which is to have one.`,
        fix: 'Delete all but one first.',
      },
    ];
  });
}
