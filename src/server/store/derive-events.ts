import { typesToPlayAnew } from '@/core/site/played-anew.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import type { Closure } from './closure.ts';
import type { DeriveRequest } from './derive-request.ts';
import { type DesignsAhead, siteAt } from './designs-ahead.ts';
import { tablesIn } from './language-tables.ts';
import { statement } from './statement.ts';
import type { StoredTimeline } from './timeline-source.ts';

interface Asked {
  request: DeriveRequest;
  designs: DesignsAhead;
  source: StoredTimeline;
  closure: Closure;
  start: Instant;
}

type Events = Map<Instant, Set<string>>;

/** When each entry that is played through is to be looked at again. */
export function eventsOf(connection: Connection, asked: Asked): Events {
  const { request, closure, start } = asked;
  const events: Events = new Map();
  const add = (at: Instant, entry: string): void => {
    const known = events.get(at);
    if (known) known.add(entry);
    else events.set(at, new Set([entry]));
  };
  if (request.fromBeginning) addSaved(connection, request, add);
  else for (const entry of request.touched) add(request.settled, entry);
  const { at: later, entries = [] } = request.touchedLater ?? {};
  for (const entry of entries) add(later!, entry);
  const own = ownInstants(connection, start);
  // Where everybody is played through, whatever changes tells of itself.
  const above =
    request.everybody || request.fromBeginning ? () => [] : instantsAbove(connection, asked);
  for (const entry of closure.ids) {
    for (const at of own(entry)) add(at, entry);
    for (const at of byRules(asked, entry)) add(at, entry);
    for (const at of asked.source.changesAhead(entry, start)) add(at, entry);
    for (const at of above(entry)) add(at, entry);
  }
  addReleases(asked, add);
  return events;
}

/** While a site is loaded: what was saved of entries that others name, and what they held. */
function addSaved(
  connection: Connection,
  { settled, histories }: DeriveRequest,
  add: (at: Instant, entry: string) => void,
): void {
  const saved = statement<{ at: number; entry: string }>(
    connection,
    `SELECT DISTINCT r.saved AS at, r.entry FROM revision AS r
       JOIN reference_edge AS e ON e.target = r.entry`,
  );
  for (const { at, entry } of saved.all()) add(at, entry);
  for (const [entry, { held }] of histories ?? []) {
    add(settled, entry);
    for (const { from, to } of held) for (const at of [from, to]) if (at !== null) add(at, entry);
  }
}

/** The instants after the start at which rules of its type do something to an entry. */
function byRules({ source, closure, start }: Asked, id: string): Instant[] {
  if (!source.isRuled(closure.typeOf(id) ?? '')) return [];
  const plans = source.entry(id, start)?.plans ?? [];
  const ending = source.endingAhead(id, start);
  const ahead = plans.flatMap(({ at }) => (at > start ? [at] : []));
  return ending === null ? ahead : [...ahead, ending];
}

/** The instants at which something is planned for an entry itself. */
function ownInstants(connection: Connection, start: Instant): (id: string) => Instant[] {
  const sql = statement<Instant>(
    connection,
    `SELECT at FROM planned_change WHERE entry = @id AND at > @start
     UNION SELECT starts FROM by_hand WHERE entry = @id AND starts > @start
     UNION SELECT ends FROM by_hand WHERE entry = @id AND ends > @start`,
  ).pluck();
  return (id) => sql.all({ id, start });
}

/** The instants at which something that an entry's address is built on changes; others' are known. */
function instantsAbove(
  connection: Connection,
  { source, closure, start, designs }: Asked,
): (id: string) => Iterable<Instant> {
  const tables = tablesIn(designs.language);
  const sql = statement<Instant>(
    connection,
    `SELECT at FROM planned_change WHERE entry = @id AND at > @start
     UNION SELECT starts FROM by_hand WHERE entry = @id AND starts > @start
     UNION SELECT ends FROM by_hand WHERE entry = @id AND ends > @start
     UNION SELECT starts FROM ${tables.address} WHERE entry = @id AND starts > @start
     UNION SELECT ends FROM ${tables.address} WHERE entry = @id AND ends > @start`,
  ).pluck();
  const own = new Map<string, Instant[]>();
  const known = new Map<string, Set<Instant>>();
  const above = (id: string): Set<Instant> => {
    const found = known.get(id);
    if (found) return found;
    const all = new Set<Instant>();
    known.set(id, all); // pages that sit within each other in a circle end here
    for (const target of source.builtOn(id)) {
      // What is played through tells of itself when it changes.
      if (!closure.ids.has(target)) {
        if (!own.has(target)) own.set(target, sql.all({ id: target, start }));
        for (const at of own.get(target)!) all.add(at);
      }
      for (const at of above(target)) all.add(at);
    }
    return all;
  };
  return above;
}

/** Designs that take over later may deal the entries of some types anew. */
function addReleases({ designs, closure }: Asked, add: (at: Instant, entry: string) => void): void {
  for (const { starts, types } of dealtAnew(designs))
    for (const id of closure.ids) if (types.has(closure.typeOf(id) ?? '')) add(starts, id);
}

/** The types whose entries each design that takes over later deals anew. */
function dealtAnew(designs: DesignsAhead): { starts: Instant; types: ReadonlySet<string> }[] {
  let before = designs.first;
  return designs.later.map(({ starts, site }) => {
    const types = typesToPlayAnew(before, site);
    before = siteAt(designs, starts);
    return { starts, types };
  });
}

/** Entries that a design which takes over later may deal anew. */
export function movedByReleases(connection: Connection, designs: DesignsAhead): string[] {
  const ids = statement<string>(connection, 'SELECT id FROM entry WHERE type = ?').pluck();
  const types = new Set(dealtAnew(designs).flatMap((release) => [...release.types]));
  return [...types].flatMap((type) => ids.all(type));
}
