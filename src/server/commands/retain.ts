import { daysKept, expendable } from '@/core/publication/retention.ts';
import type { ContentType } from '@/core/design/spec.ts';
import { statement } from '../store/statement.ts';
import type { CommandContext } from './definition.ts';

/**
 * Drops the versions of an entry that its type, or the site, wants to be kept no longer. What was
 * ever public, is planned to be, or went into a release stays.
 */
export function retain(
  { connection, site, at }: CommandContext,
  id: string,
  type: ContentType,
): void {
  const days = daysKept(site.design.site, type);
  if (days === null) return;
  const versions = statement<{ number: number; saved: number; needed: 0 | 1 }>(
    connection,
    `SELECT number, saved, number IN (
         SELECT revision FROM live_interval WHERE entry = @id
         UNION SELECT shared_revision FROM live_interval WHERE entry = @id
         UNION SELECT revision FROM planned_change WHERE entry = @id AND revision IS NOT NULL
       ) AS needed
     FROM revision WHERE entry = @id ORDER BY number`,
  ).all({ id });
  const kept = versions.map(({ needed, ...v }) => ({ ...v, isNeeded: needed === 1 }));
  for (const number of expendable(kept, { days, at })) {
    const own = { id, number };
    statement(
      connection,
      'DELETE FROM reference_edge WHERE entry = @id AND revision = @number',
    ).run(own);
    statement(connection, 'DELETE FROM revision WHERE entry = @id AND number = @number').run(own);
  }
}
