import type { LostPath } from '../db/traffic.ts';
import { designSeen } from './drafts.ts';
import { type NearPath, NearPaths } from './near-paths.ts';
import type { SiteView } from './site-view.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { resolvePath } from '@/core/site/resolve.ts';
import { type Instant, Validity } from '@/core/time/interval.ts';

/** A path that was asked for in vain, with what may have been meant. */
export type LostLine = LostPath & { near: NearPath[] };

/**
 * Of paths that were asked for in vain those where nothing is by now either, with the nearest
 * addresses; those that have such ones first.
 */
export function lostPaths(
  view: SiteView,
  actor: Actor,
  paths: readonly LostPath[],
  at: Instant,
): LostLine[] {
  permit(actor, 'read-unpublished', SITE);
  const found = designSeen(view, { at, seeing: 'published' });
  if (!found) return [];
  const { site, reader } = found;
  const lost = paths.filter(({ path }) => {
    const { kind } = resolvePath(site, reader, path, new Validity(at));
    return kind === 'missing' || kind === 'bad';
  });
  if (lost.length === 0) return [];
  const all = new NearPaths(view, found, at);
  const lines = lost.map((line) => ({ ...line, near: all.to(line.path) }));
  return [...lines.filter(({ near }) => near.length > 0), ...lines.filter((l) => !l.near[0])];
}
