import { connection } from 'next/server';
import { container } from '@/server/container.ts';
import type { Actor } from '@/server/commands/permit.ts';
import { type Clock, readClock } from '@/server/queries/clock.ts';
import type { SiteView } from '@/server/queries/site-view.ts';
import { signedIn } from './session.ts';

/** What the address bar of a screen holds. */
export type SearchParams = Promise<Record<string, string | string[] | undefined>>;

/** What every screen starts from: who asks, the site, and the clock of its address bar. */
export async function openScreen(searchParams: SearchParams): Promise<{ actor: Actor; view: SiteView; clock: Clock; search: Record<string, string | undefined> }> {
  await connection();
  const actor = await signedIn();
  const all = await searchParams;
  const search = Object.fromEntries(Object.entries(all).map(([k, v]) => [k, Array.isArray(v) ? v[0] : v]));
  const { view } = container();
  return { actor, view, clock: readClock(view, search as { at?: string; seeing?: string }), search };
}
