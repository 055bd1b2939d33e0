import { type Actor, SITE, permit } from '../permit.ts';
import { statement } from '../store/statement.ts';
import { publicGenerationOf } from '../store/write.ts';
import type { SiteView } from './site-view.ts';

/** How far an entry, and what is public, have come: other numbers where somebody wrote meanwhile. */
export interface Standing {
  /** Number of the newest revision; null for a new entry. */
  revision: number | null;
  /** The counter of what the public can see. */
  public: number;
}

/** How far an entry and what is public have come; null for a new entry. */
export function standingOf({ connection }: SiteView, actor: Actor, entry: string | null): Standing {
  permit(actor, 'write-entry', entry === null ? SITE : { of: 'entry', id: entry });
  const newest = statement<number>(connection, 'SELECT newest FROM entry WHERE id = ?').pluck();
  return {
    revision: entry === null ? null : (newest.get(entry) ?? null),
    public: publicGenerationOf(connection)(),
  };
}

/** Whether nothing of an entry may be kept any more. */
export function isPurged({ connection }: SiteView, entry: string): boolean {
  const sql = 'SELECT 1 FROM entry WHERE id = ? AND purged IS NOT NULL';
  return statement(connection, sql).get(entry) !== undefined;
}
