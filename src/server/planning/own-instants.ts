import type { CompiledSite } from '@/core/site/compile.ts';
import type { Instant } from '@/core/time/interval.ts';
import { movedBy } from '@/core/time/span.ts';
import { calendarDay } from '@/core/time/zone.ts';

/** How long after what is published now a timing rule retires it, on the calendar of a zone. */
export interface RuledSpan {
  /** ISO 8601 duration. */
  after: string;
  zone: string;
}

/** An instant that a plan made of its own one, and what it is by the instant of the write. */
export interface MovedInstant {
  planned: Instant;
  at: Instant;
  /** Whether it is another calendar day by then, which rules may ask for. */
  otherDay: boolean;
}

/** The spans of all rules that count from the publication. */
export function ruledSpans(sites: readonly CompiledSite[]): RuledSpan[] {
  const all = sites.flatMap(({ design }) =>
    design.types.flatMap(({ timing = [] }) =>
      timing
        .filter((rule) => rule.from === 'entry.published')
        .map(({ after }) => ({ after, zone: design.site.zone })),
    ),
  );
  return [...new Map(all.map((span) => [JSON.stringify(span), span])).values()];
}

/**
 * The instants of a plan that are not the same when it is written later: the planned one itself
 * first, then those at which rules retire what it publishes.
 */
export function movedInstants(
  planned: Instant,
  at: Instant,
  spans: readonly RuledSpan[],
): MovedInstant[] {
  const ruled = spans.flatMap(({ after, zone }): MovedInstant[] => {
    const [then, now] = [movedBy(planned, after, zone), movedBy(at, after, zone)];
    if (then === null || now === null) return [];
    const otherDay = calendarDay(then, zone) !== calendarDay(now, zone);
    return [{ planned: then, at: now, otherDay }];
  });
  return [{ planned, at, otherDay: false }, ...ruled];
}
