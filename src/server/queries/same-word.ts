import type { Instant } from '@/core/time/interval.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { asOf } from '../store/as-of.ts';
import { statement } from '../store/statement.ts';
import type { SiteView } from './site-view.ts';

/** The labels of other subject sets in which a name stands already. */
export function sameWord(
  view: SiteView,
  actor: Actor,
  { set, name }: { set: string; name: string },
  at: Instant,
): string[] {
  permit(actor, 'read-unpublished', SITE);
  const sql = `SELECT DISTINCT "set" FROM subject
    WHERE "set" <> @set AND name = @name COLLATE NOCASE AND merged IS NULL AND ${asOf('', '@at')}`;
  const found = statement<string>(view.connection, sql).pluck().all({ set, name, at });
  const sets = view.at(at)?.site.design.subjectSets ?? [];
  return sets.filter(({ id }) => found.includes(id)).map(({ label }) => label);
}
