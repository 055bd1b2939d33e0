import type { Design } from '../design/spec.ts';
import { redirectSpec } from '../design/spec.ts';
import {
  type ByHand,
  endOfRedirects,
  normalOf,
  pathOf,
  redirectAt,
  redirectsOf,
  wrongStart,
} from '../site/redirects.ts';
import type { Step } from './steps.ts';

/** A redirect that is wanted, as it was given. */
export interface RedirectLine {
  from: string;
  to: string;
  /** 308 where left out. */
  status?: number | undefined;
  prefix?: boolean | undefined;
}

/** What becomes of a line. */
export interface PlannedRedirect {
  from: string;
  /** Where it leads in the end: what leads there leads on at once. */
  to: string;
  outcome: 'new' | 'changed' | 'same' | 'refused';
  /** Why it is refused, or what else is to be known; '' where nothing is. */
  words: string;
}

/** Redirects as they are to be, with the steps of the edit that makes them so. */
export interface PlannedRedirects {
  lines: PlannedRedirect[];
  steps: Step[];
}

type Wanted = Omit<Design['redirects'][number], 'id'>;
type Stored = Design['redirects'][number];

/**
 * What some lines would make of a design's redirects: new ones, changed ones, and those that are
 * refused, since they start where something stands, say, or lead in a circle. A redirect that leads
 * to another leads to where that leads, and so do those that led to a new one's beginning.
 * `standsAt`: what stands at a path, in words; null where nothing does.
 */
export function planRedirects(
  design: Pick<Design, 'redirects' | 'listings'>,
  lines: readonly RedirectLine[],
  standsAt: (path: string) => string | null,
): PlannedRedirects {
  const planner = new Planner(design, standsAt);
  return { lines: lines.map((line) => planner.plan(line)), steps: planner.steps() };
}

class Planner {
  private readonly now: Map<string, ByHand>;
  private readonly before: ReadonlyMap<string, Stored>;
  private readonly listings: ReadonlySet<string>;
  private readonly seen = new Set<string>();
  private readonly ids: Set<string>;
  private next = 1;

  constructor(
    private readonly design: Pick<Design, 'redirects' | 'listings'>,
    private readonly standsAt: (path: string) => string | null,
  ) {
    this.now = redirectsOf(design);
    this.before = new Map(design.redirects.map((redirect) => [redirect.id!, redirect]));
    this.listings = new Set(design.listings.flatMap(({ address }) => address ?? []));
    this.ids = new Set(this.before.keys());
  }

  plan(line: RedirectLine): PlannedRedirect {
    const read = redirectSpec.safeParse({ ...line, status: line.status ?? 308 });
    const refused = (words: string): PlannedRedirect => ({
      ...{ from: line.from, to: line.to, words },
      outcome: 'refused',
    });
    if (!read.success) return refused(read.error.issues[0]!.message);
    const from = normalOf(read.data.from);
    const wrong = wrongStart(read.data.from, this.listings)?.message ?? this.again(from);
    if (wrong) return refused(wrong);
    const stands = this.standsAt(from);
    if (stands !== null) return refused(`${stands} stands there.`);
    return this.put(from, read.data) ?? refused('It would lead in a circle, or too far on.');
  }

  private again(from: string): string | null {
    if (this.seen.has(from)) return `${from} stands in an earlier line, too.`;
    this.seen.add(from);
    return null;
  }

  /** Has a redirect as it is wanted; null, and nothing, where it leads in a circle. */
  private put(from: string, { to: given, status, prefix }: Wanted): PlannedRedirect | null {
    const was = this.now.get(from);
    const isPrefix = prefix === true;
    this.now.set(from, { id: was?.id ?? this.freeId(), from, to: given, status, isPrefix });
    const end = this.endOf(from);
    // What is below a path is led on from where it is led to: it may be led otherwise there.
    const to = isPrefix ? given : end;
    const isCircle = to === null || end === null || (isPrefix && this.leadsRound(from));
    if (isCircle || (was?.isPrefix && this.anyLeadsRound())) {
      if (was) this.now.set(from, was);
      else this.now.delete(from);
      return null;
    }
    this.now.set(from, { ...this.now.get(from)!, to });
    const same = was?.to === to && was.status === status && was.isPrefix === isPrefix;
    const words = to === given ? '' : `${given} leads to ${to}, so this does at once.`;
    return { from, to, outcome: same ? 'same' : was ? 'changed' : 'new', words };
  }

  /** Whether what is below a path is led on without end. */
  private leadsRound(from: string): boolean {
    return this.endOf(`${from}/x`) === null;
  }

  /** The same of any: what led somewhere below a redirect may not do so any more. */
  private anyLeadsRound(): boolean {
    return [...this.now.values()].some(({ from, isPrefix }) => isPrefix && this.leadsRound(from));
  }

  private endOf(from: string): string | null {
    return endOfRedirects(this.now, from, (path) => this.standsAt(path) !== null);
  }

  private freeId(): string {
    while (this.ids.has(`r${this.next}`)) this.next += 1;
    this.ids.add(`r${this.next}`);
    return `r${this.next}`;
  }

  steps(): Step[] {
    for (const redirect of this.now.values()) {
      const to = redirect.isPrefix ? null : this.endOf(redirect.from);
      if (to !== null && to !== redirect.to && this.leadsToNew(redirect))
        this.now.set(redirect.from, { ...redirect, to });
    }
    let after = this.design.redirects.at(-1)?.id ?? null;
    return [...this.now.values()].flatMap((redirect): Step[] => {
      const was = this.before.get(redirect.id);
      if (was) return changed(was, redirect);
      const step: Step = {
        do: 'add',
        within: '',
        list: 'redirects',
        after,
        part: partOf(redirect),
      };
      after = redirect.id;
      return [step];
    });
  }

  /** Whether a redirect leads to one of those that were wanted, or to what that leads on below. */
  private leadsToNew({ to }: ByHand): boolean {
    const next = to.startsWith('/') ? redirectAt(this.now, normalOf(pathOf(to))) : null;
    return next !== null && this.seen.has(next.byHand.from);
  }
}

function partOf({ id, from, to, status, isPrefix }: ByHand): { id: string } {
  return { ...{ id, from, to, status }, ...(isPrefix ? { prefix: true } : {}) };
}

function changed(was: Stored, { id, to, status, isPrefix }: ByHand): Step[] {
  const prefix = was.prefix ?? null;
  const set = (property: string, before: unknown, now: unknown): Step[] =>
    before === now
      ? []
      : [{ do: 'set', part: `redirects/${id}`, property, was: before, now } as Step];
  return [
    ...set('to', was.to, to),
    ...set('status', was.status, status),
    ...set('prefix', prefix, isPrefix ? true : prefix === true ? null : prefix),
  ];
}
