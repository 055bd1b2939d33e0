import { asc, eq } from 'drizzle-orm';
import type { Instant } from '@/core/time/interval.ts';
import { byHand } from '../db/schema.ts';
import { type Actor, permit } from '../permit.ts';
import type { SiteView } from './site-view.ts';

/** An address that was given to an entry by hand, while its stretch runs; ms UTC. */
export interface AddressByHand {
  id: number;
  path: string;
  from: Instant;
  to: Instant | null;
}

/** The addresses set by hand for an entry that have not ended at an instant, in their order. */
export function addressesByHand(
  { connection }: SiteView,
  actor: Actor,
  id: string,
  at: Instant,
): AddressByHand[] {
  permit(actor, 'read-unpublished', { of: 'entry', id });
  const rows = connection.tables
    .select({ id: byHand.id, path: byHand.path, from: byHand.starts, to: byHand.ends })
    .from(byHand)
    .where(eq(byHand.entry, id))
    .orderBy(asc(byHand.starts), asc(byHand.id))
    .all();
  return rows.filter(({ to }) => to === null || to > at);
}
