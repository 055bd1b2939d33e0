import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { derive } from './derive.ts';
import { designsOf } from './design-store.ts';
import { designsFrom } from './designs-ahead.ts';
import { haveTheirForm } from './index-tables.ts';
import { isNewestNoted } from './newest/ensure-newest.ts';
import { settledInstant, write } from './write.ts';

/**
 * Makes derived tables anew that an earlier version of this program made otherwise, so that no
 * later write has to; nothing is written where they are as they should be.
 */
export function freshenDerivedTables(
  connection: Connection,
  wallClock: Instant,
  step: () => void = () => undefined,
): void {
  const settled = settledInstant(connection);
  const found = designsOf(connection).at(settled);
  if (!found) return;
  const designs = designsFrom(connection, settled, found.site);
  if (haveTheirForm(connection, designs) && isNewestNoted(connection, designs)) return;
  write(connection, wallClock, (at) => {
    const { site } = designsOf(connection).at(at)!;
    derive(connection, { site, settled: at, touched: [], step });
  });
}
