import type { Instant } from '../time/interval.ts';
import type { EntryState } from './model.ts';
import { type StateFacts, stateAt } from './state.ts';

/** While it runs, an entry is in a state. `to`: null for "no end known". */
export interface StateStretch {
  state: EntryState;
  from: Instant;
  to: Instant | null;
}

/** The states of an entry from its first saved revision on, each until the next. */
export function stateStretches(facts: StateFacts): StateStretch[] {
  const first = Math.min(...facts.revisions.map(({ saved }) => saved));
  const out: StateStretch[] = [];
  if (facts.revisions.length === 0) return out;
  let at: Instant | null = first;
  while (at !== null) {
    const { state, until } = stateAt(facts, at);
    const last = out.at(-1);
    if (last?.state === state) last.to = until;
    else out.push({ state, from: at, to: until });
    at = until;
  }
  return out;
}
