import { connection } from 'next/server';
import { container } from '@/server/process/container.ts';
import { type Clock, readClock } from '@/server/queries/clock.ts';
import type { Design } from '@/core/design/spec.ts';
import type { QueryInput, QueryName, QueryResult } from '@/server/queries/index.ts';
import { signedIn } from './session.ts';

/** What the address bar of a screen holds. */
export type SearchParams = Promise<Record<string, string | string[] | undefined>>;

type AfterActor<T> = T extends [unknown, ...infer R] ? R : never;

/** What every screen starts from. */
export interface Screen {
  /** The clock of its address bar. */
  clock: Clock;
  /** The design that is edited as of the clock; null while no site is loaded. */
  design: Design | null;
  search: Record<string, string | undefined>;
  /** Asks a query in the name of whoever is signed in. */
  ask: <N extends QueryName>(
    name: N,
    ...input: AfterActor<QueryInput<N>>
  ) => Promise<QueryResult<N>>;
}

/** Opens a screen for whoever is signed in; visitors are sent to the sign-in page. */
export async function openScreen(searchParams: SearchParams): Promise<Screen> {
  await connection();
  const actor = await signedIn();
  const all = await searchParams;
  const search = Object.fromEntries(
    Object.entries(all).map(([k, v]) => [k, Array.isArray(v) ? v[0] : v]),
  );
  const { view, reader } = container();
  const clock = readClock(view, search);
  return {
    clock,
    design: view.editable(clock.at, clock.tense === 'past')?.site.design ?? null,
    search,
    ask: (name, ...input) =>
      reader.ask(name, ...([actor, ...input] as unknown as QueryInput<typeof name>)),
  };
}
