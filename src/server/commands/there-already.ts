import type { ContentType } from '@/core/design/spec.ts';
import { statement } from '../store/statement.ts';
import type { CommandContext, Refused } from './definition.ts';

/** What keeps another entry from being there: of a single type there is one. */
export function thereAlready(
  { connection }: CommandContext,
  { id, label, single }: ContentType,
): Refused['issues'] {
  if (!single) return [];
  const sql = `SELECT r.name FROM entry AS e JOIN revision AS r
    ON r.entry = e.id AND r.number = e.newest WHERE e.type = ? AND e.deleted IS NULL`;
  const name = statement<string>(connection, sql).pluck().get(id);
  if (name === undefined) return [];
  return [
    {
      code: 'single-type',
      message: `There is one ${label} and no more: “${name}”.`,
      fix: 'Change that one, or delete it first.',
    },
  ];
}
