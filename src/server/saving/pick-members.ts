import { BEGINNING } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { type Pick, allPicks } from '../store/picks.ts';
import { iso } from './history-files.ts';

/** All stretches of all picks as folders have them, in their order, by the ids of the picks. */
export function pickMembers(connection: Connection): Map<string, (string | object)[]> {
  const members = new Map<string, (string | object)[]>();
  for (const pick of allPicks(connection)) {
    const own = members.get(pick.picks) ?? [];
    own.push(memberOf(pick));
    members.set(pick.picks, own);
  }
  return members;
}

function memberOf({ entry, from, to }: Pick): string | object {
  if (from === BEGINNING && to === null) return entry;
  return {
    entry,
    ...(from === BEGINNING ? {} : { from: iso(from) }),
    ...(to === null ? {} : { to: iso(to) }),
  };
}

/** What history.yaml says of picks that the design of now does not have. */
export function picksBefore(picks: ReadonlyMap<string, unknown[]>): object {
  const before = [...picks].map(([id, members]) => ({ picks: id, members }));
  return before.length > 0 ? { picks: before } : {};
}
