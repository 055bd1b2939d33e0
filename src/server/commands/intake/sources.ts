import { randomBytes } from 'node:crypto';
import type { ContentType } from '@/core/design/spec.ts';
import type { Mapping } from '@/core/intake/mapping.ts';
import { statement } from '../../store/statement.ts';
import { type CommandContext, Refused } from '../definition.ts';
import type { BroughtBefore, BroughtNow } from './bring-record.ts';

/** What was brought from a source so far, by its records. @throws Refused where there is no such */
export function sourceOf({ connection }: CommandContext, id: string) {
  const found = statement(connection, 'SELECT 1 FROM source WHERE id = ?').get(id);
  if (!found)
    throw new Refused({
      code: 'unknown-source',
      message: 'What this was brought from is not known any more.',
      fix: 'Bring it in as something new.',
    });
  const rows = statement<BroughtBefore & { record: string; entry: string }>(
    connection,
    'SELECT record, entry, revision, print FROM brought WHERE source = ?',
  ).all(id);
  return { brought: new Map(rows.map(({ record, ...row }) => [record, row])) };
}

/** Keeps how records become entries, so that they can be brought again; gives its id. */
export function writeSource(
  { connection, actor, at }: CommandContext,
  {
    id: known,
    name,
    mapping,
    type,
  }: { id: string | null; name: string; mapping: Mapping; type: ContentType },
): string {
  const id = known ?? `s${randomBytes(6).toString('hex')}`;
  statement(
    connection,
    `INSERT INTO source (id, name, mapping, person, at) VALUES (?, ?, ?, ?, ?)
       ON CONFLICT (id) DO UPDATE SET name = excluded.name, mapping = excluded.mapping,
         person = excluded.person, at = excluded.at`,
  ).run(id, name, JSON.stringify({ ...mapping, type: type.id }), actor.id, at);
  return id;
}

/** Notes which record became which entry, and what it said. */
export function noteBrought(
  { connection }: CommandContext,
  source: string,
  now: ReadonlyMap<string, BroughtNow & { record: string }>,
): void {
  const put = statement(
    connection,
    `INSERT INTO brought (source, record, entry, revision, print) VALUES (?, ?, ?, ?, ?)
       ON CONFLICT (source, record) DO UPDATE SET entry = excluded.entry,
         revision = excluded.revision, print = excluded.print`,
  );
  for (const [entry, { record, revision, print }] of now)
    put.run(source, record, entry, revision, print);
}
